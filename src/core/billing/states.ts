/** The seven states of a subscription. A dispute is none of them: it keeps the one that it had. */
export const STATES = ['pending', 'trial', 'active', 'overdue', 'paused', 'cancelling', 'ended'] as const;
export type State = (typeof STATES)[number];

/** What the lists of subscriptions can be narrowed to: what is pending is in none. */
export const BEGUN = [
  'trial',
  'active',
  'overdue',
  'paused',
  'cancelling',
  'ended',
] as const satisfies State[];

/** What is charged by itself or opens a tier, or will once it is resumed. */
export const RUNNING: ReadonlySet<State> = new Set(['trial', 'active', 'overdue', 'paused', 'cancelling']);

/** What is charged by itself when its period ends. */
export const CHARGED: ReadonlySet<State> = new Set(['trial', 'active', 'overdue']);

/** What monthly income is made of: what is charged, and on trial no longer. */
export const EARNING: ReadonlySet<State> = new Set(['active', 'overdue']);

/** What is paid, and is charged by itself when its period ends. */
export const CURRENT: ReadonlySet<State> = new Set(['trial', 'active']);

/**
 * How far a checkout has come. `confirming`: the address is not confirmed yet; `charging`: a gateway was asked;
 * `approving`: a wallet's page was; `awaiting`: a transfer.
 */
export const CHECKOUT_STATES = [
  'confirming',
  'open',
  'charging',
  'approving',
  'awaiting',
  'done',
  'expired',
] as const;
export type CheckoutState = (typeof CHECKOUT_STATES)[number];
