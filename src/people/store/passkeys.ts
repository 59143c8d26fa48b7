import type { MemberId } from '@/core/ids';
import type { Instant } from '@/core/instants';
import { many, maybeOne, run, type Db, type Transaction } from '@/platform/store/db';

export type Passkey = {
  id: string;
  memberId: MemberId;
  /** As the device names it, in base64url. */
  credentialId: string;
  /** In COSE form. */
  publicKey: Buffer;
  counter: bigint;
  transports: string[];
  name: string;
  /** Real time, like `usedAt`. */
  at: Instant;
  usedAt: Instant | null;
};
const COLUMNS = 'id, member_id, credential_id, public_key, counter, transports, name, at, used_at';

/** A member's passkeys, the oldest first. */
export async function listPasskeys(db: Db, memberId: MemberId): Promise<Passkey[]> {
  return many(db, `SELECT ${COLUMNS} FROM passkeys WHERE member_id = $1 ORDER BY at, id`, [memberId]);
}

/** Locks the passkey until the transaction ends, so that it cannot be removed during a sign-in. */
export async function lockPasskey(db: Transaction, credentialId: string): Promise<Passkey | undefined> {
  return maybeOne(db, `SELECT ${COLUMNS} FROM passkeys WHERE credential_id = $1 FOR UPDATE`, [credentialId]);
}

/** False: the device's passkey is known already. */
export async function insertPasskey(
  db: Db,
  passkey: Omit<Passkey, 'id' | 'at' | 'usedAt'>,
): Promise<boolean> {
  const { memberId, credentialId, publicKey, counter, transports, name } = passkey;
  const added = await run(
    db,
    `INSERT INTO passkeys (member_id, credential_id, public_key, counter, transports, name) VALUES ($1, $2, $3, $4, $5, $6)
     ON CONFLICT (credential_id) DO NOTHING`,
    [memberId, credentialId, publicKey, counter, transports, name],
  );
  return added === 1;
}

/** Notes that a passkey was used. `counter`: as the device says. */
export async function notePasskeyUse(db: Db, id: string, counter: number): Promise<void> {
  await run(db, 'UPDATE passkeys SET counter = greatest(counter, $2), used_at = now() WHERE id = $1', [
    id,
    counter,
  ]);
}

/** Deletes a passkey of a member, and answers with its name; undefined: they have none such. */
export async function deletePasskey(db: Db, id: string, memberId: MemberId): Promise<string | undefined> {
  const gone = await maybeOne<{ name: string }>(
    db,
    'DELETE FROM passkeys WHERE id = $1 AND member_id = $2 RETURNING name',
    [id, memberId],
  );
  return gone?.name;
}

/** Deletes all passkeys of a member. The answer is how many there were. */
export async function deletePasskeysOf(db: Db, memberId: MemberId): Promise<number> {
  return run(db, 'DELETE FROM passkeys WHERE member_id = $1', [memberId]);
}

/** Keeps what a device is asked to sign, by its hash; `minutes` of real time. `memberId`: whose passkey is being added. */
export async function insertChallenge(
  db: Db,
  hash: Buffer,
  memberId: MemberId | null,
  minutes: number,
): Promise<void> {
  await run(
    db,
    'INSERT INTO passkey_challenges (hash, member_id, expires_at) VALUES ($1, $2, now() + make_interval(mins => $3))',
    [hash, memberId, minutes],
  );
}

/** Uses up what was asked for the same purpose. False: it was never asked, was used, or is too old. */
export async function takeChallenge(db: Db, hash: Buffer, memberId: MemberId | null): Promise<boolean> {
  const taken = await run(
    db,
    'DELETE FROM passkey_challenges WHERE hash = $1 AND member_id IS NOT DISTINCT FROM $2 AND expires_at > now()',
    [hash, memberId],
  );
  return taken === 1;
}

export async function deleteOldChallenges(db: Db): Promise<number> {
  return run(db, 'DELETE FROM passkey_challenges WHERE expires_at <= now()');
}
