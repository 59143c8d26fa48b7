import { z } from 'zod';
import { mayWrite, WRITES } from '@/core/staff';
import { COMMENT_STATES } from '@/core/content/comments';
import { countByCommentState, findComment, listComments, setCommentState } from '@/content/store/comments';
import { findHead, listItems } from '@/content/store/items';
import { findMember } from '@/people/store/members';
import type { Actor } from '@/platform/actor';
import { siteNow } from '@/platform/clock';
import { orNothing } from '@/platform/form-fields';
import { uuid } from '@/platform/inputs';
import { record } from '@/platform/record';
import { done, missing, type Result } from '@/platform/result';
import { currentSite, powersOf } from '@/platform/site';
import { pool, transaction } from '@/platform/store/db';
import { staffUse } from '@/platform/use';
import { readersOfThread, tellThread } from './lib/comment-notices';

const ROWS = 30;
const filterSchema = z.object({
  state: z.preprocess(orNothing, z.enum(COMMENT_STATES).default('waiting')),
  item: z.preprocess(orNothing, z.string().max(200).optional()),
  page: z.coerce.number().int().min(1).max(100_000).default(1),
});

/** Comments in one state, with how many there are in each: on items that the staff member may write. */
export const deskComments = staffUse(...WRITES)(
  'desk-comments',
  filterSchema,
  async (actor, { state, item, page }) => {
    const without = await foreignItems(actor);
    const slice = { limit: ROWS, offset: (page - 1) * ROWS };
    const found = await listComments(pool(), { state, without, ...(item && { itemId: item }), ...slice });
    const counts = await countByCommentState(pool(), without);
    return done({
      ...found,
      state,
      rowsOnPage: ROWS,
      counts: COMMENT_STATES.map((one) => ({ state: one, count: counts.get(one) ?? 0 })),
    });
  },
);

/** The ids of the items that a staff member may not write. */
async function foreignItems(actor: Actor): Promise<string[]> {
  const powers = await powersOf(actor);
  if (powers?.role === 'owner') return [];
  return (await listItems(pool())).flatMap((item) => (mayWrite(powers, item) ? [] : [item.id]));
}

const changeSchema = z.object({ ids: z.array(uuid).min(1).max(100), state: z.enum(['shown', 'removed']) });

/** Approves comments, or removes them. Those whose conversation a newly shown one continues are mailed. */
export const moderateComments = staffUse(...WRITES)(
  'moderate-comments',
  changeSchema,
  async (actor, { ids, state }): Promise<Result<{ count: number }>> => {
    const site = await currentSite();
    const at = siteNow(site);
    const foreign = new Set(await foreignItems(actor));
    for (const id of ids) {
      const comment = await findComment(pool(), id);
      if (comment && foreign.has(comment.itemId)) return missing();
    }
    const told: Awaited<ReturnType<typeof repliedIn>>[] = [];
    if (state === 'shown') for (const id of ids) told.push(await repliedIn(id));
    return transaction(async (db) => {
      const changed = await setCommentState(db, ids, state);
      for (const comment of changed) {
        const reply = told.find((one) => one?.comment.id === comment.id);
        if (reply) await tellThread(db, site, reply.readers, reply);
        const action = state === 'shown' ? 'comment approved' : 'comment removed';
        await record(db, actor, at, action, `comment:${comment.id}`, { item: comment.itemId });
      }
      return done({ count: changed.length });
    });
  },
);

/** What those in its conversation are told of a comment once it is shown; null where nobody is. */
async function repliedIn(id: string) {
  const comment = await findComment(pool(), id);
  const item = comment && (await findHead(pool(), comment.itemId));
  if (!item) return null;
  const readers = await readersOfThread(await currentSite(), comment);
  const by = comment.memberId ? ((await findMember(pool(), comment.memberId))?.name ?? '') : '';
  return { comment, item, readers, by };
}
