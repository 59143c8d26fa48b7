import { toMs } from '@/core/instants';
import { siteNow } from '@/platform/clock';
import { nothing } from '@/platform/inputs';
import { shareUntil } from '@/platform/request';
import { done } from '@/platform/result';
import { currentSite } from '@/platform/site';
import { publicUse } from '@/platform/use';
import { nextChange } from './lib/next-change';

/**
 * Says that the page that is asked for is the same for every visitor, until something opens, closes or comes out. It says so
 * of nothing that a browser asks for which carries something of ours.
 */
export const shareWithVisitors = publicUse('share-with-visitors', nothing, async ({ memberId, browser }) => {
  const { session, device, code } = browser ?? {};
  if (memberId !== null || session || device || code) return done(null);
  const site = await currentSite();
  const now = siteNow(site);
  shareUntil(Date.now() + toMs(await nextChange(site, now)) - toMs(now));
  return done(null);
});
