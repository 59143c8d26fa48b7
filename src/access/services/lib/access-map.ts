import { decide, type Decision, type Question } from '@/core/access/decide';
import { VISITOR, type PersonFacts } from '@/core/access/facts';
import { pool } from '@/platform/store/db';
import { listCategories, listItems, type Category, type ItemHead } from '@/content/store/items';
import { listRules, type StoredRule } from '@/access/store/rules';
import { listOffers } from '@/tiers/store/offers';
import { listTiers, type Tier } from '@/tiers/store/tiers';
import { siteNow } from '@/platform/clock';
import { currentSite } from '@/platform/site';
import type { ItemId } from '@/core/ids';
import { desk } from '@/words/desk';

export type Viewpoint = { id: string; name: string; tier: Tier | null; person: PersonFacts };
export type MapRow = { item: ItemHead; decisions: Decision[] };
export type AccessMap = {
  zone: string;
  viewpoints: Viewpoint[];
  rows: MapRow[];
  rules: StoredRule[];
  categories: Category[];
  tiers: Tier[];
};

/** Who sees what: every published item as a visitor, as a member without a tier, and as a new holder of each tier. */
export async function readAccessMap(): Promise<AccessMap> {
  const site = await currentSite();
  const now = siteNow(site);
  const [items, rules, tiers, offers, categories] = await Promise.all([
    listItems(pool()),
    listRules(pool()),
    listTiers(pool()),
    listOffers(pool()),
    listCategories(pool()),
  ]);
  const signedIn: PersonFacts = { ...VISITOR, signedIn: true, joinedAt: now };
  const viewpoints: Viewpoint[] = [
    { id: 'visitor', name: desk('desk-access.visitor'), tier: null, person: VISITOR },
    { id: 'signed-in', name: desk('desk-access.signed-in'), tier: null, person: signedIn },
    ...tiers.map((tier) => {
      const paid = offers.some((offer) => offer.tierId === tier.id && offer.isPaid);
      return {
        id: tier.id,
        name: tier.name,
        tier,
        person: { ...signedIn, tiers: [{ tier: tier.id, since: now, paid }] },
      };
    }),
  ];
  const shared: Omit<Question, 'item' | 'person'> = {
    now,
    zone: site.zone,
    default: site.accessDefault,
    rules,
  };
  const rows = items
    .filter((item) => item.publishedAt !== null)
    .map((item) => ({
      item,
      decisions: viewpoints.map(({ person }) => decide({ ...shared, item, person })),
    }));
  return { zone: site.zone, viewpoints, rows, rules, categories, tiers };
}

/** How many published items turn a visitor away. */
export function closedToVisitors(map: AccessMap): number {
  return map.rows.filter((row) => row.decisions[0]?.state !== 'open').length;
}

export type Openers = { to: 'everyone' } | { to: 'signed-in' } | { to: 'tiers'; tiers: Tier[] };

/** Who is let in at a published item: everyone, all members, or new holders of some tiers. Null: not published. */
export function openersOf(map: AccessMap, itemId: ItemId): Openers | null {
  const row = map.rows.find((candidate) => candidate.item.id === itemId);
  if (!row) return null;
  const isOpen = map.viewpoints.map((_, index) => row.decisions[index]?.state === 'open');
  if (isOpen[0]) return { to: 'everyone' };
  if (isOpen[1]) return { to: 'signed-in' };
  return {
    to: 'tiers',
    tiers: map.viewpoints.flatMap(({ tier }, index) => (tier && isOpen[index] ? [tier] : [])),
  };
}
