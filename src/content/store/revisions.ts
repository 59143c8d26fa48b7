import { articleSchema, type Prose } from '@/core/content/prose';
import type { Instant } from '@/core/instants';
import type { MemberId } from '@/core/ids';
import { many, maybeOne, run, type Db } from '@/platform/store/db';

/** What an item said at one of its versions. */
export type Revision = {
  version: number;
  savedAt: Instant;
  savedBy: MemberId | null;
  title: string;
  summary: string;
  body: Prose;
  author: string;
};

/** Writes down what an item says now. Called in the transaction that changed it. */
export async function addRevision(db: Db, itemId: string, by: MemberId | null, at: Instant): Promise<void> {
  await run(
    db,
    `INSERT INTO item_revisions (item_id, version, saved_at, saved_by, title, summary, body, author)
     SELECT id, version, $3, $2, title, summary, body, author FROM items WHERE id = $1`,
    [itemId, by, at],
  );
}

/** The versions of an item, newest first, without their texts. */
export async function listRevisions(db: Db, itemId: string): Promise<Omit<Revision, 'body'>[]> {
  return many(
    db,
    `SELECT version, saved_at, saved_by, title, summary, author FROM item_revisions WHERE item_id = $1 ORDER BY version DESC LIMIT 200`,
    [itemId],
  );
}

export async function findRevision(db: Db, itemId: string, version: number): Promise<Revision | undefined> {
  return maybeOne(
    db,
    `SELECT version, saved_at, saved_by, title, summary, body, author FROM item_revisions WHERE item_id = $1 AND version = $2`,
    [itemId, version],
    { body: articleSchema },
  );
}
