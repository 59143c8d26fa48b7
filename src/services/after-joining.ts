import type { Instant } from '@/core/calendar';
import { EMPTY_DOCUMENT, type Document } from '@/core/content/document';
import { pool } from '@/store/db';
import { findJoining } from '@/store/joinings';
import type { Member } from '@/store/members';
import { findOffer } from '@/store/offers';
import { findTier, type Tier } from '@/store/tiers';
import { memberAccount, type MemberAccount, type SubscriptionView } from './member-account';

export type AfterJoining = {
  tier: Tier;
  /** The owner's words, where they are to be shown here. */
  words: Document;
  view: SubscriptionView;
  payment: MemberAccount['payments'][number] | null;
  zone: string;
  at: Instant;
  /** Where the person is brought: the tier's own address, else what they came for. */
  onward: string;
};

/** What a person sees once they have joined. Null where this joining is not theirs, or not finished. */
export async function afterJoining(joiningId: string, member: Member): Promise<AfterJoining | null> {
  const joining = await findJoining(pool(), joiningId);
  if (joining?.state !== 'done' || joining.memberId !== member.id) return null;
  const offer = await findOffer(pool(), joining.offerId);
  const tier = offer && (await findTier(pool(), offer.tierId));
  const account = await memberAccount(member, joining.mode);
  const view = account.subscriptions.find((each) => each.subscription.id === joining.subscriptionId);
  if (!tier || !view) return null;
  return {
    tier,
    view,
    words: tier.welcomeShown.includes('page') ? tier.welcomeWords : EMPTY_DOCUMENT,
    payment:
      account.payments.find(
        (payment) => payment.subscriptionId === joining.subscriptionId && payment.state === 'succeeded',
      ) ?? null,
    zone: account.zone,
    at: joining.at,
    onward: tier.welcomePath || joining.returnTo,
  };
}
