import { z } from 'zod';
import type { Instant } from '@/core/instants';
import { allGateways } from '@/billing/gateways';
import { nextChargesOf } from '@/billing/services/lib/schedules';
import {
  countFacet,
  countMembers,
  estimateMembers,
  listMembers,
  MEMBER_SORTS,
  type Facet,
  type FacetName,
  type MemberFilter,
  type MemberRow,
} from '@/members/store/member-lists';
import { keptGroups } from '@/people/services/lib/kept';
import { siteNow } from '@/platform/clock';
import { done } from '@/platform/result';
import { currentSite } from '@/platform/site';
import { pool } from '@/platform/store/db';
import type { Site } from '@/platform/store/site';
import { staffUse } from '@/platform/use';
import { keptJoinFields, keptTiers } from '@/tiers/services/lib/kept';
import type { Tier } from '@/tiers/store/tiers';
import { placeOf, placeText } from './lib/list-place';
import { memberFilterOf, memberFilterSchema } from './lib/member-filter';

export type { Tier };

const PAGE_SIZE = 50;
/** Up to so many are counted one by one. */
const COUNTED = 10_000;

export type FoundMember = MemberRow & { next: { at: Instant; amount: number; currency: string } | null };
/** How many there are; near: there are so many that they were not counted. */
export type Count = { count: number; isNear: boolean };

/** Where there are so many, all members and the holders of a tier are not counted: the planner knows well how many there are. */
const FULL = 10 * COUNTED;

async function count(site: Site, now: Instant, filter: MemberFilter): Promise<Count> {
  if (Object.keys(filter).every((key) => key === 'tier')) {
    const all = await estimateMembers(pool(), site.mode, now, filter);
    if (all > FULL) return { count: all, isNear: true };
  }
  const counted = await countMembers(pool(), site.mode, now, filter, COUNTED);
  if (counted <= COUNTED) return { count: counted, isNear: false };
  const near = await estimateMembers(pool(), site.mode, now, filter);
  return { count: Math.max(near, COUNTED), isNear: true };
}

const place = z.string().max(400).default('');

const inputSchema = memberFilterSchema.extend({
  sort: z.enum(MEMBER_SORTS).catch('joined').default('joined'),
  after: place,
  before: place,
});

/** A page of the members that a filter leaves, with what each holds and is charged next, and the pages beside it. */
export const findMembers = staffUse('see members')('find-members', inputSchema, async (_, asked) => {
  const site = await currentSite();
  const now = siteNow(site);
  const filter = memberFilterOf(asked, now, site.zone);
  const [after, before] = [placeOf(asked.after, asked.sort), placeOf(asked.before, asked.sort)];
  // One more than is shown tells whether there is another page.
  const [found, counted, tiers, groups] = await Promise.all([
    listMembers(pool(), site.mode, now, filter, { limit: PAGE_SIZE + 1, sort: asked.sort, after, before }),
    count(site, now, filter),
    keptTiers(),
    keptGroups(),
  ]);
  const isBack = before !== undefined && after === undefined;
  const hasMore = found.length > PAGE_SIZE;
  const rows = hasMore ? (isBack ? found.slice(1) : found.slice(0, PAGE_SIZE)) : found;
  const next = await nextChargesOf(
    site,
    rows.flatMap(({ subscription }) => subscription ?? []),
  );
  const [first, last] = [rows[0], rows.at(-1)];
  return done({
    rows: rows.map(({ subscription, ...row }): FoundMember => ({
      ...row,
      next: next.get(subscription?.id ?? '') ?? null,
    })),
    ...counted,
    now,
    tiers,
    groups,
    gateways: allGateways().map(({ id, name }) => ({ id, name })),
    fields: (await keptJoinFields()).map(({ id, label, options }) => ({ id, label, options })),
    previous: first && (after !== undefined || (isBack && hasMore)) ? placeText(first) : null,
    following: last && (isBack || hasMore) ? placeText(last) : null,
  });
});

export type Facets = Record<FacetName, Facet[]>;

/** How many of the members that a filter leaves hold each tier, are in each state and group, and pay by each gateway. */
export const memberFacets = staffUse('see members')('member-facets', memberFilterSchema, async (_, asked) => {
  const site = await currentSite();
  const now = siteNow(site);
  const filter = memberFilterOf(asked, now, site.zone);
  const of = (facet: FacetName) => countFacet(pool(), site.mode, now, filter, facet);
  const [tier, state, group, gateway] = await Promise.all([
    of('tier'),
    of('state'),
    of('group'),
    of('gateway'),
  ]);
  return done<Facets>({ tier, state, group, gateway });
});
