import type {
  Attempt,
  Charge,
  Checkout,
  Credit,
  Holding,
  LadderRules,
  Payment,
  Quote,
  Refund,
  Stretch,
  Subscription,
} from '@/core/billing/book';
import type { Offer } from '@/core/offers/offer';
import { withTaxAdded } from '@/core/tax';
import { discountSchema, unusedSchema } from '@/core/billing/book';
import type { OfferVersionId } from '@/core/ids';
import type {
  Account,
  AttemptRow,
  ChargeRow,
  CheckoutRow,
  CreditRow,
  HoldingRow,
  QuoteRow,
  RefundRow,
  SubscriptionRow,
  UseRow,
} from './book-rows';

export function offersOf(keys: string[], definitions: Record<string, Offer>): Record<string, Offer> {
  const all: Record<string, Offer> = {};
  for (const key of keys) {
    const { versionId, addedTax } = versionOf(key);
    const definition = definitions[versionId];
    if (definition) all[key] ??= withTaxAdded(definition, addedTax);
  }
  return all;
}

/** Of a tier, with the rules of its ladder. */
export type TierRow = { track: string; tier: string } & Omit<LadderRules, 'rungs'>;

export function laddersOf(tiers: TierRow[]): Record<string, LadderRules> {
  const all: Record<string, LadderRules> = {};
  for (const { track, tier, ...context } of tiers)
    (all[track] ??= { ...context, rungs: [] }).rungs.push(tier);
  return all;
}

const pair = (step: number | null, n: number | null) => (step === null || n === null ? null : { step, n });

/** What offers are called in a book: a version, with the tax that was added when it was bought. */
export const offerKey = (versionId: OfferVersionId, addedTax: number): string => `${versionId}+${addedTax}`;
export const versionOf = (key: string): { versionId: OfferVersionId; addedTax: number } => {
  const [versionId = '', tax = '0'] = key.split('+');
  return { versionId, addedTax: Number(tax) };
};

export function subscriptionOf(row: SubscriptionRow): Subscription {
  const key = (id: string | null) => id && offerKey(id, row.added_tax);
  const last = pair(row.period_step, row.period_n);
  return {
    id: row.id,
    track: row.track,
    slot: row.slot,
    offer: offerKey(row.offer_version_id, row.added_tax),
    state: row.state,
    begunBy: row.begun_by,
    replaces: row.replaces_id,
    method: row.method,
    place: {
      anchor: row.anchor_at,
      from: { step: row.takes_up_step, n: row.takes_up_n },
      last: last && { ...last, ...(row.period_to !== null && { to: row.period_to }) },
      skipTrial: row.skip_trial,
      skipFee: row.skip_fee,
    },
    beganAt: row.began_at,
    endedAt: row.ended_at,
    paidThrough: row.paid_through,
    unpaid: row.unpaid_charge_id,
    firstFailedAt: row.first_failed_at,
    dueAt: row.due_at,
    changedAt: row.changed_at,
    pauses: row.pauses,
    switchesTo: key(row.switches_to),
    movesTo: key(row.moves_to),
    discount: row.discount === null ? null : discountSchema.parse(row.discount),
    disputes: row.disputes,
    endedUnpaid: row.ended_unpaid,
    charges: row.charges_issued,
    events: row.events,
  };
}

/** The columns of an account, in the row of a subscription or of a purchase. */
export type AccountRow = Pick<
  SubscriptionRow,
  | 'gateway_account_id'
  | 'customer_ref'
  | 'method_ref'
  | 'method_label'
  | 'method_expires'
  | 'tax_country'
  | 'added_tax'
  | 'remind_at'
>;

export const accountOf = (row: AccountRow): Account => ({
  gatewayAccountId: row.gateway_account_id,
  customerRef: row.customer_ref,
  methodRef: row.method_ref,
  methodLabel: row.method_label,
  methodExpires: row.method_expires,
  taxCountry: row.tax_country,
  addedTax: row.added_tax,
  remindAt: row.remind_at,
});

const periodOf = (row: ChargeRow, item = ''): Charge['period'] => ({
  step: row.step,
  n: row.n,
  kind: row.period_kind,
  tier: row.tier_id ?? item,
  from: row.due_at,
  to: row.period_to,
  amount: row.price,
  joiningFee: row.joining_fee,
});

/** `item`: what was bought, of the charge of a purchase. */
export function chargeOf(row: ChargeRow, attempts: AttemptRow[], uses: UseRow[], item?: string): Charge {
  return {
    id: row.id,
    subscription: row.subscription_id,
    purchase: row.purchase_id,
    number: row.number,
    kind: row.kind,
    period: periodOf(row, item),
    currency: row.currency,
    amount: row.amount,
    joiningFee: row.joining_fee,
    credit: uses
      .filter((use) => use.charge_id === row.id && !use.is_spent)
      .map((use) => ({ credit: use.credit_id, amount: use.amount })),
    unused: unusedSchema.parse(row.unused),
    due: row.due,
    state: row.state,
    attempts: attempts
      .filter((one) => one.charge_id === row.id)
      .map(attemptOf)
      .sort((a, b) => a.n - b.n),
    usesDiscount: row.uses_discount,
    isMove: row.is_move,
  };
}

const ATTEMPT_STATES: Record<AttemptRow['state'], Attempt['state']> = {
  intent: 'asked',
  succeeded: 'succeeded',
  declined: 'declined',
  withdrawn: 'withdrawn',
};
const attemptOf = (row: AttemptRow): Attempt => ({
  id: row.id,
  n: row.attempt,
  at: row.at,
  state: ATTEMPT_STATES[row.state],
  until: row.until_at,
  byMember: row.by_member,
  ref: row.gateway_ref,
  code: row.decline_code,
});

export const paymentOf = (row: AttemptRow): Payment => ({
  id: row.id,
  charge: row.charge_id,
  amount: row.amount,
  at: row.settled_at,
  refunded: row.refunded,
  lost: row.lost,
  dispute: row.dispute,
  isReturned: row.is_returned,
});

export const refundOf = (row: RefundRow): Refund => ({
  id: row.id,
  payment: row.payment_id,
  amount: row.amount,
  at: row.at,
  access: row.ends_access ? 'take' : 'keep',
  reason: row.reason,
  key: row.idempotency_key,
  ref: row.gateway_ref,
  state: row.state === 'intent' ? 'asked' : row.state,
});

export const creditOf = (row: CreditRow): Credit => ({
  id: row.id,
  payment: row.payment_id,
  charge: row.charge_id,
  currency: row.currency,
  given: row.amount,
  spent: row.spent,
  reserved: row.reserved,
  void: row.voided,
});

export const stretchOf = (row: ChargeRow): Stretch[] =>
  row.lived_from === null || row.subscription_id === null
    ? []
    : [
        {
          subscription: row.subscription_id,
          charge: row.id,
          period: { ...periodOf(row), from: row.lived_from, to: row.lived_to },
          from: row.lived_from,
          to: row.lived_to,
          isTakenBack: row.is_taken_back,
        },
      ];

export const holdingOf = (row: HoldingRow): Holding => ({
  id: row.id,
  kind: 'tier',
  why: row.why,
  subscription: row.subscription_id,
  purchase: null,
  tier: row.tier_id,
  isPaid: row.is_paid,
  from: row.from_at,
  to: row.until_at,
  since: row.since_at,
});

export const checkoutOf = (row: CheckoutRow): Checkout => ({
  id: row.id,
  track: row.track,
  slot: row.slot,
  state: row.state,
  subscription: row.subscription_id,
  at: row.at,
  replacedEvents: row.replaced_events,
});

export const quoteOf = (row: QuoteRow): Quote => ({
  id: row.id,
  at: row.at,
  subscription: row.subscription_id,
  to: offerKey(row.offer_version_id, row.added_tax),
  events: row.events,
  plan: { direction: row.direction, atOnce: row.at_once, unused: unusedSchema.parse(row.unused) },
});
