import { z } from 'zod';
import { WRITES } from '@/core/staff';
import { articleSchema } from '@/core/content/prose';
import { deleteDraft, saveDraft as store } from '@/content/store/drafts';
import { siteNow } from '@/platform/clock';
import { done, type Result } from '@/platform/result';
import { currentSite } from '@/platform/site';
import { pool } from '@/platform/store/db';
import { staffUse } from '@/platform/use';
import type { Instant } from '@/core/instants';

/** An item by its id, or "new:" and the kind of one that is being begun. */
const key = z.string().min(1).max(220);

const draftSchema = z.object({
  key,
  baseVersion: z.number().int().nullable(),
  title: z.string().max(200),
  summary: z.string().max(400),
  body: articleSchema,
});

/** Saves what someone is writing, for them alone, until they save the item itself. The answer is when. */
export const saveDraft = staffUse(...WRITES)(
  'save-draft',
  draftSchema,
  async ({ memberId }, { key: itemKey, ...draft }): Promise<Result<{ savedAt: Instant }>> => {
    const savedAt = siteNow(await currentSite());
    if (memberId) await store(pool(), memberId, itemKey, { ...draft, savedAt });
    return done({ savedAt });
  },
);

/** Throws away what one has written and not saved. */
export const discardDraft = staffUse(...WRITES)(
  'discard-draft',
  key,
  async ({ memberId }, itemKey): Promise<Result<null>> => {
    if (memberId) await deleteDraft(pool(), memberId, itemKey);
    return done(null);
  },
);
