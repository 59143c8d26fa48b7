import { z } from 'zod';
import { deleteView, listViews, saveView } from '@/members/store/member-views';
import { nothing, uuid } from '@/platform/inputs';
import { done, missing, type Result } from '@/platform/result';
import { pool } from '@/platform/store/db';
import { staffUse } from '@/platform/use';
import { say } from '@/words/problems';

/** The filters of the members' list that the caller has saved. */
export const myMemberViews = staffUse('see members')('my-member-views', nothing, async ({ memberId }) =>
  done(memberId ? await listViews(pool(), memberId) : []),
);

const viewSchema = z.object({
  name: z.string().trim().min(1, say('view.no-name')).max(60),
  /** As it is in the address of the list. */
  query: z.string().max(2_000),
});

/** Saves a filter of the members' list under a name, for the caller alone. */
export const saveMemberView = staffUse('see members')(
  'save-member-view',
  viewSchema,
  async ({ memberId }, { name, query }): Promise<Result<null>> => {
    if (!memberId) return missing();
    const kept = new URLSearchParams(query);
    // A view begins at its first page.
    for (const place of ['after', 'before']) kept.delete(place);
    await saveView(pool(), memberId, { name, query: kept.toString() });
    return done(null);
  },
);

export const deleteMemberView = staffUse('see members')(
  'delete-member-view',
  uuid,
  async ({ memberId }, id): Promise<Result<null>> =>
    memberId && (await deleteView(pool(), memberId, id)) ? done(null) : missing(),
);
