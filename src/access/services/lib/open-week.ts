import { timesOf, type WeekTimes } from '@/core/access/open-week';
import type { Site } from '@/platform/store/site';
import { shelved } from '@/platform/shelf';
import { keptOffers, keptTiers } from '@/tiers/services/lib/kept';

/** When the site's open week is, past, present or to come; null where there is none, or its tier is gone. */
export const openWeekOf = ({ openWeek, zone }: Site): Promise<WeekTimes | null> =>
  shelved('open week', async () => {
    if (!openWeek || !(await keptTiers()).some(({ id }) => id === openWeek.tier)) return null;
    const paid = (await keptOffers()).some(({ tierId, isPaid }) => tierId === openWeek.tier && isPaid);
    return timesOf(openWeek, paid, zone);
  });
