import { randomBytes } from 'node:crypto';
import { randomId } from '../lib/http';
import type { Hook } from '../lib/outbox';
import type { Payment } from '../lib/payments';
import { JsonState } from '../lib/state';
import type { Instant } from '../../src/core/instants';

export type Mode = 'test' | 'live';
export type Account = {
  id: string;
  name: string;
  mode: Mode;
  secret: string;
  /** In test mode, the time that the account believes it is; null: real time. */
  clock: Instant | null;
};

export const PURSES = ['full', 'empty', 'empties', 'fills-up'] as const;
/** `empties`: the first bill is paid, later ones are not; `fills-up`: the second bill fails once. */
export type Purse = (typeof PURSES)[number];

/** A stretch of bills: `first` for the first of them, `amount` for each after it. */
export type Stage = {
  amount: number;
  first: number;
  every: { n: number; unit: 'week' | 'month' | 'year' | 'day' } | null;
  times: number | null;
};
export type Agreement = {
  id: string;
  account: string;
  key: string;
  state: 'asked' | 'running' | 'ended' | 'refused';
  currency: string;
  zone: string;
  startsAt: Instant;
  stages: Stage[];
  retryDays: number[];
  returnUrl: string;
  note: string;
  purse: Purse;
  /** The next bill: its stage, its number in it, and where the stage began. */
  stage: number;
  n: number;
  stageFrom: Instant;
  nextAt: Instant | null;
  failedAt: Instant | null;
  tries: number;
  bills: number;
};

export type Data = {
  accounts: Account[];
  codes: Record<string, string>;
  agreements: Agreement[];
  payments: Payment[];
  hooks: Hook[];
};

const makeAccount = (mode: Mode): Account => ({
  id: randomId('merchant'),
  name: 'Your account',
  mode,
  secret: `dunlin_${mode}_${randomBytes(18).toString('hex')}`,
  clock: null,
});

export class State extends JsonState<Data> {
  constructor(file: string) {
    super(file, () => ({
      accounts: [makeAccount('test'), makeAccount('live')],
      codes: {},
      agreements: [],
      payments: [],
      hooks: [],
    }));
  }
}
