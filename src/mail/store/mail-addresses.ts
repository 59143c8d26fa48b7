import type { Instant } from '@/core/instants';
import type { OpenTopic } from '@/core/mail-topics';
import { containing, where } from '@/platform/store/conditions';
import { many, maybeOne, one, run, type Db } from '@/platform/store/db';

/** Someone of whom only a confirmed address is known. `getsPosts` and `getsLetters`: null where they chose nothing. */
export type MailAddress = {
  id: string;
  email: string;
  /** They asked for mails, or confirmed the address to read something. */
  how: 'asked' | 'pass';
  getsPosts: boolean | null;
  getsLetters: boolean | null;
  /** The site's clock. */
  confirmedAt: Instant;
};

export async function findMailAddress(db: Db, id: string): Promise<MailAddress | undefined> {
  return maybeOne(db, 'SELECT * FROM mail_addresses WHERE id = $1', [id]);
}

/** Notes that an address was confirmed, with the topics whose mails were asked for. What was chosen before stays, but for those. */
export async function confirmMailAddress(
  db: Db,
  { email, how, topics, at }: { email: string; how: MailAddress['how']; topics: OpenTopic[]; at: Instant },
): Promise<void> {
  await run(
    db,
    `INSERT INTO mail_addresses (email, how, gets_posts, gets_letters, confirmed_at) VALUES ($1, $2, $3, $4, $5)
     ON CONFLICT (email) DO UPDATE SET gets_posts = coalesce($3, mail_addresses.gets_posts), gets_letters = coalesce($4, mail_addresses.gets_letters)`,
    [email, how, topics.includes('posts') || null, topics.includes('letters') || null, at],
  );
}

const COLUMNS: Record<OpenTopic, string> = { posts: 'gets_posts', letters: 'gets_letters' };

/** Turns the mails of a topic on or off for an address. @returns whether that changed anything */
export async function setAddressChoice(
  db: Db,
  id: string,
  topic: OpenTopic,
  isOn: boolean,
): Promise<boolean> {
  const column = COLUMNS[topic];
  return (
    (await run(
      db,
      `UPDATE mail_addresses SET ${column} = $2 WHERE id = $1 AND ${column} IS DISTINCT FROM $2`,
      [id, isOn],
    )) > 0
  );
}

/** Forgets an address. @returns what was known of it */
export async function deleteMailAddress(db: Db, id: string): Promise<MailAddress | undefined> {
  return maybeOne(db, 'DELETE FROM mail_addresses WHERE id = $1 RETURNING *', [id]);
}

/** Forgets an address and the links that were mailed to it. */
export async function forgetMailAddress(db: Db, email: string): Promise<void> {
  await run(db, 'DELETE FROM mail_addresses WHERE email = $1', [email]);
  await run(db, 'DELETE FROM mail_links WHERE email = $1', [email]);
}

export type MailLink = { email: string; topics: OpenTopic[] };

/** Stores what a mailed link confirms, good for hours of real time. */
export async function insertMailLink(
  db: Db,
  hash: Buffer,
  { email, topics }: MailLink,
  hours: number,
): Promise<void> {
  await run(
    db,
    `INSERT INTO mail_links (hash, email, topics, expires_at) VALUES ($1, $2, $3, now() + make_interval(hours => $4))`,
    [hash, email, topics, hours],
  );
}

export async function findMailLink(db: Db, hash: Buffer): Promise<MailLink | undefined> {
  return maybeOne(db, 'SELECT email, topics FROM mail_links WHERE hash = $1 AND expires_at > now()', [hash]);
}

export async function deleteOldMailLinks(db: Db): Promise<number> {
  return run(db, 'DELETE FROM mail_links WHERE expires_at <= now()');
}

export type AddressFilter = { search: string; limit: number; offset: number };

/** Addresses, the newest first, and how many there are. */
export async function listMailAddresses(
  db: Db,
  { search, limit, offset }: AddressFilter,
): Promise<{ rows: MailAddress[]; total: number }> {
  const narrowed = where([search && ['email LIKE ?', containing(search)]]);
  const { total } = await one<{ total: bigint }>(
    db,
    `SELECT count(*) AS total FROM mail_addresses ${narrowed.sql}`,
    [...narrowed.values],
  );
  const rows = await many<MailAddress>(
    db,
    `SELECT * FROM mail_addresses ${narrowed.sql} ORDER BY confirmed_at DESC, id LIMIT ${narrowed.add(limit)} OFFSET ${narrowed.add(offset)}`,
    narrowed.values,
  );
  return { rows, total: Number(total) };
}

/** Some of those who asked for the mails of a topic, by id, after one of them. */
export async function listAddressesFor(
  db: Db,
  topic: OpenTopic,
  { limit, after }: { limit: number; after: string | null },
): Promise<MailAddress[]> {
  return many(
    db,
    `SELECT * FROM mail_addresses WHERE ${COLUMNS[topic]} AND ($1::uuid IS NULL OR id > $1) ORDER BY id LIMIT $2`,
    [after, limit],
  );
}

export async function countAddressesFor(db: Db, topic: OpenTopic): Promise<number> {
  return Number(
    (await one<{ n: bigint }>(db, `SELECT count(*) AS n FROM mail_addresses WHERE ${COLUMNS[topic]}`)).n,
  );
}
