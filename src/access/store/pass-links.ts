import { maybeOne, run, type Db } from '@/platform/store/db';
import type { Mode } from '@/platform/store/site';

export type PassLink = { passId: string; email: string; returnTo: string; mode: Mode };

/** Stores what a mailed link is for, good for hours of real time. */
export async function insertPassLink(db: Db, hash: Buffer, link: PassLink, hours: number): Promise<void> {
  await run(
    db,
    `INSERT INTO pass_links (hash, pass_id, email, return_to, mode, expires_at)
     VALUES ($1, $2, $3, $4, $5, now() + make_interval(hours => $6))`,
    [hash, link.passId, link.email, link.returnTo, link.mode, hours],
  );
}

export async function findPassLink(db: Db, hash: Buffer): Promise<PassLink | undefined> {
  return maybeOne(
    db,
    'SELECT pass_id, email, return_to, mode FROM pass_links WHERE hash = $1 AND expires_at > now()',
    [hash],
  );
}

/** Uses a mailed link up. Undefined: it was used already, or is too old. */
export async function takePassLink(db: Db, hash: Buffer): Promise<PassLink | undefined> {
  return maybeOne(
    db,
    'DELETE FROM pass_links WHERE hash = $1 AND expires_at > now() RETURNING pass_id, email, return_to, mode',
    [hash],
  );
}

export async function deleteOldPassLinks(db: Db): Promise<number> {
  return run(db, 'DELETE FROM pass_links WHERE expires_at <= now()');
}
