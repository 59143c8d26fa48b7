import type { Instant } from '@/core/calendar';
import type { JoinAnswer } from '@/core/tiers/join-fields';
import { many, maybeOne, one, run, type Db } from './db';
import type { Mode } from './site';

/** One attempt of a person to join. Leases are real time; `at` is the site's clock. */
export type Joining = {
  id: string;
  subscriptionId: string;
  offerId: string;
  track: string;
  mode: Mode;
  memberId: string | null;
  email: string;
  name: string;
  passwordHash: string | null;
  answers: JoinAnswer[];
  codeId: string | null;
  /** The subscription whose place it takes. */
  replacesId: string | null;
  /** What that switch was said to cost. */
  quoteId: string | null;
  returnTo: string;
  /** `waiting`: for the proof of its address. */
  state: 'open' | 'waiting' | 'done' | 'expired';
  methodTries: number;
  lastProblem: string;
  at: Instant;
  remindedAt: Instant | null;
};

/** What a person typed, which another try may change. */
export type TypedJoining = Pick<
  Joining,
  'email' | 'name' | 'passwordHash' | 'memberId' | 'answers' | 'codeId' | 'replacesId' | 'quoteId'
>;

export async function findJoining(db: Db, id: string): Promise<Joining | undefined> {
  return maybeOne(db, 'SELECT * FROM joinings WHERE id = $1', [id]);
}

export async function findJoiningOfSubscription(
  db: Db,
  subscriptionId: string,
): Promise<Joining | undefined> {
  return maybeOne(db, 'SELECT * FROM joinings WHERE subscription_id = $1', [subscriptionId]);
}

/** The joining that a mailed link leads to. */
export async function findJoiningByHash(db: Db, hash: Buffer): Promise<Joining | undefined> {
  return maybeOne(db, 'SELECT * FROM joinings WHERE resume_hash = $1', [hash]);
}

/** Adds a joining under a lease. @throws a conflict where the id is taken */
export async function insertJoining(
  db: Db,
  j: Omit<Joining, 'state' | 'methodTries' | 'lastProblem' | 'remindedAt'>,
  leaseSeconds: number,
): Promise<Joining> {
  return one(
    db,
    `INSERT INTO joinings (id, subscription_id, offer_id, track, mode, member_id, email, name, password_hash, answers, code_id, replaces_id, quote_id, return_to, at, busy_until)
     VALUES ($1, $2, $3, $4, $5, $6, $7, $8, $9, $10, $11, $12, $13, $14, $15, now() + make_interval(secs => $16)) RETURNING *`,
    [
      j.id,
      j.subscriptionId,
      j.offerId,
      j.track,
      j.mode,
      j.memberId,
      j.email,
      j.name,
      j.passwordHash,
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
    `UPDATE joinings SET busy_until = now() + make_interval(secs => $2), email = $3, name = $4, password_hash = $5, member_id = $6,
       answers = $7, code_id = $8, replaces_id = $9, quote_id = $10, state = 'open'
     WHERE id = $1 AND state IN ('open', 'waiting') AND (busy_until IS NULL OR busy_until < now()) RETURNING *`,
    [
      id,
      leaseSeconds,
      typed.email,
      typed.name,
      typed.passwordHash,
      typed.memberId,
      JSON.stringify(typed.answers),
      typed.codeId,
      typed.replacesId,
      typed.quoteId,
    ],
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

/** Has a joining wait for the proof of its address, under the hash of a mailed link. */
export async function awaitProof(db: Db, id: string, hash: Buffer): Promise<void> {
  await run(
    db,
    `UPDATE joinings SET state = 'waiting', busy_until = NULL, resume_hash = $2 WHERE id = $1 AND state = 'open'`,
    [id, hash],
  );
}

export async function finishJoining(db: Db, id: string, memberId: string): Promise<void> {
  // The password's hash now stands with the member; here it has no further use.
  await run(
    db,
    `UPDATE joinings SET state = 'done', busy_until = NULL, member_id = $2, password_hash = NULL, resume_hash = NULL WHERE id = $1`,
    [id, memberId],
  );
}

/** Joinings that nobody is at and no payment is open for: what was left unfinished. */
const UNFINISHED = `
  state IN ('open', 'waiting') AND (busy_until IS NULL OR busy_until < now())
  AND NOT EXISTS (SELECT 1 FROM payments p JOIN charges c ON c.id = p.charge_id WHERE c.subscription_id = joinings.subscription_id AND p.state = 'intent')`;

/** Unfinished joinings of a mode, newest first. */
export async function listUnfinishedJoinings(db: Db, mode: Mode, limit: number): Promise<Joining[]> {
  return many(db, `SELECT * FROM joinings WHERE mode = $1 AND ${UNFINISHED} ORDER BY at DESC LIMIT $2`, [
    mode,
    limit,
  ]);
}

/** Takes one joining left unfinished before an instant that nobody was reminded of, and gives it a new link. */
export async function claimReminder(
  db: Db,
  mode: Mode,
  before: Instant,
  now: Instant,
  hash: Buffer,
): Promise<Joining | undefined> {
  return maybeOne(
    db,
    `UPDATE joinings SET reminded_at = $3, resume_hash = $4
     WHERE id = (SELECT id FROM joinings WHERE mode = $1 AND at <= $2 AND reminded_at IS NULL AND state = 'open' AND ${UNFINISHED}
       ORDER BY at LIMIT 1 FOR UPDATE SKIP LOCKED) RETURNING *`,
    [mode, before, now, hash],
  );
}

/** Ends joinings left unfinished before an instant: the link is dead, and nothing of the password stays. */
export async function expireJoinings(db: Db, mode: Mode, before: Instant): Promise<number> {
  return run(
    db,
    `UPDATE joinings SET state = 'expired', resume_hash = NULL, password_hash = NULL, answers = '[]' WHERE mode = $1 AND at <= $2 AND ${UNFINISHED}`,
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
