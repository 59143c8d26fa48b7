import { LEGAL_ROLES } from '@/core/content/page-roles';
import type { Trail } from '@/core/reports/today';
import { newestLeakCheck } from '@/access/store/leak-checks';
import { countClosedToVisitors } from '@/access/services/lib/access-map';
import { listGatewayAccounts } from '@/billing/store/gateways';
import { listHeads } from '@/content/store/items';
import { listMenuEntries } from '@/content/store/menus';
import { listPageRoles } from '@/content/store/page-roles';
import { findFirstPayment, findRenewal } from '@/desk/store/week';
import { lastSent } from '@/mail/store/mails';
import { pool } from '@/platform/store/db';
import type { Site } from '@/platform/store/site';
import { listOffers } from '@/tiers/store/offers';
import { listTiers } from '@/tiers/store/tiers';

/** Each step is read from what happened, never from what was ticked. */
export async function readTrail(site: Site): Promise<Trail> {
  const accounts = (await listGatewayAccounts(pool())).filter(
    ({ mode, atCheckout }) => mode === site.mode && atCheckout,
  );
  const gateway = accounts.find(({ heardAt }) => heardAt) ?? accounts[0];
  const [tiers, offers, menu] = [
    await listTiers(pool()),
    await listOffers(pool()),
    await listMenuEntries(pool()),
  ];
  const roles = await listPageRoles(pool());
  const joinPage = roles.find(({ role }) => role === 'join')?.itemId;
  const check = await newestLeakCheck(pool());
  const isComplete = check?.finishedAt != null;
  const legal = await listHeads(
    pool(),
    roles.filter(({ role }) => LEGAL_ROLES.some((one) => one === role)).map(({ itemId }) => itemId),
  );
  return {
    gateway: gateway ? { label: gateway.label, isHeard: gateway.heardAt !== null } : null,
    tiers: {
      onSale: tiers.filter(({ id }) => offers.some(({ tierId, onSale }) => onSale && tierId === id)).length,
      all: tiers.length,
    },
    closed: await countClosedToVisitors(),
    hasJoinInMenu: menu.some(
      ({ kind, target }) =>
        kind === 'join' ||
        kind === 'offer' ||
        (kind === 'item' && joinPage !== undefined && target === joinPage),
    ),
    checkedAt: isComplete && check.found.length === 0 ? check.finishedAt : null,
    hasLeaks: isComplete && check.found.length > 0,
    purchase: await findFirstPayment(pool(), site.mode),
    renewal: await findRenewal(pool(), site.mode),
    sender: { address: site.senderAddress, sentAt: await lastSent(pool()) },
    // The text that a site begins with is its first version.
    legal: {
      written: legal.filter(({ version }) => version > 1).map(({ title }) => title),
      all: LEGAL_ROLES.length,
    },
  };
}
