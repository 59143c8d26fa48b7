import type { Scope } from '@/core/api/scopes';
import type { Instant } from '@/core/instants';
import type { MemberId } from '@/core/ids';
import type { StaffRole } from '@/core/staff';
import { many, maybeOne, run, type Db } from '@/platform/store/db';
import type { Mode } from '@/platform/store/site';

export type ApiKey = {
  id: string;
  name: string;
  begins: string;
  scopes: Scope[];
  mode: Mode;
  madeBy: string;
  createdAt: Instant;
  endsAt: Instant;
  revokedAt: Instant | null;
  /** Whether it is good for nothing by now. */
  hasEnded: boolean;
  lastUsedAt: Instant | null;
};

/** All keys, the newest first. `madeBy`: the name of the one who made it. */
export async function listApiKeys(db: Db): Promise<ApiKey[]> {
  return many(
    db,
    `SELECT k.id, k.name, k.begins, k.scopes, k.mode, m.name AS made_by, k.created_at, k.ends_at, k.revoked_at, k.last_used_at,
       k.revoked_at IS NOT NULL OR k.ends_at <= now() AS has_ended
     FROM api_keys k JOIN members m ON m.id = k.made_by ORDER BY k.created_at DESC, k.id`,
  );
}

export type NewApiKey = Pick<ApiKey, 'id' | 'name' | 'begins' | 'scopes' | 'mode'> & {
  hash: Buffer;
  madeBy: MemberId;
  days: number;
};

/** Stores a key that ends after so many days of real time. */
export async function insertApiKey(db: Db, key: NewApiKey): Promise<void> {
  const { id, name, hash, begins, scopes, mode, madeBy, days } = key;
  await run(
    db,
    `INSERT INTO api_keys (id, name, hash, begins, scopes, mode, made_by, ends_at)
     VALUES ($1, $2, $3, $4, $5, $6, $7, now() + make_interval(days => $8))`,
    [id, name, hash, begins, scopes, mode, madeBy, days],
  );
}

export async function revokeApiKey(db: Db, id: string): Promise<boolean> {
  return (
    (await run(db, 'UPDATE api_keys SET revoked_at = now() WHERE id = $1 AND revoked_at IS NULL', [id])) === 1
  );
}

/** What a key is good for, with the role that its maker has now. Undefined: it is unknown, has ended or was revoked. Notes that it was used. */
export async function findApiKey(
  db: Db,
  hash: Buffer,
): Promise<
  { id: string; scopes: Scope[]; mode: Mode; memberId: MemberId; staffRole: StaffRole } | undefined
> {
  const found = await maybeOne<{
    id: string;
    scopes: Scope[];
    mode: Mode;
    memberId: MemberId;
    staffRole: StaffRole;
    isStale: boolean;
  }>(
    db,
    `SELECT k.id, k.scopes, k.mode, m.id AS member_id, m.staff_role, coalesce(k.last_used_at < now() - interval '1 minute', true) AS is_stale
     FROM api_keys k JOIN members m ON m.id = k.made_by
     WHERE k.hash = $1 AND k.ends_at > now() AND k.revoked_at IS NULL AND m.staff_role IS NOT NULL AND m.deleted_at IS NULL`,
    [hash],
  );
  if (!found) return undefined;
  const { isStale, ...key } = found;
  if (isStale) await run(db, 'UPDATE api_keys SET last_used_at = now() WHERE id = $1', [key.id]);
  return key;
}

export async function deleteApiKey(db: Db, id: string): Promise<void> {
  await run(db, 'DELETE FROM api_keys WHERE id = $1', [id]);
}
