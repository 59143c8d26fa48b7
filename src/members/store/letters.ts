import { articleSchema, type Prose } from '@/core/content/prose';
import type { Instant } from '@/core/instants';
import type { MemberId } from '@/core/ids';
import { built, many, maybeOne, one, run, type Db, type Transaction } from '@/platform/store/db';

export const LETTER_STATES = ['draft', 'sending', 'paused', 'sent', 'stopped'] as const;
export type LetterState = (typeof LETTER_STATES)[number];

/** What goes to many: a letter to a list of members, or a post to those who may read it. */
export type Letter = {
  id: string;
  kind: 'letter' | 'post';
  /** Of a post. */
  itemId: string | null;
  /** What those get to whom the post is closed. */
  closedGet: 'teaser' | 'nothing';
  subject: string;
  body: Prose;
  /** The filter of the list of members, as its address has it. */
  filter: Record<string, string>;
  /** Whether it also goes to those of whom only an address is known. */
  toAddresses: boolean;
  state: LetterState;
  version: number;
  /** The site's clock. */
  begunAt: Instant | null;
  doneAt: Instant | null;
  /** The last member and the last address for whom it was written. */
  afterMember: MemberId | null;
  membersDone: boolean;
  afterAddress: string | null;
  written: number;
};

const COLUMNS = `l.id, l.kind, l.item_id, l.closed_get, l.subject, l.body, l.filter, l.to_addresses, l.state, l.version::integer, l.begun_at, l.done_at,
  l.after_member, l.members_done, l.after_address, l.written`;
const PARSED = { body: articleSchema, filter: built };

export type ListedLetter = Pick<
  Letter,
  'id' | 'kind' | 'subject' | 'state' | 'written' | 'begunAt' | 'doneAt'
> & {
  failed: number;
  opened: number;
};

/** Letters and posts that were mailed, what is not sent yet first, then the newest. `unknown`: items that are left out, with the letters that mailed them. */
export async function listLetters(
  db: Db,
  unknown: string[],
  limit: number,
  offset: number,
): Promise<ListedLetter[]> {
  const rows = await many<Omit<ListedLetter, 'failed' | 'opened'> & { failed: bigint; opened: bigint }>(
    db,
    `SELECT l.id, l.kind, coalesce(i.title, l.subject) AS subject, l.state, l.written, l.begun_at, l.done_at,
       (SELECT count(*) FROM mails m WHERE m.letter_id = l.id AND m.state = 'failed') AS failed,
       (SELECT count(*) FROM letter_opens o WHERE o.letter_id = l.id) AS opened
     FROM letters l LEFT JOIN items i ON i.id = l.item_id WHERE l.item_id IS NULL OR NOT l.item_id = ANY ($3)
     ORDER BY l.done_at IS NOT NULL, coalesce(l.done_at, l.created_at) DESC, l.id LIMIT $1 OFFSET $2`,
    [limit, offset, unknown],
  );
  return rows.map((row) => ({ ...row, failed: Number(row.failed), opened: Number(row.opened) }));
}

export async function countLetters(db: Db, unknown: string[]): Promise<number> {
  const { n } = await one<{ n: bigint }>(
    db,
    'SELECT count(*) AS n FROM letters WHERE item_id IS NULL OR NOT item_id = ANY ($1)',
    [unknown],
  );
  return Number(n);
}

export async function findLetter(db: Db, id: string): Promise<Letter | undefined> {
  return maybeOne(db, `SELECT ${COLUMNS} FROM letters l WHERE l.id = $1`, [id], PARSED);
}

/** The same, locked until the transaction ends. */
export async function lockLetter(db: Transaction, id: string): Promise<Letter | undefined> {
  return maybeOne(db, `SELECT ${COLUMNS} FROM letters l WHERE l.id = $1 FOR UPDATE`, [id], PARSED);
}

export async function findLetterOf(db: Db, itemId: string): Promise<Letter | undefined> {
  return maybeOne(db, `SELECT ${COLUMNS} FROM letters l WHERE l.item_id = $1`, [itemId], PARSED);
}

export type LetterText = Pick<Letter, 'subject' | 'body' | 'filter' | 'toAddresses'>;

export async function insertLetter(db: Db, letter: LetterText, madeBy: MemberId | null): Promise<string> {
  const { id } = await one<{ id: string }>(
    db,
    `INSERT INTO letters (kind, subject, body, filter, to_addresses, made_by) VALUES ('letter', $1, $2, $3, $4, $5) RETURNING id`,
    [letter.subject, letter.body, letter.filter, letter.toAddresses, madeBy],
  );
  return id;
}

/** Changes a draft. @returns whether it still was one, in the version that was opened */
export async function updateLetter(
  db: Db,
  id: string,
  version: number,
  letter: LetterText,
): Promise<boolean> {
  return (
    (await run(
      db,
      `UPDATE letters SET subject = $3, body = $4, filter = $5, to_addresses = $6, version = version + 1
       WHERE id = $1 AND version = $2 AND state = 'draft' AND kind = 'letter'`,
      [id, version, letter.subject, letter.body, letter.filter, letter.toAddresses],
    )) === 1
  );
}

export async function deleteLetter(db: Db, id: string): Promise<boolean> {
  return (await run(db, `DELETE FROM letters WHERE id = $1 AND state = 'draft'`, [id])) === 1;
}

/** Has a post mailed to those who may read it, once it is out. @returns undefined where it is mailed already */
export async function insertPostLetter(
  db: Db,
  { itemId, closedGet, at }: { itemId: string; closedGet: Letter['closedGet']; at: Instant },
  madeBy: MemberId | null,
): Promise<string | undefined> {
  const made = await maybeOne<{ id: string }>(
    db,
    `INSERT INTO letters (kind, item_id, closed_get, subject, body, to_addresses, made_by, state, begun_at)
     VALUES ('post', $1, $2, '', '{"type":"doc","content":[]}', true, $3, 'sending', $4)
     ON CONFLICT (item_id) WHERE item_id IS NOT NULL DO NOTHING RETURNING id`,
    [itemId, closedGet, madeBy, at],
  );
  return made?.id;
}

/** Moves a letter from one of some states into another. `at`: when it began or ended, by the site's clock. @returns whether it was in one of them */
export async function setLetterState(
  db: Db,
  id: string,
  from: LetterState[],
  to: LetterState,
  at: Instant,
): Promise<boolean> {
  return (
    (await run(
      db,
      `UPDATE letters SET state = $3, version = version + 1, next_at = now(),
         begun_at = CASE WHEN $3 = 'sending' THEN coalesce(begun_at, $4) ELSE begun_at END,
         done_at = CASE WHEN $3 IN ('sent', 'stopped') THEN $4::timestamptz END
       WHERE id = $1 AND state = ANY ($2)`,
      [id, from, to, at],
    )) === 1
  );
}

/** The letter of which some may be written now: the first that was begun, so that all together keep to the rate. A post waits until it is out. */
export async function findLetterToWrite(db: Db, at: Instant): Promise<Letter | undefined> {
  const found = await maybeOne<Letter & { isTime: boolean }>(
    db,
    `SELECT ${COLUMNS}, l.next_at <= now() AS is_time FROM letters l WHERE l.state = 'sending'
       AND (l.item_id IS NULL OR l.item_id IN (SELECT id FROM items WHERE trashed_at IS NULL AND published_at <= $1))
     ORDER BY l.begun_at, l.id LIMIT 1`,
    [at],
    PARSED,
  );
  return found?.isTime ? found : undefined;
}

/** Notes how far a letter has got, and when it may go on; `doneAt`: it was the last of it. */
export async function saveProgress(
  db: Transaction,
  id: string,
  far: Pick<Letter, 'afterMember' | 'membersDone' | 'afterAddress' | 'doneAt'> & {
    wrote: number;
    waitSeconds: number;
  },
): Promise<void> {
  await run(
    db,
    `UPDATE letters SET after_member = $2, members_done = $3, after_address = $4, written = written + $5,
       next_at = now() + make_interval(secs => $6), state = CASE WHEN $7::timestamptz IS NULL THEN state ELSE 'sent' END, done_at = $7 WHERE id = $1`,
    [id, far.afterMember, far.membersDone, far.afterAddress, far.wrote, far.waitSeconds, far.doneAt],
  );
}

/** How many mails of a letter wait, were sent, and could not be sent. */
export async function countMailsOf(
  db: Db,
  id: string,
): Promise<{ queued: number; sent: number; failed: number }> {
  const rows = await many<{ state: 'queued' | 'sent' | 'failed'; n: bigint }>(
    db,
    'SELECT state, count(*) AS n FROM mails WHERE letter_id = $1 GROUP BY state',
    [id],
  );
  const by = new Map(rows.map(({ state, n }) => [state, Number(n)]));
  return { queued: by.get('queued') ?? 0, sent: by.get('sent') ?? 0, failed: by.get('failed') ?? 0 };
}
