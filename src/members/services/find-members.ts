import type { Instant } from '@/core/instants';
import { pool } from '@/platform/store/db';
import { listTiers, type Tier } from '@/tiers/store/tiers';
import { siteNow } from '@/platform/clock';
import { nextCharges } from '@/billing/services/lib/schedules';
import { currentSite } from '@/platform/site';
import { z } from 'zod';
import { staffUse } from '@/platform/use';
import { search } from '@/platform/inputs';
import { done } from '@/platform/result';
import { countMembers, listMembers, type MemberRow, type MemberFilter } from '@/members/store/member-lists';

const PAGE_SIZE = 50;
export type FoundMember = MemberRow & { next: { at: Instant; amount: number; currency: string } | null };

/** A page of the members that a filter leaves, with what each holds and is charged next. */
async function find(
  filter: MemberFilter,
  page: number,
): Promise<{ rows: FoundMember[]; count: number; tiers: Tier[]; zone: string; perPage: number }> {
  const site = await currentSite();
  const now = siteNow(site);
  const [rows, count, tiers] = await Promise.all([
    listMembers(pool(), site.mode, now, filter, { limit: PAGE_SIZE, offset: (page - 1) * PAGE_SIZE }),
    countMembers(pool(), site.mode, now, filter),
    listTiers(pool()),
  ]);
  const next = await nextCharges(
    site,
    rows.flatMap((row) => row.subscriptionId ?? []),
  );
  return {
    rows: rows.map((row) => ({ ...row, next: next.get(row.subscriptionId ?? '') ?? null })),
    count,
    tiers,
    zone: site.zone,
    perPage: PAGE_SIZE,
  };
}

const inputSchema = z.object({
  search,
  tier: z.string().max(100).default(''),
  state: z.string().max(20).default(''),
  page: z.number().int().min(1).max(1_000_000).default(1),
});

export const findMembers = staffUse('look')('find-members', inputSchema, async (_, { page, ...filter }) =>
  done(await find(filter, page)),
);
