import type { SwitchQuote } from '@/core/subscriptions/switching';
import { pool } from '@/platform/store/db';
import { findMember, type Member } from '@/store/members';
import { findOffer, type StoredOffer } from '@/store/offers';
import { findTier } from '@/store/tiers';
import { siteNow } from '@/platform/clock';
import { memberAccount } from '@/services/lib/member-account';
import { storeQuote } from '@/services/lib/prepare-joining';
import { currentSite } from '@/platform/site';
import { standingOf } from '@/services/lib/standing';
import { priceOffer } from '@/services/lib/terms';
import { waysOn } from './lib/ways-on';
import { z } from 'zod';
import { staffUse } from '@/platform/use';
import { uuid } from '@/platform/inputs';
import { found } from '@/platform/result';

export type SwitchWay = {
  offer: StoredOffer;
  tierName: string;
  quoteId: string | null;
  quote: SwitchQuote | null;
  /** Why it cannot be switched to, where it cannot. */
  why: string;
};

/** Where a member's subscription can be switched to, each with a stored quote: what staff accept is what they saw. */
async function listWays(
  memberId: string,
  subscriptionId: string,
): Promise<{ member: Member; from: string; ways: SwitchWay[]; zone: string } | null> {
  const site = await currentSite();
  const now = siteNow(site);
  const member = await findMember(pool(), memberId);
  const account = member && (await memberAccount(member));
  const view = account?.subscriptions.find(({ subscription }) => subscription.id === subscriptionId);
  if (!member || !account || !view) return null;
  const ways: SwitchWay[] = [];
  for (const { offerId } of (await waysOn(account)).get(subscriptionId)?.switches ?? []) {
    const listed = await findOffer(pool(), offerId);
    const tier = listed && (await findTier(pool(), listed.tierId));
    if (!listed || !tier) continue;
    const { offer } = priceOffer(site, listed, member.country);
    const standing = await standingOf(pool(), site, memberId, offer, tier, now);
    ways.push({
      offer,
      tierName: tier.name,
      quoteId: await storeQuote(memberId, standing, offer, now),
      quote: standing.kind === 'switch' ? standing.quote : null,
      why:
        standing.kind === 'no-switch' && standing.why === 'wait'
          ? 'The wait before a first switch is not over.'
          : 'It cannot be switched to now.',
    });
  }
  return { member, from: view.tier?.name ?? view.offer.name, ways, zone: site.zone };
}

const inputSchema = z.object({ memberId: uuid, subscriptionId: uuid });

export const switchWays = staffUse('manage members')('switch-ways', inputSchema, async (_, ids) =>
  found(await listWays(ids.memberId, ids.subscriptionId)),
);
