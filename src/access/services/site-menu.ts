import { decide } from '@/core/access/decide';
import type { PersonFacts } from '@/core/access/facts';
import { pool } from '@/platform/store/db';
import { listMenuItems } from '@/content/store/items';
import { listMenuOffers } from '@/tiers/store/offers';
import { listRules } from '@/access/store/rules';
import { siteNow } from '@/platform/clock';
import { currentSite } from '@/platform/site';
import { publicUse } from '@/platform/use';
import { nothing } from '@/platform/inputs';
import { done } from '@/platform/result';
import { viewerOf } from './lib/viewer';

/** A page of the menu, or an entry that leads to joining by an offer. */
export type MenuEntry = { path: string; title: string; isOpen: boolean };

/** The entries of the site's menu, each with whether it is open to the person. */
async function menuFor(person: PersonFacts): Promise<MenuEntry[]> {
  const site = await currentSite();
  const now = siteNow(site);
  const [items, rules] = [await listMenuItems(pool(), now), await listRules(pool())];
  const pages = items.map((item) => ({
    path: item.path,
    title: item.title,
    isOpen:
      decide({ now, zone: site.zone, default: site.accessDefault, rules, item, person }).state === 'open',
  }));
  const offers = (await listMenuOffers(pool())).map(({ id, menuLabel }) => ({
    path: `/join/${id}`,
    title: menuLabel,
    isOpen: true,
  }));
  return [...pages, ...offers];
}

export const siteMenu = publicUse('site-menu', nothing, async (actor) => {
  const { person } = await viewerOf(actor);
  return done(await menuFor(person));
});
