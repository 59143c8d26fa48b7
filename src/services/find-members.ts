import type { Instant } from '@/core/calendar';
import { pool } from '@/store/db';
import { countMembers, listMembers, type MemberFilter, type MemberRow } from '@/store/members';
import { listTiers, type Tier } from '@/store/tiers';
import { siteNow } from './clock';
import { nextCharges } from './next-charges';
import { currentSite } from './site';

export const PAGE_SIZE = 50;
export type FoundMember = MemberRow & { next: { at: Instant; amount: number; currency: string } | null };

/** A page of the members that a filter leaves, with what each holds and is charged next. */
export async function findMembers(
  filter: MemberFilter,
  page: number,
): Promise<{ rows: FoundMember[]; count: number; tiers: Tier[]; zone: string }> {
  const site = await currentSite();
  const now = siteNow(site);
  const [rows, count, tiers] = await Promise.all([
    listMembers(pool(), site.mode, now, filter, PAGE_SIZE, (page - 1) * PAGE_SIZE),
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
  };
}
