import { randomUUID } from 'node:crypto';
import { holdersComing } from '@/billing/store/group-sources';
import { listBatches } from '@/tiers/store/codes';
import { listJoinFields } from '@/tiers/store/join-fields';
import { listOffers } from '@/tiers/store/offers';
import { listTiers } from '@/tiers/store/tiers';
import { z } from 'zod';
import { slugify } from '@/core/content/slug';
import { listRules } from '@/access/store/rules';
import { itemsWithSectionsFor } from '@/content/store/items';
import { siteNow } from '@/platform/clock';
import { idIfKnown } from '@/platform/form-fields';
import { freeId } from '@/platform/free-id';
import { nothing, slug, uuid } from '@/platform/inputs';
import { record } from '@/platform/record';
import { done, missing, refusedField, type Result } from '@/platform/result';
import { currentSite } from '@/platform/site';
import { lock, pool, transaction } from '@/platform/store/db';
import { staffUse } from '@/platform/use';
import { findMember } from '@/people/store/members';
import {
  addToGroup,
  deleteGroup as remove,
  findGroup,
  findMembersByEmails,
  listGroupMembers,
  listGroups,
  listGroupsOf,
  listGroupsWithCounts,
  removeFromGroup,
  saveGroup as store,
  comeIntoGroups,
  deleteGroupSource,
  listGroupSources,
  saveGroupSource,
  type GroupSource,
} from '@/people/store/groups';
import { say } from '@/words/problems';

const PAGE_SIZE = 100;

/** All groups, with how many members are in each and which access rules ask for it. */
export const groupsPlace = staffUse('see members')('groups-place', nothing, async () => {
  const [groups, rules] = [await listGroupsWithCounts(pool()), await listRules(pool())];
  return done(
    groups.map((group) => ({
      ...group,
      rules: rules
        .filter(({ openTo }) => openTo.some(({ who }) => who.kind === 'group' && who.id === group.id))
        .map(({ id, name }) => ({ id, name })),
    })),
  );
});

/** A group with a page of its members. */
export const groupPage = staffUse('see members')(
  'group-page',
  z.object({ id: slug, page: z.number().int().min(1).max(100_000).default(1) }),
  async (_, { id, page }) => {
    const group = (await listGroupsWithCounts(pool())).find((one) => one.id === id);
    if (!group) return missing();
    const within = { limit: PAGE_SIZE, offset: (page - 1) * PAGE_SIZE };
    return done({
      group,
      members: await listGroupMembers(pool(), id, within),
      pages: Math.max(1, Math.ceil(group.members / PAGE_SIZE)),
    });
  },
);

/** Makes a group, or renames it. The answer is its id. */
export const saveGroup = staffUse('manage members')(
  'save-group',
  z.object({ id: idIfKnown, name: z.string().trim().min(1, say('group.missing')).max(60) }),
  async (actor, { id: asked, name }): Promise<Result<{ id: string }>> => {
    const at = siteNow(await currentSite());
    return transaction(async (db) => {
      await lock(db, 'groups');
      const groups = await listGroups(db);
      const known = groups.find(({ id }) => id === asked);
      if (asked && !known) return refusedField('', 'group.gone');
      if (groups.some((one) => one.name.toLowerCase() === name.toLowerCase() && one.id !== known?.id))
        return refusedField('name', 'group.taken');
      const id = known?.id ?? freeId(slugify(name), new Set(groups.map((one) => one.id)));
      await store(db, { id, name });
      await record(db, actor, at, known ? 'group renamed' : 'group made', `group:${id}`, {
        name,
        ...(known && { before: known.name }),
      });
      return done({ id });
    });
  },
);

/** Deletes a group, but not its members; refused while a rule or a section opens something to it. */
export const deleteGroup = staffUse('manage members')(
  'delete-group',
  slug,
  async (actor, id): Promise<Result<null>> => {
    const at = siteNow(await currentSite());
    return transaction(async (db) => {
      // In the order in which a rule that names the group is saved.
      await lock(db, 'rules');
      await lock(db, 'groups');
      const asks = (await listRules(db)).find(({ openTo }) =>
        openTo.some(({ who }) => who.kind === 'group' && who.id === id),
      );
      if (asks) return refusedField('', 'group.in-rule', { rule: asks.name });
      const [used] = await itemsWithSectionsFor(db, { kind: 'group', id });
      if (used) return refusedField('', 'group.in-section', { title: used.title });
      const group = await findGroup(db, id);
      if (!group || !(await remove(db, id))) return refusedField('', 'group.gone');
      await record(db, actor, at, 'group deleted', `group:${id}`, { name: group.name });
      return done(null);
    });
  },
);

/** At once; more come in several times. */
const MOST = 20_000;
const ADDRESS = /[^\s,;"'<>()]+@[^\s,;"'<>()]+/g;

export type GroupReport = { added: number; already: number; unknown: string[] };

/**
 * Puts members into a group by their addresses: one to a line, or a CSV file in which they are somewhere in each line. The
 * answer says how many were put in, and which addresses belong to no member.
 */
export const addMembersToGroup = staffUse('manage members')(
  'add-members-to-group',
  z.object({ id: slug, addresses: z.string().trim().min(1, say('group.no-addresses')).max(900_000) }),
  async (actor, { id, addresses }): Promise<Result<GroupReport>> => {
    const emails = [...new Set((addresses.match(ADDRESS) ?? []).map((one) => one.toLowerCase()))];
    if (emails.length === 0) return refusedField('addresses', 'group.no-addresses');
    if (emails.length > MOST) return refusedField('addresses', 'group.too-many', { most: MOST });
    const at = siteNow(await currentSite());
    return transaction(async (db) => {
      if (!(await findGroup(db, id))) return refusedField('', 'group.gone');
      const members = await findMembersByEmails(db, emails);
      const ids = members.map((member) => member.id);
      const added = await addToGroup(db, id, ids, at);
      for (const memberId of added)
        await record(db, actor, at, 'put in a group', `member:${memberId}`, { group: id });
      const known = new Set(members.map(({ email }) => email.toLowerCase()));
      return done({
        added: added.length,
        already: members.length - added.length,
        unknown: emails.filter((email) => !known.has(email)),
      });
    });
  },
);

const membershipSchema = z.object({ groupId: slug, memberId: uuid });

/** Puts one member into a group. */
export const addMemberToGroup = staffUse('manage members')(
  'add-member-to-group',
  membershipSchema,
  async (actor, { groupId, memberId }): Promise<Result<null>> => {
    const at = siteNow(await currentSite());
    return transaction(async (db) => {
      if (!(await findGroup(db, groupId))) return refusedField('', 'group.gone');
      if (!(await findMember(db, memberId))) return refusedField('', 'member.gone');
      const added = await addToGroup(db, groupId, [memberId], at);
      if (added.length > 0)
        await record(db, actor, at, 'put in a group', `member:${memberId}`, { group: groupId });
      return done(null);
    });
  },
);

/** Takes one member out of a group. */
export const removeMemberFromGroup = staffUse('manage members')(
  'remove-member-from-group',
  membershipSchema,
  async (actor, { groupId, memberId }): Promise<Result<null>> => {
    const at = siteNow(await currentSite());
    return transaction(async (db) => {
      if (!(await removeFromGroup(db, groupId, memberId))) return refusedField('', 'group.not-in');
      await record(db, actor, at, 'taken out of a group', `member:${memberId}`, { group: groupId });
      return done(null);
    });
  },
);

/** The groups that a member is in, and the others. */
export const groupsOfMember = staffUse('see members')('groups-of-member', uuid, async (_, memberId) => {
  const [all, theirs] = [await listGroups(pool()), await listGroupsOf(pool(), memberId)];
  const isTheirs = new Set(theirs.map(({ id }) => id));
  return done({ theirs, others: all.filter(({ id }) => !isTheirs.has(id)) });
});

/** What can bring members into groups by themselves. */
const choices = async (): Promise<
  { kind: GroupSource['kind']; source: string; value: string; name: string }[]
> => [
  ...(await listTiers(pool())).map(({ id, name }) => ({
    kind: 'tier' as const,
    source: id,
    value: '',
    name,
  })),
  ...(await listOffers(pool())).map(({ id, name }) => ({
    kind: 'offer' as const,
    source: id,
    value: '',
    name,
  })),
  ...(await listBatches(pool())).map(({ id, name }) => ({
    kind: 'code' as const,
    source: id,
    value: '',
    name,
  })),
  ...(await listJoinFields(pool())).flatMap((field) =>
    field.options.map((value) => ({
      kind: 'answer' as const,
      source: field.id,
      value,
      name: `${field.label}: ${value}`,
    })),
  ),
];

/** What brings members into a group by themselves, and what could. */
export const groupSources = staffUse('see members')('group-sources', slug, async (_, groupId) => {
  const all = await choices();
  return done({
    choices: all,
    sources: (await listGroupSources(pool(), groupId)).map((one) => ({
      ...one,
      name: all.find(
        ({ kind, source, value }) => kind === one.kind && source === one.source && value === one.value,
      )?.name,
    })),
  });
});

const sourceSchema = z.object({
  groupId: slug,
  kind: z.enum(['tier', 'offer', 'code', 'answer']),
  source: z.string().min(1).max(200),
  value: z.string().max(80).default(''),
  takesOut: z.boolean(),
});

/** Has a tier, an offer, a code or an answer put members into a group; who holds the tier already is put in at once. */
export const addGroupSource = staffUse('manage members')(
  'add-group-source',
  sourceSchema,
  async (actor, input): Promise<Result<{ added: number }>> => {
    const isThere = (await choices()).some(
      ({ kind, source, value }) => kind === input.kind && source === input.source && value === input.value,
    );
    if (!isThere) return refusedField('source', 'group.no-source');
    return transaction(async (db): Promise<Result<{ added: number }>> => {
      const site = await currentSite(db);
      const at = siteNow(site);
      if (!(await findGroup(db, input.groupId))) return refusedField('', 'group.gone');
      await saveGroupSource(db, { id: randomUUID(), ...input });
      await record(db, actor, at, 'group filled by itself', `group:${input.groupId}`, input);
      if (input.kind !== 'tier') return done({ added: 0 });
      const coming = await comeIntoGroups(db, await holdersComing(db, input, site.mode, at), at);
      for (const { memberId } of coming)
        await record(db, actor, at, 'came into a group', `member:${memberId}`, { group: input.groupId });
      return done({ added: coming.length });
    });
  },
);

/** What brought members in brings no more; those who are in the group stay. */
export const removeGroupSource = staffUse('manage members')(
  'remove-group-source',
  z.object({ groupId: slug, id: uuid }),
  async (actor, { groupId, id }): Promise<Result<null>> =>
    transaction(async (db): Promise<Result<null>> => {
      const gone = await deleteGroupSource(db, groupId, id);
      if (!gone) return missing();
      const at = siteNow(await currentSite(db));
      await record(db, actor, at, 'group no longer filled by itself', `group:${groupId}`, gone);
      return done(null);
    }),
);
