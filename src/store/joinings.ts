import { maybeOne, one, run, type Db } from './db';
import type { Mode } from './site';

/** One attempt of a person to join. Leases are real time. */
export type Joining = {
  id: string;
  subscriptionId: string;
  track: string;
  mode: Mode;
  memberId: string | null;
  email: string;
  name: string;
  passwordHash: string | null;
  returnTo: string;
  state: 'open' | 'done';
  methodTries: number;
};

export async function findJoining(db: Db, id: string): Promise<Joining | undefined> {
  return maybeOne(db, 'SELECT * FROM joinings WHERE id = $1', [id]);
}

export async function findJoiningOfSubscription(
  db: Db,
  subscriptionId: string,
): Promise<Joining | undefined> {
  return maybeOne(db, 'SELECT * FROM joinings WHERE subscription_id = $1', [subscriptionId]);
}

/** Adds a joining under a lease. @throws a conflict where the id is taken */
export async function insertJoining(
  db: Db,
  j: Omit<Joining, 'state' | 'methodTries'>,
  leaseSeconds: number,
): Promise<Joining> {
  return one(
    db,
    `INSERT INTO joinings (id, subscription_id, track, mode, member_id, email, name, password_hash, return_to, busy_until)
     VALUES ($1, $2, $3, $4, $5, $6, $7, $8, $9, now() + make_interval(secs => $10)) RETURNING *`,
    [
      j.id,
      j.subscriptionId,
      j.track,
      j.mode,
      j.memberId,
      j.email,
      j.name,
      j.passwordHash,
      j.returnTo,
      leaseSeconds,
    ],
  );
}

/** Takes an open joining for another try with what was typed this time. Undefined: done, or somebody is at it. */
export async function claimJoining(
  db: Db,
  id: string,
  typed: Pick<Joining, 'email' | 'name' | 'passwordHash' | 'memberId'>,
  leaseSeconds: number,
): Promise<Joining | undefined> {
  return maybeOne(
    db,
    `UPDATE joinings SET busy_until = now() + make_interval(secs => $2), email = $3, name = $4, password_hash = $5, member_id = $6
     WHERE id = $1 AND state = 'open' AND (busy_until IS NULL OR busy_until < now()) RETURNING *`,
    [id, leaseSeconds, typed.email, typed.name, typed.passwordHash, typed.memberId],
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

export async function releaseJoining(db: Db, id: string): Promise<void> {
  await run(db, `UPDATE joinings SET busy_until = NULL WHERE id = $1 AND state = 'open'`, [id]);
}

export async function finishJoining(db: Db, id: string, memberId: string): Promise<void> {
  // The password's hash now stands with the member; here it has no further use.
  await run(
    db,
    `UPDATE joinings SET state = 'done', busy_until = NULL, member_id = $2, password_hash = NULL WHERE id = $1`,
    [id, memberId],
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
           SELECT 1 FROM payments p JOIN charges c ON c.id = p.charge_id WHERE c.subscription_id = joinings.subscription_id AND p.state = 'intent'))`,
      [email, mode, track, exceptId],
    )) !== undefined
  );
}
