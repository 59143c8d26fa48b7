import { localDate, startOfDate } from '@/core/calendar';
import { daysFrom } from '@/core/days';
import { may } from '@/core/staff';
import { sumIncome } from '@/billing/store/payment-lists';
import { countWeek } from '@/desk/store/week';
import { countJoined } from '@/members/store/member-lists';
import { siteNow } from '@/platform/clock';
import { nothing } from '@/platform/inputs';
import { done } from '@/platform/result';
import { currentSite, powersOf } from '@/platform/site';
import { pool } from '@/platform/store/db';
import type { Site } from '@/platform/store/site';
import { staffUse } from '@/platform/use';
import { chargesAhead } from './lib/ahead';
import { checksThatRan } from './lib/checks';
import { incomeByDay } from './lib/income';
import { needsOf } from './lib/needs';
import { readTrail } from './lib/trail';

const WEEK = 7;

/** What the first page of the Desk shows; each figure is read from what really happened. Of money and members, what one may see. */
export const today = staffUse('look')('today', nothing, async (actor) => {
  const [site, powers] = [await currentSite(), await powersOf(actor)];
  const [seesMoney, seesMembers] = [may(powers, 'see money'), may(powers, 'see members')];
  return done({
    now: siteNow(site),
    zone: site.zone,
    currency: site.currency,
    isLive: site.mode === 'live',
    trail: site.mode === 'test' && may(powers, 'set up the site') ? await readTrail(site) : null,
    needs: await needsOf(actor, powers, site),
    week: await weekOf(site, { seesMoney, seesMembers }),
    income: seesMoney ? await incomeByDay(site) : null,
    ahead: seesMoney ? await chargesAhead(site) : null,
    seesMoney,
    checks: await checksThatRan(site),
  });
});

/** The last seven days, today with them, beside the seven before. */
async function weekOf(site: Site, { seesMoney, seesMembers }: { seesMoney: boolean; seesMembers: boolean }) {
  const now = siteNow(site);
  const today = localDate(now, site.zone);
  const earlier = daysFrom(today, 1 - 2 * WEEK, site.zone);
  const first = earlier[WEEK] ?? today;
  const [start, before] = [startOfDate(first, site.zone), startOfDate(earlier[0] ?? first, site.zone)];
  const { mode } = site;
  return {
    from: first,
    members: seesMembers
      ? {
          joined: await countJoined(pool(), mode, start, now),
          joinedBefore: await countJoined(pool(), mode, before, start),
          left: (await countWeek(pool(), mode, start, now)).left,
          leftBefore: (await countWeek(pool(), mode, before, start)).left,
        }
      : null,
    income: seesMoney
      ? {
          now: await sumIncome(pool(), mode, start, now),
          before: await sumIncome(pool(), mode, before, start),
        }
      : null,
  };
}
