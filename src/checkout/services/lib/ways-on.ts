import { localDate } from '@/core/calendar';
import { offerPrice } from '@/words/offers';
import type { Words } from '@/words/speak';
import { CURRENT } from '@/core/billing/states';
import { joiningState, joiningTerms, OPEN } from '@/core/tiers/joining';
import { siteNow } from '@/platform/clock';
import type { MemberAccount } from '@/billing/services/lib/member-account';
import { currentSite } from '@/platform/site';
import { priceOffer } from '@/checkout/services/lib/pricing';
import type { OfferId } from '@/core/ids';
import { keptOffers, keptTiers } from '@/tiers/services/lib/kept';

/** Where a member can go from a subscription: renew it, or go over to another offer of its ladder or tier. */
export type WaysOn = {
  renew: { offerId: OfferId } | null;
  switches: { offerId: OfferId; tierName: string; price: string }[];
};

export async function waysOn(account: MemberAccount, t: Words): Promise<Map<string, WaysOn>> {
  const site = await currentSite();
  const now = siteNow(site);
  const today = localDate(now, site.zone);
  const [tiers, offers] = [await keptTiers(), await keptOffers()];
  const found = new Map<string, WaysOn>();
  for (const { subscription, offer, deeds } of account.subscriptions) {
    const runs = CURRENT.has(subscription.state) || subscription.state === 'cancelling';
    if (!runs || subscription.disputes.length > 0) continue;
    const open = tiers.filter(
      (tier) =>
        (tier.ladderId ?? tier.id) === subscription.track &&
        !tier.several &&
        joiningState(joiningTerms(OPEN, tier), 0, today).state === 'open',
    );
    found.set(subscription.id, {
      renew: deeds.includes('renew') ? { offerId: offer.id } : null,
      switches: open.reverse().flatMap((tier) =>
        offers
          .filter((other) => other.tierId === tier.id && other.onSale && other.id !== offer.id)
          .map((other) => ({
            offerId: other.id,
            tierName: tier.name,
            price: offerPrice(priceOffer(site, other, subscription.taxCountry).offer.definition, t),
          })),
      ),
    });
  }
  return found;
}
