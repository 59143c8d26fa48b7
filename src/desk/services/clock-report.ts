import { siteNow } from '@/platform/clock';
import { nothing } from '@/platform/inputs';
import { done } from '@/platform/result';
import { currentSite } from '@/platform/site';
import { pool } from '@/platform/store/db';
import { findClockMove } from '@/platform/store/site';
import { staffUse } from '@/platform/use';
import { deskWordsOf } from '@/words/desk';
import { happenedBetween } from './lib/happened';

/** What happened since the rehearsal clock was last moved, a sentence each; null before it was moved at all. */
export const clockReport = staffUse('look')('clock-report', nothing, async () => {
  const [site, from] = [await currentSite(), await findClockMove(pool())];
  if (site.mode !== 'test' || !from) return done(null);
  const t = deskWordsOf(site);
  const lines = await happenedBetween(pool(), site, t, { from, to: siteNow(site), isBrief: true });
  return done({
    since: t('desk-frame.happened-since', { date: t.date(from) }),
    lines: lines.length > 0 ? lines : [t('desk-frame.nothing-fell-due')],
  });
});
