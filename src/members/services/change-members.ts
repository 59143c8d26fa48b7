import { z } from 'zod';
import { giftTermSchema } from '@/core/billing/gift-term';
import { countMembers, listMemberIds, type MemberFilter } from '@/members/store/member-lists';
import type { Actor } from '@/platform/actor';
import { siteNow } from '@/platform/clock';
import { slug, uuid } from '@/platform/inputs';
import { done, type Problems, type Result } from '@/platform/result';
import { currentSite } from '@/platform/site';
import { pool } from '@/platform/store/db';
import { staffUse } from '@/platform/use';
import { giveTier } from './gifts';
import { addMemberToGroup, removeMemberFromGroup } from './groups';
import { memberFilterOf, memberFilterSchema, MOST_TICKED } from './lib/member-filter';
import { removeMember } from './remove-member';

/** Members whom one call changes; the next begins after them. */
const AT_ONCE = 40;

/** Those who are ticked, or all whom a filter leaves. */
const whomSchema = z.discriminatedUnion('by', [
  z.object({ by: z.literal('ids'), ids: z.array(uuid).min(1).max(MOST_TICKED) }),
  z.object({ by: z.literal('filter'), filter: memberFilterSchema }),
]);
type Whom = z.output<typeof whomSchema>;

const deedSchema = z.discriminatedUnion('do', [
  z.object({ do: z.literal('put-in-group'), groupId: slug }),
  z.object({ do: z.literal('take-out-of-group'), groupId: slug }),
  z.object({ do: z.literal('give'), tierId: slug, term: giftTermSchema, isTold: z.boolean() }),
  z.object({ do: z.literal('remove') }),
]);
type Deed = z.output<typeof deedSchema>;

async function filterOf(
  whom: Whom,
): Promise<{ mode: string; now: ReturnType<typeof siteNow>; filter: MemberFilter }> {
  const site = await currentSite();
  const now = siteNow(site);
  const filter = whom.by === 'ids' ? { ids: whom.ids } : memberFilterOf(whom.filter, now, site.zone);
  return { mode: site.mode, now, filter };
}

const MOST = 2_000_000;

/** How many members a change of several would meet; counted one by one. */
export const countForChange = staffUse('manage members')('count-for-change', whomSchema, async (_, whom) => {
  const { mode, now, filter } = await filterOf(whom);
  return done({ count: await countMembers(pool(), mode, now, filter, MOST) });
});

const changeSchema = z.object({
  whom: whomSchema,
  deed: deedSchema,
  /** The last member of the call before. */
  after: uuid.nullable(),
});

export type Changed = {
  changed: number;
  refused: { id: string; problems: Problems }[];
  /** After whom the next call begins; null: everyone was met. */
  next: string | null;
};

/** Does one thing to several members, some at a time; each is decided for itself, and a refusal does not stop the others. */
export const changeMembers = staffUse('manage members')(
  'change-members',
  changeSchema,
  async (actor, { whom, deed, after }): Promise<Result<Changed>> => {
    const { mode, now, filter } = await filterOf(whom);
    const ids = await listMemberIds(pool(), mode, now, filter, { limit: AT_ONCE, after });
    const answer: Changed = {
      changed: 0,
      refused: [],
      next: ids.length === AT_ONCE ? (ids.at(-1) ?? null) : null,
    };
    for (const id of ids) {
      const result = await change(actor, id, deed);
      if (result.ok) answer.changed++;
      else answer.refused.push({ id, problems: result.problems });
    }
    return done(answer);
  },
);

async function change(actor: Actor, memberId: string, deed: Deed): Promise<Result<unknown>> {
  switch (deed.do) {
    case 'put-in-group':
      return addMemberToGroup(actor, { memberId, groupId: deed.groupId });
    case 'take-out-of-group':
      return removeMemberFromGroup(actor, { memberId, groupId: deed.groupId });
    case 'give':
      return giveTier(actor, { memberId, tierId: deed.tierId, term: deed.term, isTold: deed.isTold });
    case 'remove':
      return removeMember(actor, memberId);
  }
}
