import { randomBytes } from 'node:crypto';
import pg from 'pg';
import { migrate } from '../../scripts/lib/migrations';
import { startServer } from '../../scripts/lib/postgres';
import type { MemberId } from '../../src/core/ids';
import { makeDue } from './site';

export type PagesSite = {
  environment: Record<string, string> & { DATABASE_URL: string };
  db: pg.Client;
  /** The cookie of a member who holds nothing. */
  member: string;
  memberId: MemberId;
  /** The cookie of a member with a subscription for “Observer”. */
  holder: string;
  close: () => Promise<void>;
};

/** Ten comments under each post that is asked for. */
const COMMENTS = `INSERT INTO comments (item_id, member_id, words, state, form_key, at)
  SELECT i.id, $1, 'The fog lay in the valley until four, comment ' || n, 'shown', gen_random_uuid(), now()
  FROM items i, generate_series(1, 10) n WHERE i.id IN ('first-clear-night', 'zodiacal-light')`;

/** Lantern Moor's texts, tiers and rules, and two members who are signed in. */
export async function pagesSite(): Promise<PagesSite> {
  const server = await startServer(5490);
  const database = `nest_pages_${process.pid}`;
  await server.createDatabase(database);
  const url = server.url(database);
  await migrate(url);
  const environment = {
    DATABASE_URL: url,
    SITE_URL: 'http://127.0.0.1:9',
    SEALING_KEY: randomBytes(32).toString('hex'),
    SIGNING_KEY: randomBytes(32).toString('hex'),
    SMTP_URL: 'smtp://127.0.0.1:9',
    CURLEW_CARDS_URL: 'http://127.0.0.1:9',
    DUNLIN_WALLET_URL: 'http://127.0.0.1:9',
    LOG_LEVEL: 'silent',
  };
  Object.assign(process.env, environment);
  // What reads the environment is loaded once it is set.
  const { loadEmptySite, loadContent } = await import('../../scripts/lib/load-demo');
  const { turnOnComments } = await import('../../scripts/lib/load-comments');
  const { personNamed } = await import('../../scripts/lib/people');
  const { seal } = await import('../../src/platform/seal');
  const { realNow } = await import('../../src/platform/clock');
  const { newToken } = await import('../../src/platform/tokens');
  const { insertSession } = await import('../../src/people/store/sessions');
  const { findMemberByEmail } = await import('../../src/people/store/members');
  const { closePools, pool } = await import('../../src/platform/store/db');
  await loadEmptySite();
  await loadContent(realNow());
  await turnOnComments();
  const db = new pg.Client({ connectionString: url });
  await db.connect();
  const one = async (sql: string, values: unknown[] = []): Promise<string> =>
    (await db.query<{ id: string }>(sql, values)).rows[0]?.id ?? '';
  const accountId = await one(
    `INSERT INTO gateway_accounts (gateway, nature, mode, label, site_key, secret_key_sealed, checked_at, heard_at, at_checkout)
     VALUES ('curlew-cards', 'card', 'test', 'Card', 'k', $1, now(), now(), true) RETURNING id`,
    [seal('secret')],
  );
  const versionId = await one(`SELECT id FROM offer_versions WHERE offer_id = 'observer-monthly'`);
  await makeDue(db, 1, accountId, versionId);
  const { memberId } = await personNamed('Someone New', 'someone@moor.example', 'look up more often');
  const writer = await personNamed('Someone Else', 'else@moor.example', 'look up more often');
  await db.query(COMMENTS, [writer.memberId]);
  const cookieOf = async (id: string): Promise<string> => {
    const { token, hash } = newToken();
    await insertSession(pool(), {
      tokenHash: hash,
      memberId: id,
      days: 1,
      browser: 'bench',
      needsCode: false,
      isProven: false,
    });
    return `nest_session=${token}`;
  };
  const holder = await findMemberByEmail(pool(), 'due1@moor.example');
  const cookies = { member: await cookieOf(memberId ?? ''), holder: await cookieOf(holder?.id ?? '') };
  await db.query('VACUUM ANALYZE');
  return {
    environment,
    db,
    ...cookies,
    memberId: memberId as MemberId,
    close: async () => {
      await Promise.all([db.end(), closePools()]);
      await server.dropDatabase(database);
      server.stop();
    },
  };
}

/** Makes the site very full: 100,000 items in fifty categories and with a hundred tags, and 200 rules of every kind. */
export async function fillContent(db: pg.Client): Promise<void> {
  const statements = [
    `INSERT INTO categories (id, name, position) SELECT 'c' || n, 'Category ' || n, n FROM generate_series(1, 50) n`,
    `INSERT INTO tags (id, name) SELECT 't' || n, 'tag ' || n FROM generate_series(1, 100) n`,
    `INSERT INTO items (id, type, path, title, summary, body, author, tags, position, published_at, words, body_text, search_language)
     SELECT 'filled-' || n, 'post', '/posts/filled-' || n, 'Filled ' || n, 'A summary', '{"type":"doc","content":[{"type":"paragraph","content":[{"type":"text","text":"Words."}]}]}',
       '', ARRAY['t' || (n % 100 + 1)], 0, now() - interval '100 days' - n * interval '5 minutes', 1, 'Words.', 'english' FROM generate_series(1, 100000) n`,
    `INSERT INTO item_categories (item_id, category_id) SELECT 'filled-' || n, 'c' || (n % 50 + 1) FROM generate_series(1, 100000) n`,
    `INSERT INTO rules (id, name, is_on, definition)
     SELECT 'r' || n, 'Rule ' || n, true, jsonb_build_object('covers', jsonb_build_array(
       CASE n % 4 WHEN 0 THEN jsonb_build_object('kind', 'category', 'id', 'c' || (n % 50 + 1))
         WHEN 1 THEN jsonb_build_object('kind', 'tag', 'id', 't' || (n % 100 + 1))
         WHEN 2 THEN jsonb_build_object('kind', 'path', 'pattern', '/archive-' || n || '/**')
         ELSE jsonb_build_object('kind', 'item', 'id', 'filled-' || n * 7) END),
       'openTo', '[{"who":{"kind":"tier","id":"observer"}}]'::jsonb) FROM generate_series(1, 200) n`,
    'VACUUM ANALYZE',
  ];
  for (const statement of statements) await db.query(statement);
}
