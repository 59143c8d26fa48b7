import type { MemberId } from '@/core/ids';
import { maybeOne, one, run, type Db } from '@/platform/store/db';
import { sealedBy } from '@/platform/store/sealed';

export const SEALED_ONE_TIME = sealedBy('one-time codes', 'one_time_codes', 'member_id', 'secret_sealed');

export type OneTime = { secretSealed: string; isConfirmed: boolean; lastStep: bigint };

export async function findOneTime(db: Db, memberId: MemberId): Promise<OneTime | undefined> {
  return maybeOne(
    db,
    'SELECT secret_sealed, confirmed_at IS NOT NULL AS is_confirmed, last_step FROM one_time_codes WHERE member_id = $1',
    [memberId],
  );
}

/** Keeps a secret that was not confirmed yet; one that was confirmed stays. False: there is one. */
export async function beginOneTime(db: Db, memberId: MemberId, sealed: string): Promise<boolean> {
  const changed = await run(
    db,
    `INSERT INTO one_time_codes (member_id, secret_sealed) VALUES ($1, $2)
     ON CONFLICT (member_id) DO UPDATE SET secret_sealed = $2, last_step = 0 WHERE one_time_codes.confirmed_at IS NULL`,
    [memberId, sealed],
  );
  return changed === 1;
}

/** Uses up the code of a step of time. False: that step or a later one was used before. */
export async function takeStep(db: Db, memberId: MemberId, step: number): Promise<boolean> {
  const changed = await run(
    db,
    'UPDATE one_time_codes SET last_step = $2, confirmed_at = coalesce(confirmed_at, now()) WHERE member_id = $1 AND last_step < $2',
    [memberId, step],
  );
  return changed === 1;
}

export async function deleteOneTime(db: Db, memberId: MemberId): Promise<boolean> {
  return (await run(db, 'DELETE FROM one_time_codes WHERE member_id = $1', [memberId])) === 1;
}

/** Replaces the recovery codes of a member, by their hashes. */
export async function setRecoveryCodes(db: Db, memberId: MemberId, hashes: Buffer[]): Promise<void> {
  await run(db, 'DELETE FROM recovery_codes WHERE member_id = $1', [memberId]);
  await run(db, 'INSERT INTO recovery_codes (member_id, hash) SELECT $1, unnest($2::bytea[])', [
    memberId,
    hashes,
  ]);
}

/** Uses up a recovery code. False: there is none such. */
export async function takeRecoveryCode(db: Db, memberId: MemberId, hash: Buffer): Promise<boolean> {
  return (
    (await run(db, 'DELETE FROM recovery_codes WHERE member_id = $1 AND hash = $2', [memberId, hash])) === 1
  );
}

export async function countRecoveryCodes(db: Db, memberId: MemberId): Promise<number> {
  const { n } = await one<{ n: bigint }>(
    db,
    'SELECT count(*) AS n FROM recovery_codes WHERE member_id = $1',
    [memberId],
  );
  return Number(n);
}

/** The member whose session waits for a one-time code. */
export async function findWaitingSession(db: Db, tokenHash: Buffer): Promise<MemberId | undefined> {
  const row = await maybeOne<{ memberId: MemberId }>(
    db,
    `SELECT s.member_id FROM sessions s JOIN members m ON m.id = s.member_id
     WHERE s.token_hash = $1 AND s.needs_code AND s.expires_at > now() AND s.created_at > now() - interval '15 minutes' AND m.blocked_at IS NULL`,
    [tokenHash],
  );
  return row?.memberId;
}
