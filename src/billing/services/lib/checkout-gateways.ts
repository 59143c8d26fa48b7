import { config } from '@/platform/config';
import { cannotCarry, type Carries } from '@/core/offers/carries';
import { gatewayById } from '@/billing/gateways';
import type { Nature } from '@/billing/gateways/contract';
import { pool, type Db } from '@/platform/store/db';
import { listCheckoutAccounts, type GatewayAccount } from '@/billing/store/gateways';
import type { StoredOffer } from '@/tiers/store/offers';
import type { Site } from '@/platform/store/site';
import { currentSite } from '@/platform/site';
import type { GatewayAccountId } from '@/core/ids';

/** A gateway as checkout offers it. */
export type CheckoutGateway = {
  accountId: GatewayAccountId;
  label: string;
  gateway: string;
  nature: Nature;
  /** The gateway's card frame, where it has one. */
  frame: { url: string; origin: string; gateway: string } | null;
};

/** The accounts that can carry an offer, and a discount on it where there is one, in the owner's order. */
export async function gatewaysFor(
  site: Site,
  offer: Pick<StoredOffer, 'definition'>,
  { hasDiscount = false, db = pool() }: { hasDiscount?: boolean; db?: Db } = {},
): Promise<GatewayAccount[]> {
  const accounts = await listCheckoutAccounts(db, site.mode);
  return accounts.filter(({ gateway }) => {
    const { carries } = gatewayById(gateway);
    return (carries.discount || !hasDiscount) && cannotCarry(carries, offer.definition).length === 0;
  });
}

export function toCheckoutGateway(account: GatewayAccount): CheckoutGateway {
  const gateway = gatewayById(account.gateway);
  const frame = gateway.frame(account.siteKey, new URL(config().SITE_URL).origin);
  return {
    accountId: account.id,
    label: account.label,
    gateway: gateway.name,
    nature: gateway.nature,
    frame: frame && { ...frame, gateway: gateway.name },
  };
}

/** What each gateway of the site's mode can carry, for the offer editor's warnings. */
export async function gatewayLimits(): Promise<{ label: string; carries: Carries }[]> {
  const site = await currentSite();
  return (await listCheckoutAccounts(pool(), site.mode)).map(({ label, gateway }) => ({
    label,
    carries: gatewayById(gateway).carries,
  }));
}
