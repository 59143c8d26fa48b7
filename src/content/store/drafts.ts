import { articleSchema, type Prose } from '@/core/content/prose';
import type { Instant } from '@/core/instants';
import type { MemberId } from '@/core/ids';
import { many, maybeOne, run, type Db } from '@/platform/store/db';

/** What one person is writing and has not saved. `baseVersion`: of the item when they began; null for a new one. */
export type Draft = {
  baseVersion: number | null;
  title: string;
  summary: string;
  body: Prose;
  savedAt: Instant;
};

/** The drafts of one item, of all who write on it. `key`: its id, or "new:" and a kind. */
export async function listDrafts(db: Db, key: string): Promise<{ memberId: MemberId; savedAt: Instant }[]> {
  return many(db, 'SELECT member_id, saved_at FROM item_drafts WHERE item_key = $1 ORDER BY saved_at DESC', [
    key,
  ]);
}

export async function findDraft(db: Db, memberId: MemberId, key: string): Promise<Draft | undefined> {
  return maybeOne(
    db,
    'SELECT base_version, title, summary, body, saved_at FROM item_drafts WHERE member_id = $1 AND item_key = $2',
    [memberId, key],
    { body: articleSchema },
  );
}

export async function saveDraft(db: Db, memberId: MemberId, key: string, draft: Draft): Promise<void> {
  await run(
    db,
    `INSERT INTO item_drafts (member_id, item_key, base_version, title, summary, body, saved_at) VALUES ($1, $2, $3, $4, $5, $6, $7)
     ON CONFLICT (member_id, item_key) DO UPDATE SET base_version = $3, title = $4, summary = $5, body = $6, saved_at = $7`,
    [memberId, key, draft.baseVersion, draft.title, draft.summary, draft.body, draft.savedAt],
  );
}

export async function deleteDraft(db: Db, memberId: MemberId, key: string): Promise<void> {
  await run(db, 'DELETE FROM item_drafts WHERE member_id = $1 AND item_key = $2', [memberId, key]);
}
