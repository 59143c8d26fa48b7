import { pool } from '@/platform/store/db';
import { listItems } from '@/content/store/items';
import { listRules } from '@/access/store/rules';
import { listTiers } from '@/tiers/store/tiers';
import { siteNow } from '@/platform/clock';
import { currentSite } from '@/platform/site';
import { staffUse } from '@/platform/use';
import { search } from '@/platform/inputs';
import { done } from '@/platform/result';
import { listMembers } from '@/members/store/member-lists';

export type Hit = { path: string; title: string; kind: string };

const PLACES: Hit[] = [
  { path: '/desk', title: 'Today', kind: 'place' },
  { path: '/desk/content', title: 'Content', kind: 'place' },
  { path: '/desk/access', title: 'Access', kind: 'place' },
  { path: '/desk/tiers', title: 'Tiers', kind: 'place' },
  { path: '/desk/members', title: 'Members', kind: 'place' },
  { path: '/desk/money', title: 'Money: subscriptions', kind: 'place' },
  { path: '/desk/money/payments', title: 'Money: payments', kind: 'place' },
  { path: '/desk/money/gateways', title: 'Money: gateways', kind: 'place' },
];

/** Up to a dozen things of the Desk whose name holds what was typed. */
async function find(query: string): Promise<Hit[]> {
  const typed = query.trim().toLowerCase().slice(0, 100);
  if (!typed) return PLACES;
  const site = await currentSite();
  const [items, tiers, rules, members] = await Promise.all([
    listItems(pool()),
    listTiers(pool()),
    listRules(pool()),
    listMembers(pool(), site.mode, siteNow(site), { search: typed }, { limit: 6 }),
  ]);
  const named: Hit[] = [
    ...PLACES,
    ...tiers.map((tier) => ({ path: `/desk/tiers/${tier.id}`, title: tier.name, kind: 'tier' })),
    ...items.map((item) => ({ path: `/desk/content/${item.id}`, title: item.title, kind: item.type })),
    ...rules.map((rule) => ({ path: `/desk/access/${rule.id}`, title: rule.name, kind: 'rule' })),
  ].filter((hit) => hit.title.toLowerCase().includes(typed));
  return [
    ...named,
    ...members.map((m) => ({ path: `/desk/members/${m.id}`, title: m.name || m.email, kind: 'member' })),
  ].slice(0, 12);
}

export const findAnything = staffUse('look')('find-anything', search, async (_, typed) =>
  done(await find(typed)),
);
