import { isBefore, localDate } from '@/core/calendar';
import { offerPrice } from '@/core/offers/sentence';
import { looking } from '@/core/billing/figures';
import { renewableFrom } from '@/core/billing/renewal';
import { readBook } from '@/billing/services/lib/open-book';
import { joiningState } from '@/core/tiers/joining';
import { pool } from '@/platform/store/db';
import { listOffers } from '@/store/offers';
import { listTiers } from '@/store/tiers';
import { siteNow } from '@/platform/clock';
import type { MemberAccount } from '@/services/lib/member-account';
import { currentSite } from '@/platform/site';
import { priceOffer } from '@/checkout/services/lib/pricing';

/** Where a member can go from a subscription: renew it, or go over to another offer of its ladder or tier. */
export type WaysOn = {
  renew: { offerId: string } | null;
  switches: { offerId: string; tierName: string; price: string }[];
};

export async function waysOn(account: MemberAccount): Promise<Map<string, WaysOn>> {
  const site = await currentSite();
  const now = siteNow(site);
  const today = localDate(now, site.zone);
  const [tiers, offers] = [await listTiers(pool()), await listOffers(pool())];
  const found = new Map<string, WaysOn>();
  for (const { subscription, offer } of account.subscriptions) {
    if (['ended', 'overdue', 'paused'].includes(subscription.state) || subscription.disputes.length > 0)
      continue;
    const { stored, terms, at } = await readBook(pool(), site, subscription);
    const running = stored.book.subscriptions.find(({ id }) => id === subscription.id);
    const from = running ? renewableFrom(looking(stored.book, terms, at, running), running) : null;
    const open = tiers.filter(
      (tier) =>
        (tier.ladderId ?? tier.id) === subscription.track &&
        !tier.several &&
        joiningState({ ...tier, isRetired: tier.retiredAt !== null }, 0, today).state === 'open',
    );
    found.set(subscription.id, {
      renew: from !== null && !isBefore(now, from) ? { offerId: offer.id } : null,
      switches: open.reverse().flatMap((tier) =>
        offers
          .filter((other) => other.tierId === tier.id && other.onSale && other.id !== offer.id)
          .map((other) => ({
            offerId: other.id,
            tierName: tier.name,
            price: offerPrice(priceOffer(site, other, subscription.taxCountry).offer.definition),
          })),
      ),
    });
  }
  return found;
}
