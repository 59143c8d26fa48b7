/** The seven states of a subscription. A dispute is none of them: it keeps the one that it had. */
export const STATES = ['pending', 'trial', 'active', 'overdue', 'paused', 'cancelling', 'ended'] as const;
export type State = (typeof STATES)[number];

/** What is charged by itself or opens a tier, or will once it is resumed. */
export const RUNNING: ReadonlySet<State> = new Set(['trial', 'active', 'overdue', 'paused', 'cancelling']);

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
