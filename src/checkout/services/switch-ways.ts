import { z } from 'zod';
import type { SwitchFigures } from '@/core/billing/figures';
import { openBook } from '@/billing/services/lib/open-book';
import { deskWordsOf } from '@/words/desk';
import { refusal } from '@/words/problems';
import { offerKey } from '@/billing/store/book-from-rows';
import type { Actor } from '@/platform/actor';
import { uuid } from '@/platform/inputs';
import { found } from '@/platform/result';
import { currentSite } from '@/platform/site';
import { pool, transaction } from '@/platform/store/db';
import { staffUse } from '@/platform/use';
import { memberAccount } from '@/billing/services/lib/member-account';
import { waysOn } from './lib/ways-on';
import { findMember, type Member } from '@/people/store/members';
import { findOffer, type StoredOffer } from '@/tiers/store/offers';
import { findTier } from '@/tiers/store/tiers';
import { priceOffer } from './lib/pricing';
import { actionOf } from './lib/checkout-action';
import type { MemberId, QuoteId, SubscriptionId } from '@/core/ids';

export type SwitchWay = {
  offer: StoredOffer;
  tierName: string;
  quoteId: QuoteId | null;
  figures: SwitchFigures | null;
  /** Why it cannot be switched to, where it cannot. */
  why: string;
};

/** Where a member's subscription can be switched to, each with a stored quote: what staff accept is what they saw. */
async function listWays(
  actor: Actor,
  memberId: MemberId,
  subscriptionId: SubscriptionId,
): Promise<{ member: Member; from: string; ways: SwitchWay[]; zone: string } | null> {
  const site = await currentSite();
  const t = deskWordsOf(site);
  const member = await findMember(pool(), memberId);
  const account = member && (await memberAccount(member, t));
  const view = account?.subscriptions.find(({ subscription }) => subscription.id === subscriptionId);
  if (!member || !account || !view) return null;
  const ways: SwitchWay[] = [];
  for (const { offerId } of (await waysOn(account, t)).get(subscriptionId)?.switches ?? []) {
    const listed = await findOffer(pool(), offerId);
    const tier = listed && (await findTier(pool(), listed.tierId));
    if (!listed || !tier) continue;
    const { offer, addedTax } = priceOffer(site, listed, member.country);
    const of = { memberId, mode: site.mode };
    const action = await transaction(async (db) => {
      const open = await openBook(db, site, actor, of, { offers: [offerKey(offer.versionId, addedTax)] });
      return actionOf(open, offer, addedTax, tier, '');
    });
    const isSwitch = action.kind === 'switch';
    ways.push({
      offer,
      tierName: tier.name,
      quoteId: isSwitch ? action.quoteId : null,
      figures: isSwitch ? action.figures : null,
      why: 'why' in action ? t.problem(refusal(action.why)) : 'This can’t be switched to now.',
    });
  }
  return { member, from: view.tier?.name ?? view.offer.name, ways, zone: site.zone };
}

const inputSchema = z.object({ memberId: uuid, subscriptionId: uuid });

export const switchWays = staffUse('manage members')('switch-ways', inputSchema, async (actor, ids) =>
  found(await listWays(actor, ids.memberId, ids.subscriptionId)),
);
