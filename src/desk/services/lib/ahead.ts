import { addLength, localDate, startOfDate } from '@/core/calendar';
import { daysFrom, sumByDay, type DaySum } from '@/core/days';
import { listSubscriptions } from '@/desk/store/subscription-lists';
import { nextCharges } from '@/billing/services/lib/schedules';
import { siteNow } from '@/platform/clock';
import { pool } from '@/platform/store/db';
import type { Site } from '@/platform/store/site';
import { EVERY } from './money-lists';

export const AHEAD_DAYS = 14;
/** More charges than these are not worked out one by one while the page waits. */
const MOST = 5_000;

/** What is charged on each of the next days, today first; null where that is too much to be worked out at once. */
export async function chargesAhead(site: Site): Promise<DaySum[] | null> {
  const now = siteNow(site);
  const days = daysFrom(localDate(now, site.zone), AHEAD_DAYS, site.zone);
  const end = addLength(
    startOfDate(days[0] ?? localDate(now, site.zone), site.zone),
    { n: AHEAD_DAYS, unit: 'day' },
    site.zone,
  );
  const filter = { ...EVERY, sort: 'due' as const, dueBefore: end, limit: MOST };
  const { rows, total } = await listSubscriptions(pool(), site.mode, filter);
  if (total > MOST) return null;
  const next = await nextCharges(
    site,
    rows.map(({ id }) => id),
  );
  return sumByDay([...next.values()], days, site.zone);
}
