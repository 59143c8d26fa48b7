import { pool } from '@/platform/store/db';
import { listForDesk } from '@/content/store/item-lists';
import { listRules } from '@/access/store/rules';
import { listTiers } from '@/tiers/store/tiers';
import { siteNow } from '@/platform/clock';
import { may, type Right } from '@/core/staff';
import { unknownItems } from '@/access/services/lib/desk-items';
import type { Actor } from '@/platform/actor';
import { currentSite, powersOf } from '@/platform/site';
import { staffUse } from '@/platform/use';
import { search } from '@/platform/inputs';
import { done } from '@/platform/result';
import { desk } from '@/words/desk';
import { listMembers } from '@/members/store/member-lists';

export type Hit = { path: string; title: string; kind: string };

const screen = desk('desk-frame.kind-screen');
const SCREENS: Hit[] = [
  { path: '/desk', title: desk('desk-frame.today'), kind: screen },
  { path: '/desk/content', title: desk('desk.content'), kind: screen },
  { path: '/desk/access', title: desk('desk.access'), kind: screen },
  { path: '/desk/access?view=rulebook', title: desk('desk-access.rulebook'), kind: screen },
  { path: '/desk/tiers', title: desk('desk.tiers'), kind: screen },
  { path: '/desk/members', title: desk('desk.members'), kind: screen },
  { path: '/desk/money', title: desk('desk-money.subscriptions-money'), kind: screen },
  { path: '/desk/money/payments', title: desk('desk-money.payments-money'), kind: screen },
  { path: '/desk/money/due', title: desk('desk-money.upcoming-charges-money'), kind: screen },
  { path: '/desk/money/failed', title: desk('desk-money.failed-payments-money'), kind: screen },
  { path: '/desk/money/transfers', title: desk('desk-money.bank-transfers-money'), kind: screen },
  { path: '/desk/money/books', title: desk('desk-money.books-money'), kind: screen },
  { path: '/desk/money/gateways', title: desk('desk-money.gateways-money'), kind: screen },
  { path: '/desk/money/messages', title: desk('desk-money.messages-money'), kind: screen },
  { path: '/desk/tiers/links', title: desk('desk-tiers.join-links-tiers'), kind: screen },
  { path: '/desk/tiers/questions', title: desk('desk-tiers.join-questions-tiers'), kind: screen },
  { path: '/desk/tiers/unfinished', title: desk('desk-tiers.unfinished-checkouts-tiers'), kind: screen },
  { path: '/desk/settings', title: desk('desk-settings.general-settings'), kind: screen },
  { path: '/desk/settings/transfer', title: desk('desk-settings.transfer-settings'), kind: screen },
  { path: '/desk/settings/theme', title: desk('desk-settings.theme-settings'), kind: screen },
  { path: '/desk/content/menu', title: desk('desk-content.menu-title'), kind: screen },
  { path: '/desk/content/categories', title: desk('desk-content.categories-title'), kind: screen },
  { path: '/desk/content/tags', title: desk('desk-content.tags-title'), kind: screen },
  { path: '/desk/content/kinds', title: desk('desk-content.kinds-title'), kind: screen },
  { path: '/desk/content/calendar', title: desk('desk-content.calendar-title'), kind: screen },
  { path: '/desk/content/trash', title: desk('desk-content.trash-title'), kind: screen },
  { path: '/desk/settings/words', title: desk('desk-settings.wording-settings'), kind: screen },
  { path: '/desk/settings/tax', title: desk('desk-settings.tax-and-invoices-settings'), kind: screen },
  { path: '/desk/settings/dunning', title: desk('desk-settings.failed-payments-settings'), kind: screen },
  { path: '/desk/settings/mail', title: desk('desk-settings.mail-settings'), kind: screen },
  { path: '/desk/settings/mail/log', title: desk('desk-settings.sent-mail-settings'), kind: screen },
  { path: '/desk/settings/account', title: desk('desk-settings.account-settings'), kind: screen },
  { path: '/desk/settings/staff', title: desk('desk-settings.staff-settings'), kind: screen },
  { path: '/desk/settings/webhooks', title: desk('desk-settings.webhooks-settings'), kind: screen },
  { path: '/desk/settings/live', title: desk('desk-settings.going-live-settings'), kind: screen },
  { path: '/desk/notifications', title: desk('desk-settings.email-notifications'), kind: screen },
];

/** The right without which there is nothing to see at a place of the Desk; the first that begins its address counts. */
const RIGHT_FOR: [string, Right][] = [
  ['/desk/settings/mail/log', 'manage members'],
  ['/desk/settings/staff', 'set up the site'],
  ['/desk/settings/webhooks', 'set up the site'],
  ['/desk/settings/live', 'set up the site'],
  ['/desk/money', 'see money'],
  ['/desk/members', 'see members'],
  ['/desk/settings', 'change settings'],
];

/** What an item is, as the Desk names it; a kind without a name of its own is named by its type. */
const itemKind = (type: string): string =>
  type === 'page' ? desk('desk-frame.kind-page') : type === 'post' ? desk('desk-frame.kind-post') : type;

/** Up to a dozen things of the Desk whose name holds what was typed. */
async function find(actor: Actor, query: string): Promise<Hit[]> {
  const typed = query.trim().toLowerCase().slice(0, 100);
  const powers = await powersOf(actor);
  const screens = SCREENS.filter(({ path }) => {
    const right = RIGHT_FOR.find(([place]) => path.startsWith(place))?.[1];
    return right === undefined || may(powers, right);
  });
  if (!typed) return screens.slice(0, 12);
  const site = await currentSite();
  const now = siteNow(site);
  const [items, tiers, rules, members] = await Promise.all([
    listForDesk(pool(), now, { search: typed, without: await unknownItems(actor) }, { limit: 6, offset: 0 }),
    listTiers(pool()),
    listRules(pool()),
    may(powers, 'see members') ? listMembers(pool(), site.mode, now, { search: typed }, { limit: 6 }) : [],
  ]);
  const named: Hit[] = [
    ...screens,
    ...tiers.map((tier) => ({
      path: `/desk/tiers/${tier.id}`,
      title: tier.name,
      kind: desk('desk-frame.kind-tier'),
    })),
    ...rules.map((rule) => ({
      path: `/desk/access/${rule.id}`,
      title: rule.name,
      kind: desk('desk-frame.kind-rule'),
    })),
  ].filter((hit) => hit.title.toLowerCase().includes(typed));
  return [
    ...named,
    ...items.map((item) => ({
      path: `/desk/content/items/${item.id}`,
      title: item.title,
      kind: itemKind(item.type),
    })),
    ...members.map((m) => ({
      path: `/desk/members/${m.id}`,
      title: m.name || m.email,
      kind: desk('desk-frame.kind-member'),
    })),
  ].slice(0, 12);
}

export const findAnything = staffUse('look')('find-anything', search, async (actor, typed) =>
  done(await find(actor, typed)),
);
