import type { CheckoutState } from '@/core/billing/states';
import type { Instant } from '@/core/instants';
import { joinAnswersSchema, type JoinAnswer } from '@/core/tiers/join-fields';
import { many, maybeOne, one, run, type Db } from '@/platform/store/db';
import type { Mode } from '@/platform/store/site';
import type { Problem } from '@/core/problem';
import type { ProblemCode } from '@/words/problems';
import { problemSchema } from '@/platform/problem-schema';
import type { CheckoutId, MemberId, OfferId, SubscriptionId } from '@/core/ids';

/** One attempt of a person to join. How far it has come is written with the book; `at` is the site's clock. */
export type Checkout = {
  id: CheckoutId;
  /** What it begins, once the button was pressed. */
  subscriptionId: SubscriptionId | null;
  offerId: OfferId;
  track: string;
  slot: string;
  mode: Mode;
  /** Null while the address is not confirmed, and for checkouts of before that was asked. */
  memberId: MemberId | null;
  email: string;
  name: string;
  answers: JoinAnswer[];
  codeId: string | null;
  returnTo: string;
  state: CheckoutState;
  /** Why the last attempt failed. */
  lastProblem: Problem<ProblemCode> | null;
  at: Instant;
  remindedAt: Instant | null;
};

const JSON_COLUMNS = { answers: joinAnswersSchema, lastProblem: problemSchema };

export async function findCheckout(db: Db, id: string): Promise<Checkout | undefined> {
  return maybeOne(db, 'SELECT * FROM checkouts WHERE id = $1', [id], JSON_COLUMNS);
}

export async function findCheckoutOf(db: Db, subscriptionId: SubscriptionId): Promise<Checkout | undefined> {
  return maybeOne(db, 'SELECT * FROM checkouts WHERE subscription_id = $1', [subscriptionId], JSON_COLUMNS);
}

/** A member’s checkout for an offer that can be resumed. */
export async function findOpenCheckout(
  db: Db,
  memberId: MemberId,
  offerId: OfferId,
  mode: Mode,
): Promise<Checkout | undefined> {
  return maybeOne(
    db,
    `SELECT * FROM checkouts WHERE member_id = $1 AND offer_id = $2 AND mode = $3 AND state IN ('open', 'charging', 'approving', 'awaiting')
     ORDER BY (state <> 'open') DESC, at DESC LIMIT 1`,
    [memberId, offerId, mode],
    JSON_COLUMNS,
  );
}

export type NewCheckout = Pick<
  Checkout,
  | 'id'
  | 'offerId'
  | 'track'
  | 'slot'
  | 'mode'
  | 'memberId'
  | 'email'
  | 'name'
  | 'answers'
  | 'codeId'
  | 'returnTo'
  | 'at'
> & { state: 'confirming' | 'open' };

/** Adds a checkout, or takes what was typed this time where it is known: whose it is never changes. */
export async function saveCheckout(db: Db, c: NewCheckout): Promise<void> {
  await run(
    db,
    `INSERT INTO checkouts (id, offer_id, track, slot, mode, member_id, email, name, answers, code_id, return_to, state, at)
     VALUES ($1, $2, $3, $4, $5, $6, $7, $8, $9, $10, $11, $12, $13)
     ON CONFLICT (id) DO UPDATE SET answers = $9, code_id = $10, email = $7, name = $8, track = $3, slot = $4`,
    [
      c.id,
      c.offerId,
      c.track,
      c.slot,
      c.mode,
      c.memberId,
      c.email,
      c.name,
      JSON.stringify(c.answers),
      c.codeId,
      c.returnTo,
      c.state,
      c.at,
    ],
  );
}

/** Why a member's last attempt failed. */
export async function setLastProblem(
  db: Db,
  id: string,
  memberId: MemberId,
  problem: Problem<ProblemCode> | null,
): Promise<void> {
  await run(db, 'UPDATE checkouts SET last_problem = $3 WHERE id = $1 AND member_id = $2', [
    id,
    memberId,
    problem && JSON.stringify(problem),
  ]);
}

/** Unfinished checkouts that can be resumed: no gateway is being asked. */
const UNFINISHED = `state IN ('open', 'approving') AND member_id IS NOT NULL`;

/** Unfinished checkouts of a mode, newest first, and how many there are in all. */
export async function listUnfinished(
  db: Db,
  mode: Mode,
  limit: number,
): Promise<{ rows: Checkout[]; total: number }> {
  const { total } = await one<{ total: bigint }>(
    db,
    `SELECT count(*) AS total FROM checkouts WHERE mode = $1 AND ${UNFINISHED}`,
    [mode],
  );
  const rows = await many<Checkout>(
    db,
    `SELECT * FROM checkouts WHERE mode = $1 AND ${UNFINISHED} ORDER BY at DESC LIMIT $2`,
    [mode, limit],
    JSON_COLUMNS,
  );
  return { rows, total: Number(total) };
}

/** Takes one checkout left unfinished before an instant that nobody was reminded of. */
export async function claimReminder(
  db: Db,
  mode: Mode,
  before: Instant,
  now: Instant,
): Promise<Checkout | undefined> {
  return maybeOne(
    db,
    `UPDATE checkouts SET reminded_at = $3
     WHERE id = (SELECT id FROM checkouts WHERE mode = $1 AND at <= $2 AND reminded_at IS NULL AND ${UNFINISHED}
       ORDER BY at LIMIT 1 FOR UPDATE SKIP LOCKED) RETURNING *`,
    [mode, before, now],
    JSON_COLUMNS,
  );
}

/** Checkouts left unfinished before an instant, oldest first. */
export async function listToExpire(db: Db, mode: Mode, before: Instant, limit: number): Promise<Checkout[]> {
  return many(
    db,
    `SELECT * FROM checkouts WHERE mode = $1 AND at <= $2 AND state IN ('open', 'approving', 'confirming') ORDER BY at LIMIT $3`,
    [mode, before, limit],
    JSON_COLUMNS,
  );
}

/** Ends checkouts whose address was never confirmed: they are in nobody's book. */
export async function expireUnconfirmed(db: Db, mode: Mode, before: Instant): Promise<number> {
  return run(
    db,
    `UPDATE checkouts SET state = 'expired', answers = '[]' WHERE mode = $1 AND at <= $2 AND member_id IS NULL AND state IN ('open', 'confirming')`,
    [mode, before],
  );
}

/** What a member answered in what they joined by, newest first. */
export async function listAnswers(db: Db, memberId: MemberId): Promise<(JoinAnswer & { at: Instant })[]> {
  const rows = await many<{ answers: JoinAnswer[]; at: Instant }>(
    db,
    `SELECT answers, at FROM checkouts WHERE member_id = $1 AND state = 'done' AND answers <> '[]' ORDER BY at DESC`,
    [memberId],
    { answers: joinAnswersSchema },
  );
  return rows.flatMap(({ answers, at }) => answers.map((answer) => ({ ...answer, at })));
}

/** The address of a member is confirmed: what they began before that is theirs from now on. */
export async function confirmCheckouts(
  db: Db,
  { id, email, name }: { id: string; email: string; name: string },
  offerId: OfferId,
  mode: Mode,
): Promise<void> {
  await run(
    db,
    `UPDATE checkouts SET state = 'open', member_id = $1, name = $3 WHERE state = 'confirming' AND member_id IS NULL AND lower(email) = lower($2) AND offer_id = $4 AND mode = $5`,
    [id, email, name, offerId, mode],
  );
}

/** Forgets who began checkouts; those that were not finished can no longer be. */
export async function forgetCheckouts(db: Db, memberId: MemberId, email: string): Promise<void> {
  await run(
    db,
    `UPDATE checkouts SET email = 'left@left.invalid', name = '', answers = '[]',
       state = CASE state WHEN 'done' THEN 'done' ELSE 'expired' END WHERE member_id = $1 OR email = $2`,
    [memberId, email],
  );
}
