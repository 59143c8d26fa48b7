import type { Instant } from '@/core/calendar';
import type { JoinAnswer } from '@/core/tiers/join-fields';
import { many, maybeOne, one, run, type Db } from '@/platform/store/db';
import type { Mode } from '@/platform/store/site';

/** One attempt of a person to join. Leases are real time; `at` is the site's clock. */
export type Joining = {
  id: string;
  subscriptionId: string;
  offerId: string;
  track: string;
  mode: Mode;
  /** Null for checkouts started before signing in was required. */
  memberId: string | null;
  email: string;
  name: string;
  answers: JoinAnswer[];
  codeId: string | null;
  /** The subscription whose place it takes. */
  replacesId: string | null;
  /** What that switch was said to cost. */
  quoteId: string | null;
  returnTo: string;
  state: 'open' | 'done' | 'expired';
  methodTries: number;
  lastProblem: string;
  at: Instant;
  remindedAt: Instant | null;
};

/** What another try may change. Whose it is never changes. */
export type TypedJoining = Pick<Joining, 'answers' | 'codeId' | 'replacesId' | 'quoteId'>;

export async function findJoining(db: Db, id: string): Promise<Joining | undefined> {
  return maybeOne(db, 'SELECT * FROM joinings WHERE id = $1', [id]);
}

export async function findJoiningOfSubscription(
  db: Db,
  subscriptionId: string,
): Promise<Joining | undefined> {
  return maybeOne(db, 'SELECT * FROM joinings WHERE subscription_id = $1', [subscriptionId]);
}

/** A member’s open checkout for an offer, which can be resumed. */
export async function findOpenJoining(
  db: Db,
  memberId: string,
  offerId: string,
  mode: Mode,
): Promise<Joining | undefined> {
  return maybeOne(
    db,
    `SELECT * FROM joinings WHERE member_id = $1 AND offer_id = $2 AND mode = $3 AND state = 'open' ORDER BY at DESC LIMIT 1`,
    [memberId, offerId, mode],
  );
}

/** Adds a joining under a lease. @throws a conflict where the id is taken */
export async function insertJoining(
  db: Db,
  j: Omit<Joining, 'state' | 'methodTries' | 'lastProblem' | 'remindedAt'>,
  leaseSeconds: number,
): Promise<Joining> {
  return one(
    db,
    `INSERT INTO joinings (id, subscription_id, offer_id, track, mode, member_id, email, name, answers, code_id, replaces_id, quote_id, return_to, at, busy_until)
     VALUES ($1, $2, $3, $4, $5, $6, $7, $8, $9, $10, $11, $12, $13, $14, now() + make_interval(secs => $15)) RETURNING *`,
    [
      j.id,
      j.subscriptionId,
      j.offerId,
      j.track,
      j.mode,
      j.memberId,
      j.email,
      j.name,
      JSON.stringify(j.answers),
      j.codeId,
      j.replacesId,
      j.quoteId,
      j.returnTo,
      j.at,
      leaseSeconds,
    ],
  );
}

/** Takes an open joining for another try with what was typed this time. Undefined: done, or somebody is at it. */
export async function claimJoining(
  db: Db,
  id: string,
  typed: TypedJoining,
  leaseSeconds: number,
): Promise<Joining | undefined> {
  return maybeOne(
    db,
    `UPDATE joinings SET busy_until = now() + make_interval(secs => $2), answers = $3, code_id = $4, replaces_id = $5, quote_id = $6
     WHERE id = $1 AND state = 'open' AND (busy_until IS NULL OR busy_until < now()) RETURNING *`,
    [id, leaseSeconds, JSON.stringify(typed.answers), typed.codeId, typed.replacesId, typed.quoteId],
  );
}

/** Counts a card offered, and returns how many that makes. */
export async function countMethodTry(db: Db, id: string): Promise<number> {
  const row = await one<{ methodTries: number }>(
    db,
    'UPDATE joinings SET method_tries = method_tries + 1 WHERE id = $1 RETURNING method_tries',
    [id],
  );
  return row.methodTries;
}

/** Gives a joining back for another try, with what stood in the way of this one. */
export async function releaseJoining(db: Db, id: string, problem: string): Promise<void> {
  await run(db, `UPDATE joinings SET busy_until = NULL, last_problem = $2 WHERE id = $1 AND state = 'open'`, [
    id,
    problem,
  ]);
}

export async function finishJoining(db: Db, id: string, memberId: string): Promise<void> {
  await run(db, `UPDATE joinings SET state = 'done', busy_until = NULL, member_id = $2 WHERE id = $1`, [
    id,
    memberId,
  ]);
}

/** Joinings that nobody is at and no payment is open for: what was left unfinished. */
const UNFINISHED = `
  state = 'open' AND (busy_until IS NULL OR busy_until < now())
  AND NOT EXISTS (SELECT 1 FROM payments p JOIN charges c ON c.id = p.charge_id WHERE c.subscription_id = joinings.subscription_id AND p.state = 'intent')`;

/** Unfinished joinings of a mode, newest first. */
export async function listUnfinishedJoinings(db: Db, mode: Mode, limit: number): Promise<Joining[]> {
  return many(db, `SELECT * FROM joinings WHERE mode = $1 AND ${UNFINISHED} ORDER BY at DESC LIMIT $2`, [
    mode,
    limit,
  ]);
}

/** Takes one joining left unfinished before an instant that nobody was reminded of. */
export async function claimReminder(
  db: Db,
  mode: Mode,
  before: Instant,
  now: Instant,
): Promise<Joining | undefined> {
  return maybeOne(
    db,
    `UPDATE joinings SET reminded_at = $3
     WHERE id = (SELECT id FROM joinings WHERE mode = $1 AND at <= $2 AND reminded_at IS NULL AND member_id IS NOT NULL AND ${UNFINISHED}
       ORDER BY at LIMIT 1 FOR UPDATE SKIP LOCKED) RETURNING *`,
    [mode, before, now],
  );
}

/** Ends joinings left unfinished before an instant. */
export async function expireJoinings(db: Db, mode: Mode, before: Instant): Promise<number> {
  return run(
    db,
    `UPDATE joinings SET state = 'expired', answers = '[]' WHERE mode = $1 AND at <= $2 AND ${UNFINISHED}`,
    [mode, before],
  );
}

/** Whether another joining of the same address to the same track is being paid at this moment. */
export async function isBeingPaid(
  db: Db,
  email: string,
  mode: Mode,
  track: string,
  exceptId: string,
): Promise<boolean> {
  return (
    (await maybeOne(
      db,
      `SELECT 1 FROM joinings WHERE email = $1 AND mode = $2 AND track = $3 AND id <> $4 AND state = 'open'
         AND (busy_until > now() OR EXISTS (
           SELECT 1 FROM payments p JOIN charges c ON c.id = p.charge_id WHERE c.subscription_id = joinings.subscription_id AND p.state = 'intent' AND NOT p.is_awaited))`,
      [email, mode, track, exceptId],
    )) !== undefined
  );
}
