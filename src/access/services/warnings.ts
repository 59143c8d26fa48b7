import { setImmediate } from 'node:timers/promises';
import { longestHolding } from '@/core/offers/offer';
import type { Length } from '@/core/instants';
import { warningsOf, type Warning } from '@/core/access/warnings';
import { listPublished } from '@/content/store/item-lists';
import { keptGroups } from '@/people/services/lib/kept';
import { keptPublished } from '@/content/services/lib/kept';
import { siteNow } from '@/platform/clock';
import { nothing } from '@/platform/inputs';
import { done } from '@/platform/result';
import { currentSite } from '@/platform/site';
import { pool } from '@/platform/store/db';
import { staffUse } from '@/platform/use';
import { keptOffers, keptTiers } from '@/tiers/services/lib/kept';
import type { StoredOffer } from '@/tiers/store/offers';
import { knownTitles } from './lib/desk-items';
import { keptRules } from './lib/kept-rules';

/** What about the rules is probably not as it was meant, with the names of all that it speaks of. */
export const accessWarnings = staffUse('look')('access-warnings', nothing, async (actor) => {
  const [{ rules }, tiers] = [await keptRules(), await keptTiers()];
  const warnings = await keptWarnings();
  const named = warnings.flatMap((warning) => ('items' in warning ? warning.items : []));
  const titles = named.length > 0 ? await knownTitles(actor, [...new Set(named)]) : [];
  const known = new Set(titles.map(({ id }) => id));
  return done({
    // What the staff member may not know of is not theirs to be warned about.
    warnings: warnings.flatMap((warning): Warning[] => {
      if (!('items' in warning)) return [warning];
      const items = warning.items.filter((id) => known.has(id));
      return items.length > 0 ? [{ ...warning, items }] : [];
    }),
    names: {
      rules: Object.fromEntries(rules.map(({ id, name }) => [id, name])),
      tiers: Object.fromEntries(tiers.map(({ id, name }) => [id, name])),
      items: Object.fromEntries(titles.map(({ id, name }) => [id, name])),
    },
  });
});

/** All warnings; worked out once an hour for each version of the site. */
async function keptWarnings(): Promise<readonly Warning[]> {
  const site = await currentSite();
  const now = siteNow(site);
  return keptPublished(`warnings ${now.slice(0, 13)}`, now, async () => {
    const [{ rules }, tiers, offers] = [await keptRules(), await keptTiers(), await keptOffers()];
    const items = await listPublished(pool(), now);
    await setImmediate();
    return warningsOf(rules, items, {
      now,
      zone: site.zone,
      default: site.accessDefault,
      tiers: tiers.map(({ id, retiredAt }) => {
        const own = offers.filter((offer) => offer.tierId === id && offer.onSale);
        return {
          id,
          paid: own.some(({ isPaid }) => isPaid),
          onSale: retiredAt === null && own.length > 0,
          longest: longest(own),
        };
      }),
      groups: (await keptGroups()).map(({ id }) => id),
    });
  });
}

/** Of several offers, the longest; null where one of them runs on. */
function longest(offers: StoredOffer[]): Length | null {
  const all = offers.map(({ definition }) => longestHolding(definition));
  if (all.length === 0) return null;
  return all.reduce((most, one) => (most === null || one === null ? null : one.n > most.n ? one : most));
}
