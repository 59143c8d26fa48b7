import type {
  Attempt,
  Book,
  Charge,
  Checkout,
  Credit,
  CreditUse,
  Holding,
  LadderTerms,
  Method,
  Payment,
  Quote,
  Refund,
  Stretch,
  Subscription,
  Summary,
} from '@/core/billing/book';
import { DAY_MS, fromMs, toMs, type Instant } from '@/core/calendar';
import type { Offer } from '@/core/offers/offer';
import { withTaxAdded } from '@/core/tax';
import { maybeOne, one, prepared, run, type Db, type Transaction } from '@/platform/store/db';
import type { Mode } from '@/platform/store/site';

/** A member's book in one mode: its row is the lock of all that happens in it. */
export type BookOf = { memberId: string; mode: Mode };

/** What of a subscription is no matter of its life: who is asked for its money, and how it is taxed. */
export type Account = {
  gatewayAccountId: string | null;
  customerRef: string | null;
  methodRef: string | null;
  methodLabel: string | null;
  methodExpires: string | null;
  taxCountry: string;
  addedTax: number;
  remindAt: Instant | null;
};

/** A book as it lies in its tables, with what it is worked out from, and the version at which it was read. */
export type StoredBook = BookOf & {
  version: number;
  book: Book;
  accounts: Map<string, Account>;
  /** With the tax on top that was added when it was bought. */
  offers: Record<string, Offer>;
  ladders: Record<string, LadderTerms>;
};

/** What of the past is wanted, by id: everything else is loaded only as far as it is open, or not over. */
export type Wanted = {
  subscriptions?: string[];
  charges?: string[];
  payments?: string[];
  refunds?: string[];
  checkouts?: string[];
  quote?: string | null;
  /** Offers that are not those of its subscriptions, by the key that they have in a book. */
  offers?: string[];
  tracks?: string[];
};

const LOCK = prepared('lock-book', 'SELECT version FROM books WHERE member_id = $1 AND mode = $2 FOR UPDATE');

/** Locks a member's book until the transaction ends, and makes one where there is none: that was not locked before. */
export async function lockBook(
  db: Transaction,
  { memberId, mode }: BookOf,
): Promise<{ version: number; isNew: boolean }> {
  const found = await maybeOne<{ version: bigint }>(db, LOCK, [memberId, mode]);
  if (found) return { version: Number(found.version), isNew: false };
  await run(db, 'INSERT INTO books (member_id, mode) VALUES ($1, $2) ON CONFLICT DO NOTHING', [
    memberId,
    mode,
  ]);
  const made = await one<{ version: bigint }>(db, LOCK, [memberId, mode]);
  return { version: Number(made.version), isNew: true };
}

/** The method by the nature of the gateway behind an account; a transfer is awaited for the days that its owner gives. */
export const METHOD = `CASE a.gateway WHEN 'curlew-cards' THEN jsonb_build_object('nature', 'card') WHEN 'dunlin-wallet' THEN jsonb_build_object('nature', 'wallet')
  WHEN 'bank-transfer' THEN jsonb_build_object('nature', 'transfer', 'waitDays', coalesce((a.settings ->> 'daysToPay')::integer, 0)) END`;

/**
 * One statement, so that a book costs one look: subscriptions that have not ended or are wanted; charges that are open, or
 * paid and not over, or the last of a subscription, or wanted; their attempts; credit that is left, or came from those
 * payments, or paid those charges; what is held, or was within the grace.
 */
const LOAD = prepared(
  'load-book',
  `WITH wanted AS (
     SELECT c.id AS charge_id, c.subscription_id FROM charges c WHERE c.id IN (
       SELECT unnest($4::uuid[])
       UNION SELECT charge_id FROM payments WHERE id = ANY ($5::uuid[])
       UNION SELECT p.charge_id FROM refunds r JOIN payments p ON p.id = r.payment_id WHERE r.id = ANY ($6::uuid[])
       UNION SELECT u.charge_id FROM credits k JOIN credit_uses u ON u.credit_id = k.id WHERE k.payment_id = ANY ($5::uuid[]) AND u.is_spent)
   ), subs AS (
     SELECT s.* FROM subscriptions s WHERE s.member_id = $1 AND s.mode = $2
       AND (s.state <> 'ended' OR s.id = ANY ($3::uuid[]) OR s.id IN (SELECT subscription_id FROM wanted))
   ), chosen AS (
     SELECT c.* FROM charges c WHERE c.id IN (
       SELECT charge_id FROM wanted
       UNION SELECT o.id FROM subs s JOIN charges o ON o.subscription_id = s.id AND o.state = 'open'
       UNION SELECT unpaid_charge_id FROM subs WHERE unpaid_charge_id IS NOT NULL
       UNION SELECT l.id FROM subs s CROSS JOIN LATERAL (
         SELECT id, lived_to FROM charges WHERE subscription_id = s.id AND lived_from IS NOT NULL AND NOT is_taken_back ORDER BY number DESC LIMIT 12) l
         WHERE l.lived_to IS NULL OR l.lived_to > $7
       UNION SELECT l.id FROM subs s CROSS JOIN LATERAL (
         SELECT id FROM charges WHERE subscription_id = s.id AND lived_from IS NOT NULL AND NOT is_taken_back ORDER BY number DESC LIMIT 1) l)
   ), owed AS (
     SELECT k.* FROM credits k WHERE k.member_id = $1 AND k.mode = $2 AND (k.unspent > 0
       OR k.payment_id IN (SELECT p.id FROM payments p JOIN chosen c ON c.id = p.charge_id)
       OR k.id IN (SELECT u.credit_id FROM credit_uses u JOIN chosen c ON c.id = u.charge_id))
   ), tries AS (
     SELECT p.* FROM payments p JOIN chosen c ON c.id = p.charge_id WHERE c.state <> 'paid' OR p.state = 'succeeded' OR c.id IN (SELECT charge_id FROM wanted)
     UNION SELECT p.* FROM payments p WHERE p.id IN (SELECT payment_id FROM owed)
   ), kept AS (
     SELECT h.* FROM holdings h WHERE h.member_id = $1 AND h.mode = $2 AND (h.until_at IS NULL OR h.until_at >= $8
       OR h.id IN (SELECT l.id FROM subs s CROSS JOIN LATERAL (SELECT id FROM holdings WHERE subscription_id = s.id ORDER BY from_at DESC LIMIT 1) l))
   )
   SELECT
     (SELECT jsonb_agg(to_jsonb(s) || jsonb_build_object('method', ${METHOD}) ORDER BY s.created_at, s.id)
       FROM subs s LEFT JOIN gateway_accounts a ON a.id = s.gateway_account_id) AS subscriptions,
     (SELECT jsonb_agg(c ORDER BY c.created_at, c.number) FROM chosen c) AS charges,
     (SELECT jsonb_agg(to_jsonb(p) || jsonb_build_object('dispute', coalesce(d.state, 'none'), 'lost', coalesce(d.lost, 0),
         'refunded', coalesce((SELECT sum(amount) FROM refunds r WHERE r.payment_id = p.id AND r.state = 'succeeded'), 0)) ORDER BY p.settled_at, p.attempt)
       FROM tries p LEFT JOIN disputes d ON d.payment_id = p.id) AS attempts,
     (SELECT jsonb_agg(r ORDER BY r.created_at) FROM refunds r WHERE r.payment_id IN (SELECT id FROM tries) AND (r.state = 'intent' OR r.id = ANY ($6::uuid[]))) AS refunds,
     (SELECT jsonb_agg(k ORDER BY k.at, k.created_at, k.id) FROM owed k) AS credits,
     (SELECT jsonb_agg(u ORDER BY u.place) FROM credit_uses u WHERE u.charge_id IN (SELECT id FROM chosen)) AS uses,
     (SELECT jsonb_agg(h ORDER BY h.from_at, h.created_at) FROM kept h) AS holdings,
     (SELECT jsonb_agg(m) FROM book_summaries m WHERE m.member_id = $1 AND m.mode = $2) AS summaries,
     (SELECT jsonb_agg(k ORDER BY k.at) FROM checkouts k WHERE k.member_id = $1 AND k.mode = $2
       AND (k.state NOT IN ('done', 'expired', 'confirming') OR k.id = ANY ($9::uuid[]))) AS checkouts,
     (SELECT to_jsonb(q) FROM switch_quotes q WHERE q.id = $10 AND q.member_id = $1) AS quote,
     (SELECT jsonb_object_agg(v.id, v.definition) FROM offer_versions v WHERE v.id = ANY ($11::uuid[])
       OR v.id IN (SELECT offer_version_id FROM subs UNION SELECT switches_to FROM subs UNION SELECT moves_to FROM subs)) AS definitions,
     (SELECT jsonb_agg(jsonb_build_object('track', coalesce(t.ladder_id, t.id), 'tier', t.id, 'creditUnused', coalesce(l.credit_unused, true),
         'waitDays', coalesce(l.wait_days, 0), 'downAtOnce', coalesce(l.down_at_once, false)) ORDER BY t.rung)
       FROM tiers t LEFT JOIN ladders l ON l.id = t.ladder_id
       WHERE coalesce(t.ladder_id, t.id) IN (SELECT track FROM subs UNION SELECT unnest($12::text[]))) AS tiers`,
);

/** A row as JSON: numbers, text and instants as PostgreSQL writes them there. */
export type Json = Record<string, unknown>;
type Loaded = Record<
  | 'subscriptions'
  | 'charges'
  | 'attempts'
  | 'refunds'
  | 'credits'
  | 'uses'
  | 'holdings'
  | 'summaries'
  | 'checkouts',
  Json[] | null
> & {
  quote: Json | null;
  definitions: Record<string, Offer> | null;
  tiers: ({ track: string; tier: string } & Omit<LadderTerms, 'rungs'>)[] | null;
};

/** Days by which a holding that has ended is still looked at, beyond the grace: local days are not all as long. */
const SPARE_DAYS = 2;

/**
 * A member's book at an instant, as far as it can matter then. The caller holds its lock, unless it only looks.
 * @param graceDays days for which a gap does not break a holding
 */
export async function loadBook(
  db: Db,
  { memberId, mode }: BookOf,
  at: Instant,
  graceDays: number,
  wanted: Wanted = {},
): Promise<Omit<StoredBook, 'version'>> {
  const held = fromMs(toMs(at) - (graceDays + SPARE_DAYS) * DAY_MS);
  const found = await one<Loaded>(db, LOAD, [
    memberId,
    mode,
    wanted.subscriptions ?? [],
    wanted.charges ?? [],
    wanted.payments ?? [],
    wanted.refunds ?? [],
    at,
    held,
    wanted.checkouts ?? [],
    wanted.quote ?? null,
    (wanted.offers ?? []).map((key) => versionOf(key).versionId),
    wanted.tracks ?? [],
  ]);
  const rows = <Row>(list: Json[] | null): Row[] => (list ?? []).map((json) => rowOf<Row>(json));
  const subs = rows<SubscriptionRow>(found.subscriptions);
  const attempts = rows<AttemptRow>(found.attempts);
  const uses = rows<UseRow>(found.uses);
  const stored = rows<ChargeRow>(found.charges);
  const keys = subs.flatMap((row) => {
    const { offer, switchesTo, movesTo } = subscriptionOf(row);
    return [offer, ...(switchesTo ? [switchesTo] : []), ...(movesTo ? [movesTo] : [])];
  });
  return {
    memberId,
    mode,
    offers: offersOf([...keys, ...(wanted.offers ?? [])], found.definitions ?? {}),
    ladders: laddersOf(found.tiers ?? []),
    accounts: new Map(subs.map((row) => [row.id, accountOf(row)])),
    book: {
      subscriptions: subs.map(subscriptionOf),
      purchases: [],
      checkouts: rows<CheckoutRow>(found.checkouts).map(checkoutOf),
      charges: stored.map((row) => chargeOf(row, attempts, uses)),
      payments: attempts.filter((row) => row.state === 'succeeded').map(paymentOf),
      refunds: rows<RefundRow>(found.refunds).map(refundOf),
      credits: rows<CreditRow>(found.credits).map(creditOf),
      uses: uses
        .filter((row) => row.is_spent)
        .map((row): CreditUse => ({ credit: row.credit_id, charge: row.charge_id, amount: row.amount })),
      stretches: stored.flatMap(stretchOf),
      holdings: rows<HoldingRow>(found.holdings).map(holdingOf),
      summaries: rows<SummaryRow>(found.summaries).map((row): Summary => ({
        track: row.track,
        hadTrial: row.had_trial,
        joinedAt: row.joined_at,
        hasSwitchedUp: row.has_switched_up,
      })),
      quote: found.quote && quoteOf(rowOf<QuoteRow>(found.quote)),
    },
  };
}

const IS_INSTANT = /^\d{4}-\d\d-\d\dT.*\+00:00$/;
/** Instants as everywhere here: PostgreSQL writes "+00:00" in JSON. */
// eslint-disable-next-line @typescript-eslint/no-unnecessary-type-parameters -- what a row holds is said by who asks for it.
export function rowOf<Row>(json: Json): Row {
  const row: Json = {};
  for (const [name, value] of Object.entries(json))
    row[name] =
      typeof value === 'string' && IS_INSTANT.test(value) ? `${value.slice(0, -'+00:00'.length)}Z` : value;
  return row as Row;
}

export type SubscriptionRow = {
  id: string;
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
  discount: Subscription['discount'];
  disputes: string[];
  ended_unpaid: boolean;
  charges_issued: number;
  events: number;
  gateway_account_id: string | null;
  customer_ref: string | null;
  method_ref: string | null;
  method_label: string | null;
  method_expires: string | null;
  tax_country: string;
  added_tax: number;
  remind_at: Instant | null;
};
type ChargeRow = {
  id: string;
  subscription_id: string;
  number: number;
  kind: Charge['kind'];
  step: number;
  n: number;
  period_kind: Charge['period']['kind'];
  tier_id: string;
  due_at: Instant;
  period_to: Instant | null;
  price: number;
  joining_fee: number;
  currency: string;
  amount: number;
  unused: Charge['unused'];
  due: number;
  state: Charge['state'];
  uses_discount: boolean;
  is_move: boolean;
  lived_from: Instant | null;
  lived_to: Instant | null;
  is_taken_back: boolean;
};
type AttemptRow = {
  id: string;
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
type RefundRow = {
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
type CreditRow = {
  id: string;
  payment_id: string | null;
  charge_id: string | null;
  currency: string;
  amount: number;
  spent: number;
  reserved: number;
  voided: number;
};
type UseRow = { credit_id: string; charge_id: string; amount: number; is_spent: boolean };
type HoldingRow = {
  id: string;
  why: Holding['why'];
  subscription_id: string | null;
  tier_id: string;
  is_paid: boolean;
  from_at: Instant;
  until_at: Instant | null;
  since_at: Instant;
};
type SummaryRow = {
  track: string;
  had_trial: boolean;
  joined_at: Instant | null;
  has_switched_up: boolean;
};
type CheckoutRow = {
  id: string;
  track: string;
  slot: string;
  state: Checkout['state'];
  subscription_id: string | null;
  at: Instant;
  replaced_events: number | null;
};
type QuoteRow = {
  id: string;
  at: Instant;
  subscription_id: string;
  offer_version_id: string;
  added_tax: number;
  events: number;
  direction: 'up' | 'down';
  at_once: boolean;
  unused: Quote['plan']['unused'];
};

function offersOf(keys: string[], definitions: Record<string, Offer>): Record<string, Offer> {
  const all: Record<string, Offer> = {};
  for (const key of keys) {
    const { versionId, addedTax } = versionOf(key);
    const definition = definitions[versionId];
    if (definition) all[key] ??= withTaxAdded(definition, addedTax);
  }
  return all;
}

function laddersOf(tiers: NonNullable<Loaded['tiers']>): Record<string, LadderTerms> {
  const all: Record<string, LadderTerms> = {};
  for (const { track, tier, ...terms } of tiers) (all[track] ??= { ...terms, rungs: [] }).rungs.push(tier);
  return all;
}

const pair = (step: number | null, n: number | null) => (step === null || n === null ? null : { step, n });

/** What offers are called in a book: a version, with the tax that was added when it was bought. */
export const offerKey = (versionId: string, addedTax: number): string => `${versionId}+${addedTax}`;
export const versionOf = (key: string): { versionId: string; addedTax: number } => {
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
    discount: row.discount,
    disputes: row.disputes,
    endedUnpaid: row.ended_unpaid,
    charges: row.charges_issued,
    events: row.events,
  };
}

export const accountOf = (row: SubscriptionRow): Account => ({
  gatewayAccountId: row.gateway_account_id,
  customerRef: row.customer_ref,
  methodRef: row.method_ref,
  methodLabel: row.method_label,
  methodExpires: row.method_expires,
  taxCountry: row.tax_country,
  addedTax: row.added_tax,
  remindAt: row.remind_at,
});

const periodOf = (row: ChargeRow): Charge['period'] => ({
  step: row.step,
  n: row.n,
  kind: row.period_kind,
  tier: row.tier_id,
  from: row.due_at,
  to: row.period_to,
  amount: row.price,
  joiningFee: row.joining_fee,
});

function chargeOf(row: ChargeRow, attempts: AttemptRow[], uses: UseRow[]): Charge {
  return {
    id: row.id,
    subscription: row.subscription_id,
    purchase: null,
    number: row.number,
    kind: row.kind,
    period: periodOf(row),
    currency: row.currency,
    amount: row.amount,
    joiningFee: row.joining_fee,
    credit: uses
      .filter((use) => use.charge_id === row.id && !use.is_spent)
      .map((use) => ({ credit: use.credit_id, amount: use.amount })),
    unused: row.unused,
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

const paymentOf = (row: AttemptRow): Payment => ({
  id: row.id,
  charge: row.charge_id,
  amount: row.amount,
  at: row.settled_at,
  refunded: row.refunded,
  lost: row.lost,
  dispute: row.dispute,
  isReturned: row.is_returned,
});

const refundOf = (row: RefundRow): Refund => ({
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

const creditOf = (row: CreditRow): Credit => ({
  id: row.id,
  payment: row.payment_id,
  charge: row.charge_id,
  currency: row.currency,
  given: row.amount,
  spent: row.spent,
  reserved: row.reserved,
  void: row.voided,
});

const stretchOf = (row: ChargeRow): Stretch[] =>
  row.lived_from === null
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

const holdingOf = (row: HoldingRow): Holding => ({
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

const checkoutOf = (row: CheckoutRow): Checkout => ({
  id: row.id,
  track: row.track,
  slot: row.slot,
  state: row.state,
  subscription: row.subscription_id,
  at: row.at,
  replacedEvents: row.replaced_events,
});

const quoteOf = (row: QuoteRow): Quote => ({
  id: row.id,
  at: row.at,
  subscription: row.subscription_id,
  to: offerKey(row.offer_version_id, row.added_tax),
  events: row.events,
  plan: { direction: row.direction, atOnce: row.at_once, unused: row.unused },
});
