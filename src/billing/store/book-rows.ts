import type { Charge, Checkout, Holding, Method, Payment, Subscription } from '@/core/billing/book';
import type { Instant, LocalMonth } from '@/core/instants';
import type { Mode } from '@/platform/store/site';
import type { ChargeId, GatewayAccountId, PaymentId, SubscriptionId } from '@/core/ids';

/** What of a subscription is no matter of its life: who is asked for its money, and how it is taxed. */
export type Account = {
  gatewayAccountId: GatewayAccountId | null;
  customerRef: string | null;
  methodRef: string | null;
  methodLabel: string | null;
  methodExpires: LocalMonth | null;
  taxCountry: string;
  addedTax: number;
  remindAt: Instant | null;
};

/** A row as JSON: numbers, text and instants as PostgreSQL writes them there. */
export type Json = Record<string, unknown>;

const IS_INSTANT = /^\d{4}-\d\d-\d\dT.*\+00:00$/;
/** Instants as everywhere here: PostgreSQL writes "+00:00" in JSON. */
// oxlint-disable-next-line typescript/no-unnecessary-type-parameters -- what a row holds is said by who asks for it.
export function rowOf<Row>(json: Json): Row {
  const row: Json = {};
  for (const [name, value] of Object.entries(json))
    row[name] =
      typeof value === 'string' && IS_INSTANT.test(value) ? `${value.slice(0, -'+00:00'.length)}Z` : value;
  return row as Row;
}

export type SubscriptionRow = {
  id: SubscriptionId;
  member_id: string;
  mode: Mode;
  track: string;
  slot: string;
  offer_version_id: string;
  state: Subscription['state'];
  begun_by: Subscription['begunBy'];
  replaces_id: string | null;
  method: Method | null;
  anchor_at: Instant;
  takes_up_step: number;
  takes_up_n: number;
  period_step: number | null;
  period_n: number | null;
  period_to: Instant | null;
  skip_trial: boolean;
  skip_fee: boolean;
  began_at: Instant | null;
  ended_at: Instant | null;
  paid_through: Instant | null;
  unpaid_charge_id: string | null;
  first_failed_at: Instant | null;
  due_at: Instant | null;
  changed_at: Instant | null;
  pauses: boolean;
  switches_to: string | null;
  moves_to: string | null;
  discount: unknown;
  disputes: string[];
  ended_unpaid: boolean;
  charges_issued: number;
  events: number;
  gateway_account_id: string | null;
  customer_ref: string | null;
  method_ref: string | null;
  method_label: string | null;
  method_expires: LocalMonth | null;
  tax_country: string;
  added_tax: number;
  remind_at: Instant | null;
};
export type ChargeRow = {
  id: ChargeId;
  subscription_id: string | null;
  purchase_id: string | null;
  number: number;
  kind: Charge['kind'];
  step: number;
  n: number;
  period_kind: Charge['period']['kind'];
  /** Null of a pass that was bought: then it is what was bought. */
  tier_id: string | null;
  due_at: Instant;
  period_to: Instant | null;
  price: number;
  joining_fee: number;
  currency: string;
  amount: number;
  unused: unknown;
  due: number;
  state: Charge['state'];
  uses_discount: boolean;
  is_move: boolean;
  lived_from: Instant | null;
  lived_to: Instant | null;
  is_taken_back: boolean;
};
export type AttemptRow = {
  id: PaymentId;
  charge_id: string;
  attempt: number;
  at: Instant;
  state: 'intent' | 'succeeded' | 'declined' | 'withdrawn';
  until_at: Instant | null;
  by_member: boolean;
  gateway_ref: string | null;
  decline_code: string | null;
  amount: number;
  settled_at: Instant;
  refunded: number;
  lost: number;
  dispute: Payment['dispute'];
  is_returned: boolean;
};
export type RefundRow = {
  id: string;
  payment_id: string;
  amount: number;
  at: Instant;
  ends_access: boolean;
  reason: string;
  idempotency_key: string;
  gateway_ref: string | null;
  state: 'intent' | 'succeeded' | 'refused';
};
export type CreditRow = {
  id: string;
  payment_id: string | null;
  charge_id: string | null;
  currency: string;
  amount: number;
  spent: number;
  reserved: number;
  voided: number;
};
export type UseRow = { credit_id: string; charge_id: string; amount: number; is_spent: boolean };
export type HoldingRow = {
  id: string;
  why: Holding['why'];
  subscription_id: string | null;
  tier_id: string;
  is_paid: boolean;
  from_at: Instant;
  until_at: Instant | null;
  since_at: Instant;
};
export type SummaryRow = {
  track: string;
  had_trial: boolean;
  joined_at: Instant | null;
  has_switched_up: boolean;
};
export type CheckoutRow = {
  id: string;
  track: string;
  slot: string;
  state: Checkout['state'];
  subscription_id: string | null;
  at: Instant;
  replaced_events: number | null;
};
export type QuoteRow = {
  id: string;
  at: Instant;
  subscription_id: string;
  offer_version_id: string;
  added_tax: number;
  events: number;
  direction: 'up' | 'down';
  at_once: boolean;
  unused: unknown;
};
