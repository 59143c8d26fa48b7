import { z } from 'zod';
import type { Book, CreditUse, LadderRules, Summary } from '@/core/billing/book';
import { DAY_MS, fromMs, toMs, type Instant } from '@/core/instants';
import type { Offer } from '@/core/offers/offer';
import { offerSchema } from '@/core/offers/offer-schema';
import { built, maybeOne, one, prepared, run, type Db, type Transaction } from '@/platform/store/db';
import type { Mode } from '@/platform/store/site';
import {
  rowOf,
  type Account,
  type AttemptRow,
  type ChargeRow,
  type CheckoutRow,
  type CreditRow,
  type HoldingRow,
  type Json,
  type QuoteRow,
  type RefundRow,
  type SubscriptionRow,
  type SummaryRow,
  type UseRow,
} from './book-rows';
import {
  accountOf,
  chargeOf,
  checkoutOf,
  creditOf,
  holdingOf,
  laddersOf,
  offersOf,
  paymentOf,
  quoteOf,
  refundOf,
  stretchOf,
  subscriptionOf,
  versionOf,
  type TierRow,
} from './book-from-rows';
import type { MemberId } from '@/core/ids';
import {
  boughtPassOf,
  purchaseAccountOf,
  purchaseOf,
  type BoughtPassRow,
  type PurchaseRow,
} from './purchase-rows';

/** A member's book in one mode: its row is the lock of all that happens in it. */
export type BookOf = { memberId: MemberId; mode: Mode };

/** A book as it lies in its tables, with what it is worked out from, and the version at which it was read. */
export type StoredBook = BookOf & {
  version: number;
  book: Book;
  /** By subscription, or by purchase. */
  accounts: Map<string, Account>;
  /** With the tax on top that was added when it was bought. */
  offers: Record<string, Offer>;
  ladders: Record<string, LadderRules>;
};

/** What of the past is wanted, by id: everything else is loaded only as far as it is open, or not over. */
export type Wanted = {
  subscriptions?: string[];
  charges?: string[];
  payments?: string[];
  refunds?: string[];
  checkouts?: string[];
  purchases?: string[];
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
export const METHOD = `CASE a.nature WHEN 'transfer' THEN jsonb_build_object('nature', a.nature, 'waitDays', coalesce((a.settings ->> 'daysToPay')::integer, 0))
  WHEN 'card' THEN jsonb_build_object('nature', a.nature) WHEN 'wallet' THEN jsonb_build_object('nature', a.nature) END`;

/**
 * A parameter that is a list, out of sight of the planner: lists that it sees are empty make it plan the statement anew for
 * each book, which takes three times as long as the answer.
 */
const list = (place: number, type: 'uuid' | 'text'): string => `(SELECT $${place}::${type}[])::${type}[]`;

/**
 * One statement, so that a book costs one look: subscriptions that have not ended or are wanted; charges that are open, or
 * paid and not over, or the last of a subscription, or wanted; their attempts; credit that is left, or came from those
 * payments, or paid those charges; what is held, or was within the grace.
 */
const LOAD = prepared(
  'load-book',
  `WITH wanted AS (
     SELECT c.id AS charge_id, c.subscription_id, c.purchase_id FROM charges c WHERE c.id IN (
       SELECT unnest(${list(4, 'uuid')})
       UNION SELECT charge_id FROM payments WHERE id = ANY (${list(5, 'uuid')})
       UNION SELECT p.charge_id FROM refunds r JOIN payments p ON p.id = r.payment_id WHERE r.id = ANY (${list(6, 'uuid')})
       UNION SELECT u.charge_id FROM credits k JOIN credit_uses u ON u.credit_id = k.id WHERE k.payment_id = ANY (${list(5, 'uuid')}) AND u.is_spent)
   ), subs AS (
     SELECT s.* FROM subscriptions s WHERE s.member_id = $1 AND s.mode = $2
       AND (s.state <> 'ended' OR s.id = ANY (${list(3, 'uuid')}) OR s.id IN (SELECT subscription_id FROM wanted))
   ), bought AS (
     SELECT b.* FROM purchases b WHERE b.member_id = $1 AND b.mode = $2
       AND (b.state = 'pending' OR b.id = ANY (${list(13, 'uuid')}) OR b.id IN (SELECT purchase_id FROM wanted))
   ), chosen AS (
     SELECT c.* FROM charges c WHERE c.id IN (
       SELECT charge_id FROM wanted
       UNION SELECT o.id FROM subs s JOIN charges o ON o.subscription_id = s.id AND o.state = 'open'
       UNION SELECT o.id FROM bought b JOIN charges o ON o.purchase_id = b.id
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
     (SELECT jsonb_agg(r ORDER BY r.created_at) FROM refunds r WHERE r.payment_id IN (SELECT id FROM tries) AND (r.state = 'intent' OR r.id = ANY (${list(6, 'uuid')}))) AS refunds,
     (SELECT jsonb_agg(k ORDER BY k.at, k.created_at, k.id) FROM owed k) AS credits,
     (SELECT jsonb_agg(u ORDER BY u.place) FROM credit_uses u WHERE u.charge_id IN (SELECT id FROM chosen)) AS uses,
     (SELECT jsonb_agg(h ORDER BY h.from_at, h.created_at) FROM kept h) AS holdings,
     (SELECT jsonb_agg(to_jsonb(b) || jsonb_build_object('method', ${METHOD}) ORDER BY b.created_at, b.id)
       FROM bought b LEFT JOIN gateway_accounts a ON a.id = b.gateway_account_id) AS purchases,
     (SELECT jsonb_agg(h ORDER BY h.since_at) FROM held_passes h WHERE h.member_id = $1 AND h.purchase_id IN (SELECT id FROM bought)) AS passes,
     (SELECT jsonb_agg(m) FROM book_summaries m WHERE m.member_id = $1 AND m.mode = $2) AS summaries,
     (SELECT jsonb_agg(k ORDER BY k.at) FROM checkouts k WHERE k.member_id = $1 AND k.mode = $2
       AND (k.state NOT IN ('done', 'expired', 'confirming') OR k.id = ANY (${list(9, 'uuid')}))) AS checkouts,
     (SELECT to_jsonb(q) FROM switch_quotes q WHERE q.id = $10 AND q.member_id = $1) AS quote,
     (SELECT jsonb_object_agg(v.id, v.definition) FROM offer_versions v WHERE v.id = ANY (${list(11, 'uuid')})
       OR v.id IN (SELECT offer_version_id FROM subs UNION SELECT switches_to FROM subs UNION SELECT moves_to FROM subs)) AS definitions,
     (SELECT jsonb_agg(jsonb_build_object('track', coalesce(t.ladder_id, t.id), 'tier', t.id, 'creditUnused', coalesce(l.credit_unused, true),
         'waitDays', coalesce(l.wait_days, 0), 'downAtOnce', coalesce(l.down_at_once, false)) ORDER BY t.rung)
       FROM tiers t LEFT JOIN ladders l ON l.id = t.ladder_id
       WHERE coalesce(t.ladder_id, t.id) IN (SELECT track FROM subs UNION SELECT unnest(${list(12, 'text')}))) AS tiers`,
);

const definitionsSchema = z.record(z.string(), offerSchema);

type Loaded = Record<
  | 'subscriptions'
  | 'charges'
  | 'attempts'
  | 'refunds'
  | 'credits'
  | 'uses'
  | 'holdings'
  | 'summaries'
  | 'purchases'
  | 'passes'
  | 'checkouts',
  Json[] | null
> & {
  quote: Json | null;
  definitions: Record<string, Offer> | null;
  tiers: TierRow[] | null;
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
  const found = await one<Loaded>(
    db,
    LOAD,
    [
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
      wanted.purchases ?? [],
    ],
    {
      subscriptions: built,
      charges: built,
      attempts: built,
      refunds: built,
      credits: built,
      uses: built,
      holdings: built,
      summaries: built,
      checkouts: built,
      purchases: built,
      passes: built,
      quote: built,
      tiers: built,
      definitions: definitionsSchema,
    },
  );
  const rows = <Row>(list: Json[] | null): Row[] => (list ?? []).map((json) => rowOf<Row>(json));
  const subs = rows<SubscriptionRow>(found.subscriptions);
  const attempts = rows<AttemptRow>(found.attempts);
  const uses = rows<UseRow>(found.uses);
  const stored = rows<ChargeRow>(found.charges);
  const bought = rows<PurchaseRow>(found.purchases);
  const itemOf = ({ purchase_id: id }: ChargeRow): string | undefined =>
    bought.find((row) => row.id === id)?.item;
  const keys = subs.flatMap((row) => {
    const { offer, switchesTo, movesTo } = subscriptionOf(row);
    return [offer, ...(switchesTo ? [switchesTo] : []), ...(movesTo ? [movesTo] : [])];
  });
  return {
    memberId,
    mode,
    offers: offersOf([...keys, ...(wanted.offers ?? [])], found.definitions ?? {}),
    ladders: laddersOf(found.tiers ?? []),
    accounts: new Map<string, Account>([
      ...subs.map((row): [string, Account] => [row.id, accountOf(row)]),
      ...bought.map((row): [string, Account] => [row.id, purchaseAccountOf(row)]),
    ]),
    book: {
      subscriptions: subs.map(subscriptionOf),
      purchases: bought.map(purchaseOf),
      checkouts: rows<CheckoutRow>(found.checkouts).map(checkoutOf),
      charges: stored.map((row) => chargeOf(row, attempts, uses, itemOf(row))),
      payments: attempts.filter((row) => row.state === 'succeeded').map(paymentOf),
      refunds: rows<RefundRow>(found.refunds).map(refundOf),
      credits: rows<CreditRow>(found.credits).map(creditOf),
      uses: uses
        .filter((row) => row.is_spent)
        .map((row): CreditUse => ({ credit: row.credit_id, charge: row.charge_id, amount: row.amount })),
      stretches: stored.flatMap(stretchOf),
      holdings: [
        ...rows<HoldingRow>(found.holdings).map(holdingOf),
        ...rows<BoughtPassRow>(found.passes).map(boughtPassOf),
      ],
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
