import { config } from '@/config';
import { localDate } from '@/core/calendar';
import { billingStages } from '@/core/offers/carries';
import { offerOf, upcomingPeriod } from '@/core/subscriptions/upcoming';
import { declineSentence, type GatewayPayment } from '@/gateways/contract';
import {
  endAgreementsOf,
  insertAgreement,
  setAgreementState,
  type StoredAgreement,
} from '@/store/agreements';
import { findQuote } from '@/store/credits';
import { lock, pool, transaction, type Transaction } from '@/platform/store/db';
import type { GatewayAccount } from '@/store/gateways';
import { findJoiningOfSubscription, releaseJoining, type Joining } from '@/store/joinings';
import {
  findSubscription,
  lockSubscription,
  setMethod,
  type StoredSubscription,
} from '@/store/subscriptions';
import { GATEWAY } from '@/platform/actor';
import { lockToPay, whyNotToPay, type Begun, type JoinPlan } from './begin-joining';
import { writeIntent } from './collect-payment';
import { completeJoining } from './complete-joining';
import { takeUpApproval, walletMethod, type Approved } from './approve-running';
import { beginAgreement } from './begin-agreement';
import { recordOutcomeIn } from './record-outcome';
import { done, type Result } from '@/platform/result';
import { currentSite } from '@/platform/site';
import { termsOf } from './terms';

/** Asks the payer to approve, on the wallet's own page, what it will bill for this joining. The answer is that page. */
export async function askForApproval(
  plan: JoinPlan,
  account: GatewayAccount,
  { joining }: Begun,
): Promise<Result<{ approveUrl: string }>> {
  const written = await transaction(async (db): Promise<Result<StoredAgreement>> => {
    const locked = await lockToPay(db, plan, joining);
    if (!locked.ok) return locked;
    const { id: subscriptionId, mode, startedAt, offerVersionId } = locked.value;
    return done(
      await insertAgreement(db, {
        subscriptionId,
        mode,
        gatewayAccountId: account.id,
        offerVersionId,
        after: null,
        at: startedAt,
      }),
    );
  });
  if (!written.ok) return written;
  const subscription = await findSubscription(pool(), joining.subscriptionId);
  if (!subscription) throw new Error(`joining ${joining.id} has no subscription`);
  const { startedAt, skipTrial } = subscription;
  const { terms } = await termsOf(pool(), plan.site, subscription);
  const offer = offerOf(subscription, terms);
  const today = localDate(startedAt, plan.site.zone);
  return beginAgreement(plan.site, account, written.value, {
    currency: offer.currency,
    startsAt: startedAt,
    stages: billingStages(offer, skipTrial, today, plan.quote?.credit ?? 0),
    takesUp: null,
    returnUrl: `${config().SITE_URL}/join/approved/${joining.id}`,
    note: `${plan.site.name}: ${plan.tier.name}`,
  });
}

/**
 * The payer has approved: the joining is completed, with the wallet's first bill where something was due. A bill that
 * was refused, or a place taken meanwhile, ends the agreement; money that came all the same goes back.
 */
export async function completeApproval(
  account: GatewayAccount,
  agreement: StoredAgreement,
  bills: GatewayPayment[],
): Promise<Approved> {
  const site = await currentSite();
  const running = await findSubscription(pool(), agreement.subscriptionId);
  if (running && running.state !== 'pending') return takeUpApproval(site, account, agreement);
  const known = await findJoiningOfSubscription(pool(), agreement.subscriptionId);
  if (!known) return 'refused';
  return transaction(async (db) => {
    await lock(db, 'join', known.email, known.track);
    const joining = await findJoiningOfSubscription(db, agreement.subscriptionId);
    const subscription = await lockSubscription(db, agreement.subscriptionId);
    if (!joining || !subscription || joining.state === 'done') return 'done';
    const refuse = async (problem: string): Promise<Approved> => {
      await endAgreementsOf(db, subscription.id);
      await releaseJoining(db, joining.id, problem);
      return 'refused';
    };
    const bought = await termsOf(db, site, subscription);
    const period = upcomingPeriod(subscription, bought.terms);
    const against =
      (await isVoid(db, joining)) ??
      (await whyNotToPay(db, joining.id, whoOf(joining, subscription, bought.offer.name)));
    if (against || !period) return refuse(against ?? 'Nothing of this offer is left.');
    const credit = joining.quoteId ? ((await findQuote(db, joining.quoteId))?.credit ?? 0) : 0;
    const isDue = period.amount > credit;
    const bill = bills[0];
    if (isDue && !bill) return 'waiting';
    const at = subscription.startedAt;
    const { currency } = bought.offer.definition;
    const method = walletMethod(account, agreement);
    const isRefused = isDue && bill?.state === 'declined';
    if (!isRefused) {
      await setAgreementState(db, agreement.id, 'running', at);
      await setMethod(db, subscription.id, method);
    }
    if (isDue && bill) {
      const asked = await writeIntent(db, subscription, {
        period,
        currency,
        at,
        byMember: true,
        switchCredit: credit,
      });
      if (!('intent' in asked)) throw new Error('a bill came for what credit had paid');
      const code = bill.code ?? 'declined';
      const outcome = isRefused
        ? ({ state: 'declined', ref: bill.ref, code } as const)
        : ({ state: 'succeeded', ref: bill.ref } as const);
      await recordOutcomeIn(db, site, GATEWAY, asked.intent, outcome, at);
      if (isRefused) return refuse(declineSentence(code));
    } else
      await completeJoining(
        db,
        site,
        GATEWAY,
        joining,
        { ...subscription, ...method },
        bought,
        period,
        at,
        null,
      );
    return 'done';
  });
}

const whoOf = (
  { email, mode, track, replacesId }: Joining,
  { slot }: StoredSubscription,
  tierName: string,
) => ({
  email,
  mode,
  track,
  slot,
  tierName,
  replacesId,
});

/** A switch was approved at its quote; what has happened to the old subscription meanwhile makes that void. */
async function isVoid(db: Transaction, { quoteId, replacesId }: Joining): Promise<string | null> {
  const quote = quoteId ? await findQuote(db, quoteId) : undefined;
  const replaced = replacesId ? await findSubscription(db, replacesId) : undefined;
  return quote && replaced?.events !== quote.events
    ? 'What this switch costs has changed since it was approved. Load the page again to see it.'
    : null;
}
