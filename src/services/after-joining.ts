import type { Instant } from '@/core/calendar';
import { EMPTY_DOCUMENT, type Document } from '@/core/content/document';
import { pool } from '@/platform/store/db';
import { findJoining } from '@/store/joinings';
import { findMember, type Member } from '@/store/members';
import { findOffer } from '@/store/offers';
import { findTier, type Tier } from '@/store/tiers';
import { memberAccount, type MemberAccount, type SubscriptionView } from '@/services/lib/member-account';
import { memberUse } from '@/platform/use';
import { uuid } from '@/platform/inputs';
import { found } from '@/platform/result';
import { ownerOfJoining } from './lib/owners';

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
  email: string;
  hasPassword: boolean;
};

/** What a person sees once they have joined. Null where this joining is not theirs, or not finished. */
async function readAfter(joiningId: string, member: Pick<Member, 'id'>): Promise<AfterJoining | null> {
  const joining = await findJoining(pool(), joiningId);
  if (joining?.state !== 'done' || joining.memberId !== member.id) return null;
  const offer = await findOffer(pool(), joining.offerId);
  const tier = offer && (await findTier(pool(), offer.tierId));
  const person = await findMember(pool(), member.id);
  const account = await memberAccount(member, joining.mode);
  const view = account.subscriptions.find((each) => each.subscription.id === joining.subscriptionId);
  if (!tier || !view || !person) return null;
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
    email: person.email,
    hasPassword: person.passwordHash !== null,
  };
}

export const afterJoining = memberUse(
  'after-joining',
  uuid,
  async ({ memberId }, joiningId) => found(await readAfter(joiningId, { id: memberId })),
  { owner: ownerOfJoining },
);
