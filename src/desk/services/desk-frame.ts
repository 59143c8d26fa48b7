import { siteNow } from '@/platform/clock';
import { nothing } from '@/platform/inputs';
import { done } from '@/platform/result';
import { currentSite } from '@/platform/site';
import { pool } from '@/platform/store/db';
import { staffUse } from '@/platform/use';
import { countDue } from '@/billing/store/subscription-work';
import { nameOf } from '@/access/services/lib/access-map';
import { listViewpoints } from '@/access/services/lib/viewpoints';

/** The frame of every Desk page: the mode, the clock with the work it has passed, and the viewpoints. */
export const deskFrame = staffUse('look')('desk-frame', nothing, async () => {
  const site = await currentSite();
  const now = siteNow(site);
  return done({
    siteName: site.name,
    isTest: site.mode === 'test',
    hasTestData: site.mode === 'live' && site.testClearedAt === null,
    zone: site.zone,
    now,
    behind: site.mode === 'test' ? await countDue(pool(), now) : 0,
    viewpoints: (await listViewpoints(now)).map((one) => ({
      id: one.id,
      name: nameOf(one),
      keyCut: one.tier?.keyCut ?? null,
    })),
  });
});
