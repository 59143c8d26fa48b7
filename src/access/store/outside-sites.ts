import type { MemberId } from '@/core/ids';
import { many, maybeOne, run, type Db } from '@/platform/store/db';

/** `origin`: of the host, as "https://old.moor.example"; `prefix`: under which rules know it, as "/old", or '' . */
export type OutsideSite = { id: string; name: string; origin: string; prefix: string; version: number };

const COLUMNS = 'id, name, origin, prefix, version';

export async function listOutsideSites(db: Db): Promise<OutsideSite[]> {
  return many(db, `SELECT ${COLUMNS} FROM outside_sites ORDER BY lower(name), id`);
}

export async function findOutsideSite(db: Db, id: string): Promise<OutsideSite | undefined> {
  return maybeOne(db, `SELECT ${COLUMNS} FROM outside_sites WHERE id = $1`, [id]);
}

/** The site whose nginx sends a secret, by its hash. */
export async function findOutsideSiteBy(db: Db, secretHash: Buffer): Promise<OutsideSite | undefined> {
  return maybeOne(db, `SELECT ${COLUMNS} FROM outside_sites WHERE secret_hash = $1`, [secretHash]);
}

export async function insertOutsideSite(
  db: Db,
  { id, name, origin, prefix }: Omit<OutsideSite, 'version'>,
  secretHash: Buffer,
): Promise<void> {
  await run(
    db,
    'INSERT INTO outside_sites (id, name, origin, prefix, secret_hash) VALUES ($1, $2, $3, $4, $5)',
    [id, name, origin, prefix, secretHash],
  );
}

/** Changes a site if it has not changed since `version`; those who were let in where it was are out. False if it has. */
export async function updateOutsideSite(db: Db, site: OutsideSite): Promise<boolean> {
  const { id, name, origin, prefix, version } = site;
  await run(
    db,
    'DELETE FROM outside_sessions WHERE site_id = $1 AND EXISTS (SELECT 1 FROM outside_sites WHERE id = $1 AND origin <> $2)',
    [id, origin],
  );
  const changed = await run(
    db,
    'UPDATE outside_sites SET name = $2, origin = $3, prefix = $4, version = version + 1 WHERE id = $1 AND version = $5',
    [id, name, origin, prefix, version],
  );
  return changed === 1;
}

export async function setOutsideSecret(db: Db, id: string, secretHash: Buffer): Promise<boolean> {
  return (
    (await run(db, 'UPDATE outside_sites SET secret_hash = $2, version = version + 1 WHERE id = $1', [
      id,
      secretHash,
    ])) === 1
  );
}

export async function deleteOutsideSite(db: Db, id: string): Promise<boolean> {
  return (await run(db, 'DELETE FROM outside_sites WHERE id = $1', [id])) === 1;
}

/** By what someone is known on the site itself: their session, or the passes of a visitor's browser; hashes of tokens. */
export type Known = { session: Buffer | null; passes: Buffer | null };

/** A way in that is good once, for seconds of real time. */
export async function insertEntry(
  db: Db,
  entry: Known & { hash: Buffer; siteId: string; returnTo: string },
  seconds: number,
): Promise<void> {
  const { hash, siteId, session, passes, returnTo } = entry;
  await run(
    db,
    `INSERT INTO outside_entries (hash, site_id, session, passes, return_to, expires_at)
     VALUES ($1, $2, $3, $4, $5, now() + make_interval(secs => $6))`,
    [hash, siteId, session, passes, returnTo, seconds],
  );
}

/** Uses a way in up. Undefined: it was used, is too old, or is for another site. */
export async function takeEntry(
  db: Db,
  hash: Buffer,
  siteId: string,
): Promise<(Known & { returnTo: string }) | undefined> {
  return maybeOne(
    db,
    'DELETE FROM outside_entries WHERE hash = $1 AND site_id = $2 AND expires_at > now() RETURNING session, passes, return_to',
    [hash, siteId],
  );
}

/** Lets someone in on another host for hours of real time, and no longer than their session. */
export async function insertOutsideSession(
  db: Db,
  { hash, siteId, session, passes }: Known & { hash: Buffer; siteId: string },
  hours: number,
): Promise<void> {
  await run(
    db,
    `INSERT INTO outside_sessions (hash, site_id, session, passes, expires_at)
     VALUES ($1, $2, $3, $4, now() + make_interval(hours => $5))`,
    [hash, siteId, session, passes, hours],
  );
}

/** Who is let in by a cookie of another host; `memberId` is null for a visitor with passes. */
export async function findOutsideSession(
  db: Db,
  hash: Buffer,
  siteId: string,
): Promise<{ memberId: MemberId | null; passes: Buffer | null } | undefined> {
  return maybeOne(
    db,
    `SELECT s.member_id, o.passes FROM outside_sessions o
     LEFT JOIN sessions s ON s.token_hash = o.session AND s.expires_at > now()
     WHERE o.hash = $1 AND o.site_id = $2 AND o.expires_at > now() AND (o.session IS NULL OR s.member_id IS NOT NULL)`,
    [hash, siteId],
  );
}

export async function deleteOldOutside(db: Db): Promise<number> {
  const entries = await run(db, 'DELETE FROM outside_entries WHERE expires_at <= now()');
  return entries + (await run(db, 'DELETE FROM outside_sessions WHERE expires_at <= now()'));
}
