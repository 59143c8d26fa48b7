import { addLength, endOfDate, localDate } from '@/core/calendar';
import { datedOpenings, publishingWaits } from '@/core/access/next-change';
import { compare, earliest, fromMs, isBefore, toMs, type Instant } from '@/core/instants';
import { listPublishTimes } from '@/content/store/item-lists';
import { keptScheduled } from '@/content/services/lib/kept';
import type { Site } from '@/platform/store/site';
import { pool } from '@/platform/store/db';
import { shelved } from '@/platform/shelf';
import { keptRules } from './kept-rules';
import { openWeekOf } from './open-week';

const HOUR_MS = 3_600_000;

/**
 * Until when what visitors may see stays as it is, by the site's clock, while the version of the site is the same: until an item
 * comes out, something opens or closes so long after it was published, or a day of the site begins. Within the hour at the latest.
 */
export async function nextChange(site: Site, now: Instant): Promise<Instant> {
  const hour = Math.floor(toMs(now) / HOUR_MS) * HOUR_MS;
  const [begins, ends] = [fromMs(hour), fromMs(hour + HOUR_MS)];
  const edges = await shelved(`edges from ${begins}`, () => edgesBetween(site, begins, ends));
  const week = await openWeekOf(site);
  const all = [...edges, ...(week ? [week.from, week.to] : []), ...(await keptScheduled())].filter((at) =>
    isBefore(now, at),
  );
  return [endOfDate(localDate(now, site.zone), site.zone), ...all].reduce(earliest, ends);
}

async function edgesBetween(site: Site, from: Instant, to: Instant): Promise<Instant[]> {
  const { rules } = await keptRules();
  const edges = datedOpenings(rules, site.zone);
  for (const wait of publishingWaits(rules, from, to))
    for (const at of await listPublishTimes(pool(), wait.from, wait.to))
      edges.push(
        wait.lengths.reduce((from, { length, times }) => addLength(from, length, site.zone, times), at),
      );
  return edges.filter((at) => !isBefore(at, from) && !isBefore(to, at)).sort(compare);
}
