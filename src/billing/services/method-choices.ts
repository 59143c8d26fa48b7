import { hasLeft } from '@/core/billing/discount';
import { CHARGED } from '@/core/billing/states';
import type { Instant } from '@/core/instants';
import type { Member } from '@/people/store/members';
import { memberAccount } from './lib/member-account';
import { currentSite } from '@/platform/site';
import { wordsOf } from '@/words/words';
import { toCheckoutGateway, gatewaysFor, type CheckoutGateway } from './lib/checkout-gateways';
import { memberUse } from '@/platform/use';
import { uuid } from '@/platform/inputs';
import { found } from '@/platform/result';
import { ownerOfSubscription } from './lib/owners';

export type MethodChoices = {
  name: string;
  methodLabel: string | null;
  /** What is overdue; charged at once when the payment method changes. Minor units. */
  owed: { amount: number; currency: string } | null;
  next: { at: Instant; amount: number; currency: string } | null;
  /** Whether its wallet bills only what was approved, which is not what comes next. */
  needsApproval: boolean;
  ways: CheckoutGateway[];
  zone: string;
};

/** The gateways that can charge a member's own subscription from now on; null: it is not theirs, or has ended. */
async function readChoices(member: Pick<Member, 'id'>, id: string): Promise<MethodChoices | null> {
  const site = await currentSite();
  const account = await memberAccount(member, wordsOf(site));
  const view = account.subscriptions.find(({ subscription }) => subscription.id === id);
  if (!view || view.subscription.state === 'ended') return null;
  const { state, pauses, disputes } = view.subscription;
  // A wallet bills what runs; it cannot carry what is paused.
  const goesOn = CHARGED.has(state) && !pauses && disputes.length === 0 && view.next !== null;
  const hasDiscount = hasLeft(view.subscription.discount);
  const ways = (await gatewaysFor(site, view.offer, { hasDiscount }))
    .map(toCheckoutGateway)
    .filter((way) => way.nature !== 'wallet' || goesOn);
  return {
    name: view.tier?.name ?? view.offer.name,
    methodLabel: view.subscription.methodLabel,
    owed: view.subscription.state === 'overdue' && view.next ? view.next : null,
    next: view.next,
    needsApproval: view.needsApproval,
    ways,
    zone: site.zone,
  };
}

export const methodChoices = memberUse(
  'method-choices',
  uuid,
  async ({ memberId }, id) => found(await readChoices({ id: memberId }, id)),
  { owner: ownerOfSubscription },
);
