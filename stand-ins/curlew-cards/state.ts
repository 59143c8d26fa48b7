import { randomBytes } from 'node:crypto';
import { existsSync, readFileSync, renameSync, writeFileSync } from 'node:fs';
import { checkLetters } from '../../src/gateways/curlew-cards/keys';
import type { Behaviour } from './cards';

export type Mode = 'test' | 'live';
export type Account = { id: string; name: string; mode: Mode; siteKey: string; secretKey: string };
export type Card = {
  id: string;
  customer: string;
  ending: string;
  expires: string;
  behaviour: Behaviour;
  charges: number;
};
export type Payment = {
  id: string;
  account: string;
  key: string;
  state: 'succeeded' | 'declined';
  code: string | null;
  amount: number;
  currency: string;
  note: string;
  at: string;
};
export type Hook = { id: string; account: string; address: string; secret: string };
export type Token = { account: string; number: string; expires: string };

export type Data = {
  accounts: Account[];
  tokens: Record<string, Token>;
  cards: Record<string, Card>;
  /** Saved cards and payments by account and idempotency key: the same key always has the same answer. */
  savedByKey: Record<string, { status: number; body: unknown }>;
  payments: Payment[];
  hooks: Hook[];
};

export const randomId = (kind: string): string => `${kind}_${randomBytes(9).toString('hex')}`;

function makeKey(mode: Mode, kind: 'site' | 'secret'): string {
  const head = `curlew_${mode}_${kind}_${randomBytes(12).toString('hex')}`;
  return head + checkLetters(head);
}

function makeAccount(mode: Mode): Account {
  return {
    id: randomId('acc'),
    name: 'Lantern Moor',
    mode,
    siteKey: makeKey(mode, 'site'),
    secretKey: makeKey(mode, 'secret'),
  };
}

/** Everything the stand-in knows, kept in one JSON file so that it survives a restart. */
export class State {
  readonly data: Data;

  constructor(private readonly file: string) {
    this.data = existsSync(file)
      ? (JSON.parse(readFileSync(file, 'utf8')) as Data)
      : {
          accounts: [makeAccount('test'), makeAccount('live')],
          tokens: {},
          cards: {},
          savedByKey: {},
          payments: [],
          hooks: [],
        };
    this.save();
  }

  save(): void {
    writeFileSync(`${this.file}.new`, JSON.stringify(this.data));
    renameSync(`${this.file}.new`, this.file);
  }
}
