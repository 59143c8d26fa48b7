import { randomBytes } from 'node:crypto';
import { checkLetters } from '../../src/billing/gateways/curlew-cards/keys';
import { randomId } from '../lib/http';
import type { Hook } from '../lib/outbox';
import type { Payment } from '../lib/payments';
import { JsonState } from '../lib/state';
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
export type Token = { account: string; number: string; expires: string; confirmed: boolean };

export type Data = {
  accounts: Account[];
  tokens: Record<string, Token>;
  cards: Record<string, Card>;
  /** Saved cards and payments by account and idempotency key: the same key always has the same answer. */
  savedByKey: Record<string, { status: number; body: unknown }>;
  payments: Payment[];
  hooks: Hook[];
};

function makeKey(mode: Mode, kind: 'site' | 'secret'): string {
  const head = `curlew_${mode}_${kind}_${randomBytes(12).toString('hex')}`;
  return head + checkLetters(head);
}

function makeAccount(mode: Mode): Account {
  return {
    id: randomId('acc'),
    name: 'Your account',
    mode,
    siteKey: makeKey(mode, 'site'),
    secretKey: makeKey(mode, 'secret'),
  };
}

export class State extends JsonState<Data> {
  constructor(file: string) {
    super(file, () => ({
      accounts: [makeAccount('test'), makeAccount('live')],
      tokens: {},
      cards: {},
      savedByKey: {},
      payments: [],
      hooks: [],
    }));
  }
}
