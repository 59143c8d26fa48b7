import { alikeName } from '@/core/access/alike';
import { toMs } from '@/core/instants';
import { siteNow } from '@/platform/clock';
import { nothing } from '@/platform/inputs';
import { hasAlike, shareUntil } from '@/platform/request';
import { done } from '@/platform/result';
import { currentSite } from '@/platform/site';
import { alikeUse } from '@/platform/use';
import { hasHeld } from './lib/doorstep-at';
import { nextChange } from './lib/next-change';
import { readerOf } from './lib/reader';

/**
 * Says that the page that is asked for is the same for every visitor, or for all members who are alike, until something opens,
 * closes or comes out. It says so of nothing that a visitor's browser asks for which carries something of ours.
 */
export const shareWithAlike = alikeUse('share-with-alike', nothing, async ({ memberId, browser }) => {
  const { session, device, code } = browser ?? {};
  const isShared = memberId === null ? !session && !device && !code : hasAlike(memberId);
  if (!isShared) return done(null);
  const site = await currentSite();
  const now = siteNow(site);
  shareUntil(Date.now() + toMs(await nextChange(site, now)) - toMs(now));
  return done(null);
});

/**
 * The name of all members who are shown the same as the one who asks; null where there are none. Those who held something before,
 * or have not paid for it, are met otherwise at what is closed to them.
 */
export const alikeNameOf = alikeUse('alike-name', nothing, async (actor) => {
  if (actor.memberId === null || actor.staffRole !== null || actor.look) return done(null);
  const reader = await readerOf(actor);
  const name = alikeName(reader.person, reader.rules);
  if (name === null) return done(null);
  const isNew = reader.person.tiers.length === 0 && !(await hasHeld(reader));
  return done(isNew ? `new ${name}` : name);
});
