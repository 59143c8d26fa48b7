import type { Instant } from '@/core/calendar';
import { many, maybeOne, one, run, toMinor, type Db, prepared } from '@/platform/store/db';
import type { Mode } from '@/platform/store/site';

/** Money owed to a member, in minor units. */
export type Credit = {
  id: string;
  currency: string;
  amount: number;
  unspent: number;
  reason: string;
  at: Instant;
};

export async function insertCredit(
  db: Db,
  c: {
    memberId: string;
    mode: Mode;
    currency: string;
    amount: number;
    paymentId: string | null;
    chargeId: string | null;
    reason: string;
    at: Instant;
  },
): Promise<void> {
  await run(
    db,
    `INSERT INTO credits (member_id, mode, currency, amount, unspent, payment_id, charge_id, reason, at) VALUES ($1, $2, $3, $4, $4, $5, $6, $7, $8)`,
    [c.memberId, c.mode, c.currency, c.amount, c.paymentId, c.chargeId, c.reason, c.at],
  );
}

/** What a member has left, by currency; minor units. */
export async function unspentCredit(
  db: Db,
  memberId: string,
  mode: Mode,
): Promise<{ currency: string; amount: number }[]> {
  const rows = await many<{ currency: string; amount: bigint }>(
    db,
    `SELECT currency, sum(unspent)::bigint AS amount FROM credits WHERE member_id = $1 AND mode = $2 AND unspent > 0 GROUP BY currency ORDER BY currency`,
    [memberId, mode],
  );
  return rows.map((row) => ({ ...row, amount: toMinor(row.amount) }));
}

const CREDIT_TO_SPEND = prepared(
  'credit-to-spend',
  `SELECT coalesce((SELECT sum(amount) FROM credit_uses WHERE charge_id = $4), 0)::bigint AS known,
       EXISTS (SELECT 1 FROM credits WHERE member_id = $1 AND mode = $2 AND currency = $3 AND unspent > 0) AS has_more`,
);

/** Spends a member's credit on a charge, oldest first, at most `upTo`. The answer is how much; once spent on a charge, it stays so. */
export async function spendCredit(
  db: Db,
  memberId: string,
  mode: Mode,
  currency: string,
  chargeId: string,
  upTo: number,
): Promise<number> {
  const { known, hasMore } = await one<{ known: bigint; hasMore: boolean }>(db, CREDIT_TO_SPEND, [
    memberId,
    mode,
    currency,
    chargeId,
  ]);
  if (known > 0n || upTo <= 0 || !hasMore) return toMinor(known);
  const rows = await many<{ id: string; unspent: bigint }>(
    db,
    `SELECT id, unspent FROM credits WHERE member_id = $1 AND mode = $2 AND currency = $3 AND unspent > 0 ORDER BY at, id FOR UPDATE`,
    [memberId, mode, currency],
  );
  let left = upTo;
  for (const { id, unspent } of rows) {
    const part = Math.min(left, toMinor(unspent));
    if (part === 0) break;
    await run(db, 'UPDATE credits SET unspent = unspent - $2::bigint WHERE id = $1', [id, part]);
    await run(db, 'INSERT INTO credit_uses (credit_id, charge_id, amount) VALUES ($1, $2, $3)', [
      id,
      chargeId,
      part,
    ]);
    left -= part;
  }
  return upTo - left;
}

/** How much credit was spent on a charge. */
export async function creditSpentOn(db: Db, chargeId: string): Promise<number> {
  const { amount } = await one<{ amount: bigint }>(
    db,
    'SELECT coalesce(sum(amount), 0)::bigint AS amount FROM credit_uses WHERE charge_id = $1',
    [chargeId],
  );
  return toMinor(amount);
}

/** Gives back what was set against charges of a subscription that were never paid. */
export async function releaseCredit(db: Db, subscriptionId: string): Promise<void> {
  await run(
    db,
    `WITH back AS (
       DELETE FROM credit_uses u USING charges c
       WHERE c.id = u.charge_id AND c.subscription_id = $1 AND c.paid_at IS NULL RETURNING u.credit_id, u.amount
     ) UPDATE credits SET unspent = unspent + sums.amount
       FROM (SELECT credit_id, sum(amount) AS amount FROM back GROUP BY 1) sums WHERE credits.id = sums.credit_id`,
    [subscriptionId],
  );
}

export type StoredQuote = {
  id: string;
  memberId: string;
  subscriptionId: string;
  mode: Mode;
  offerVersionId: string;
  direction: 'up' | 'down';
  /** The site's clock, and the subscription's count of events then. */
  at: Instant;
  events: number;
  startsAt: Instant;
  credit: number;
};

export async function insertQuote(db: Db, q: Omit<StoredQuote, 'id'>): Promise<string> {
  const { id } = await one<{ id: string }>(
    db,
    `INSERT INTO switch_quotes (member_id, subscription_id, mode, offer_version_id, direction, at, events, starts_at, credit)
     VALUES ($1, $2, $3, $4, $5, $6, $7, $8, $9) RETURNING id`,
    [
      q.memberId,
      q.subscriptionId,
      q.mode,
      q.offerVersionId,
      q.direction,
      q.at,
      q.events,
      q.startsAt,
      q.credit,
    ],
  );
  return id;
}

export async function findQuote(db: Db, id: string): Promise<StoredQuote | undefined> {
  const row = await maybeOne<Omit<StoredQuote, 'credit'> & { credit: bigint }>(
    db,
    'SELECT * FROM switch_quotes WHERE id = $1',
    [id],
  );
  return row && { ...row, credit: toMinor(row.credit) };
}

/** Quotes that were shown long ago and never taken. */
export async function deleteOldQuotes(db: Db): Promise<number> {
  return run(
    db,
    `DELETE FROM switch_quotes q WHERE created_at < now() - interval '1 day' AND NOT EXISTS (SELECT 1 FROM joinings j WHERE j.quote_id = q.id)`,
  );
}
