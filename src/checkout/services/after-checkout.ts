import { findHead } from '@/content/store/items';
import type { Instant } from '@/core/instants';
import { EMPTY_PROSE, type Prose } from '@/core/content/prose';
import { pool } from '@/platform/store/db';
import { findCheckout } from '@/billing/store/checkouts';
import { findMember, type Member } from '@/people/store/members';
import { findOffer } from '@/tiers/store/offers';
import { findTier, type Tier } from '@/tiers/store/tiers';
import {
  memberAccount,
  type MemberAccount,
  type SubscriptionView,
} from '@/billing/services/lib/member-account';
import { siteWords } from '@/platform/site';
import { memberUse } from '@/platform/use';
import { uuid } from '@/platform/inputs';
import { found } from '@/platform/result';
import { ownerOfCheckout } from '@/billing/services/lib/owners';
import type { CheckoutId } from '@/core/ids';
import { keptRoles } from '@/content/services/lib/kept';

export type AfterCheckout = {
  tier: Tier;
  /** The owner's words, where they are to be shown here. */
  words: Prose;
  view: SubscriptionView;
  payment: MemberAccount['payments'][number] | null;
  zone: string;
  at: Instant;
  /** Where the person is brought: the tier's own address, else what they came for. */
  onward: string;
  email: string;
  hasPassword: boolean;
};

/** What a person sees once they have joined. Null where this checkout is not theirs, or not finished. */
async function readAfter(checkoutId: CheckoutId, member: Pick<Member, 'id'>): Promise<AfterCheckout | null> {
  const checkout = await findCheckout(pool(), checkoutId);
  if (checkout?.state !== 'done' || checkout.memberId !== member.id) return null;
  const offer = await findOffer(pool(), checkout.offerId);
  const tier = offer && (await findTier(pool(), offer.tierId));
  const person = await findMember(pool(), member.id);
  const account = await memberAccount(member, await siteWords(), checkout.mode);
  const view = account.subscriptions.find((each) => each.subscription.id === checkout.subscriptionId);
  if (!tier || !view || !person) return null;
  return {
    tier,
    view,
    words: tier.welcomeShown.includes('page') ? tier.welcomeWords : EMPTY_PROSE,
    payment:
      account.payments.find(
        (payment) => payment.subscriptionId === checkout.subscriptionId && payment.state === 'succeeded',
      ) ?? null,
    zone: account.zone,
    at: checkout.at,
    onward: tier.welcomePath || (await thanksPath()) || checkout.returnTo,
    email: person.email,
    hasPassword: person.passwordHash !== null,
  };
}

export const afterCheckout = memberUse(
  'after-checkout',
  uuid,
  async ({ memberId }, checkoutId) => found(await readAfter(checkoutId, { id: memberId })),
  { owner: ownerOfCheckout },
);

/** The page that serves as the one after joining; '' where none does. */
async function thanksPath(): Promise<string> {
  const role = (await keptRoles()).find((one) => one.role === 'thanks');
  const page = role && (await findHead(pool(), role.itemId));
  return page?.publishedAt ? page.path : '';
}
