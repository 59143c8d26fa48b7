import { joiningOf } from '@/core/tiers/joining';
import { config } from '@/platform/config';
import type { Method } from '@/core/billing/book';
import { askedOf, runningHere } from '@/core/billing/work';
import { obstacle } from '@/core/billing/checkout';
import { looking } from '@/core/billing/figures';
import { localDate } from '@/core/calendar';
import { billingStages } from '@/core/offers/carries';
import type { JoinAnswer } from '@/core/tiers/join-fields';
import { gatewayById } from '@/billing/gateways';
import { answerOf } from '@/billing/services/lib/answer-words';
import { beginAgreement } from '@/billing/services/lib/begin-agreement';
import {
  keepCard,
  methodOf,
  payerThrough,
  setPayer,
  type Payer,
} from '@/billing/services/lib/change-account';
import { collect } from '@/billing/services/lib/collect';
import { doAsks } from '@/billing/services/lib/in-book';
import { happen, openBook, contextOf } from '@/billing/services/lib/open-book';
import type { OpenBook } from '@/billing/services/lib/opened';
import { lockCode } from '@/tiers/store/codes';
import type { Problem } from '@/core/problem';
import { problem, refusal, type ProblemCode } from '@/words/problems';
import { findQuote } from '@/billing/store/quotes';
import { lockBook, type StoredBook } from '@/billing/store/book';
import { type Account } from '@/billing/store/book-rows';
import { offerKey } from '@/billing/store/book-from-rows';
import { findCheckout, saveCheckout, setLastProblem } from '@/billing/store/checkouts';
import type { Actor } from '@/platform/actor';
import { siteNow } from '@/platform/clock';
import { record } from '@/platform/record';
import { done, refusedField, type Result, refusedWith } from '@/platform/result';
import { safeReturn } from '@/platform/safe-return';
import { lock, pool, transaction, transactionUnlessRefused, type Transaction } from '@/platform/store/db';
import { firstPrice } from '@/core/tiers/holder-prices';
import { judgeCode, priceBy } from './code-in-checkout';
import { heldTiers, offerForHolder } from './holder-price';
import { joiningStateOf } from './joining-state';
import { endAgreementsOf, insertAgreement, type StoredAgreement } from '@/billing/store/agreements';
import { setCountry } from '@/billing/services/lib/set-country';
import type { Member } from '@/people/store/members';
import type { CheckoutInput, CheckoutPlan } from './plan';
import { placeOf } from './checkout-action';

/** `approve`: the person continues at the wallet; `transfer`: they send money. */
export type Submitted = { state: 'done' } | { state: 'approve'; url: string } | { state: 'transfer' };

/**
 * Presses the button of a checkout for a member. The subscription and what it holds come into being together with the recorded
 * payment, or not at all; sent twice, it charges once.
 */
export async function submitFor(
  actor: Actor,
  plan: CheckoutPlan,
  member: Member,
  answers: JoinAnswer[],
  input: CheckoutInput,
): Promise<Result<Submitted>> {
  const settled = await settleLast(actor, plan, member, input);
  if (settled) return settled;
  const begun = await transaction((db) => begin(db, actor, plan, member, answers, input));
  if (!begun.ok) return noted(input, member, begun);
  const payer = await payerOf(plan, member, input);
  if (!payer.ok) return noted(input, member, payer);
  const written = await transactionUnlessRefused((db) => write(db, actor, plan, member, input, payer.value));
  if (!written.ok) return noted(input, member, written);
  // Another press of the button came first: what it comes to is what this one comes to.
  if (written.value === 'again') return again(actor, plan, member, input);
  const { stored, asks, agreement } = written.value;
  if (agreement) {
    const asked = await askWallet(plan, stored, agreement, input);
    return asked.ok ? done({ state: 'approve', url: asked.value.approveUrl }) : noted(input, member, asked);
  }
  const outcome = await doAsks(actor, plan.site, stored, asks);
  const against = outcome && answerOf(outcome);
  if (against) return noted(input, member, against);
  return done({ state: outcome?.state === 'awaited' ? 'transfer' : 'done' });
}

/** The reason is stored for the owner's list of unfinished checkouts. */
async function noted(
  { checkoutId }: CheckoutInput,
  { id }: Member,
  refused: Result<never>,
): Promise<Result<never>> {
  if (!refused.ok) await setLastProblem(pool(), checkoutId, id, Object.values(refused.problems)[0] ?? null);
  return refused;
}

const wantedBy = (plan: CheckoutPlan, input: CheckoutInput) => ({
  checkouts: [input.checkoutId],
  offers: [offerKey(plan.offer.versionId, plan.addedTax)],
  tracks: [placeOf(plan.tier, input.checkoutId).track],
  quote: isUuid(input.quoteId) ? input.quoteId : null,
});
const isUuid = (text: string): boolean => /^[0-9a-f-]{36}$/.test(text);

/** What the last press asked for and nobody knows the end of is asked about first. */
async function settleLast(
  actor: Actor,
  { site }: CheckoutPlan,
  member: Member,
  { checkoutId }: CheckoutInput,
): Promise<Result<Submitted> | null> {
  const known = await findCheckout(pool(), checkoutId);
  if (known?.state === 'done' && known.memberId === member.id) return done({ state: 'done' });
  if (known?.state !== 'charging' || known.memberId !== member.id) return null;
  const of = { memberId: member.id, mode: known.mode };
  const { stored } = await transaction((db) => openBook(db, site, actor, of, { checkouts: [checkoutId] }));
  const attempt = stored.book.charges.find(
    (one) => one.subscription === known.subscriptionId && askedOf(one),
  );
  const asked = attempt && askedOf(attempt);
  // It may have been settled while this press waited for the book.
  const isDone = stored.book.checkouts.some(({ id, state }) => id === checkoutId && state === 'done');
  if (!asked) return isDone ? done({ state: 'done' }) : null;
  const outcome = await collect(actor, site, stored, asked.id, false);
  if (outcome.state === 'succeeded') return done({ state: 'done' });
  return outcome.state === 'unknown' ? answerOf(outcome) : null;
}

async function again(
  actor: Actor,
  plan: CheckoutPlan,
  member: Member,
  input: CheckoutInput,
): Promise<Result<Submitted>> {
  const settled = await settleLast(actor, plan, member, input);
  if (settled) return settled;
  const state = (await findCheckout(pool(), input.checkoutId))?.state;
  if (state === 'awaiting') return done({ state: 'transfer' });
  return refusedField('', 'checkout.lost');
}

/** How it will be paid: through an account, by the card that was kept, or the one just filled in. */
async function payerOf(
  { account }: CheckoutPlan,
  { email }: Member,
  { cardToken, keepCard: keeps, checkoutId }: CheckoutInput,
): Promise<Result<Payer | null>> {
  if (!account) return done(null);
  const { nature } = gatewayById(account.gateway);
  if (nature !== 'card') return done(payerThrough(account));
  // The kept one is that of what runs: it is looked up in the open book.
  if (keeps) return done(null);
  // A token is for one card: sent twice, it is saved once.
  return keepCard(account, { token: cardToken, email, idempotencyKey: `${checkoutId}:method:${cardToken}` });
}

type Written = Pick<OpenBook, 'stored'> & {
  asks: Parameters<typeof doAsks>[3];
  agreement: StoredAgreement | null;
};

/**
 * Writes down that the button was pressed, with what was typed, and looks whether anything is in the way, before a card is
 * kept. The places of a tier come before the book.
 */
async function begin(
  db: Transaction,
  actor: Actor,
  plan: CheckoutPlan,
  member: Member,
  answers: JoinAnswer[],
  input: CheckoutInput,
): Promise<Result<null>> {
  const { site, tier, offer } = plan;
  const { checkoutId: id } = input;
  if (tier.places !== null) await lock(db, 'places', tier.id);
  const of = { memberId: member.id, mode: site.mode };
  await lockBook(db, of);
  const known = await findCheckout(db, id);
  if (known && known.memberId !== member.id) {
    await record(db, actor, siteNow(site), 'another member’s checkout refused', `checkout:${id}`);
    return refusedField('', 'checkout.of-another');
  }
  if (known && known.mode !== site.mode) return refusedField('', 'checkout.of-test');
  if (known && known.offerId !== offer.id) return refusedField('', 'checkout.of-another-offer');
  if (known?.state === 'done') return done(null);
  const quote = input.quoteId && isUuid(input.quoteId) ? await findQuote(db, input.quoteId) : undefined;
  if (input.quoteId && quote?.memberId !== member.id) return refusedField('', 'refusal.quote-void');
  await saveCheckout(db, {
    id,
    ...placeOf(tier, id),
    offerId: offer.id,
    mode: site.mode,
    memberId: member.id,
    email: member.email,
    name: member.name,
    answers,
    codeId: plan.code?.id ?? null,
    returnTo: safeReturn(input.returnTo),
    state: 'open',
    at: siteNow(site),
  });
  if (plan.country && !member.country && offer.isPaid) await setCountry(db, member.id, plan.country);
  const open = await openBook(db, site, actor, of, wantedBy(plan, input));
  const against = await whyFull(open, plan, id);
  if (against) return refusedWith(against);
  const work = looking(open.stored.book, contextOf(site, open.stored), open.at, placeOf(tier, id));
  const why = obstacle(work, offerKey(offer.versionId, plan.addedTax), id);
  // A press of a moment ago may be at it: what that comes to is seen later.
  return why && why !== 'under-way' && why !== 'already' ? refusedWith(refusal(why)) : done(null);
}

/** Writes in one transaction what is begun, and what is about to be asked for. */
async function write(
  db: Transaction,
  actor: Actor,
  plan: CheckoutPlan,
  member: Member,
  input: CheckoutInput,
  payer: Payer | null,
): Promise<Result<Written | 'again'>> {
  const { site, tier, account, offer } = plan;
  const { checkoutId: id } = input;
  if (tier.places !== null) await lock(db, 'places', tier.id);
  const of = { memberId: member.id, mode: site.mode };
  const open = await openBook(db, site, actor, of, wantedBy(plan, input));
  const known = await findCheckout(db, id);
  if (known?.state === 'done') return done('again');
  const full = await whyFull(open, plan, id);
  if (full) return refusedWith(full);
  // Looked at again under its lock: the last use of a code goes to one person.
  const code = plan.code && (await lockCode(db, plan.code.id));
  const good = code && (await judgeCode(db, code, { site, offer, memberId: member.id, checkoutId: id }));
  const forHolder = offerForHolder(offer, await heldTiers(db, site, member.id));
  const { discount, code: judged } = priceBy(good ?? null, forHolder, firstPrice(offer.definition));
  if (plan.code && !judged?.ok)
    return refusedWith(judged?.problem ?? problem('checkout.code-invalid'), 'code');
  if (judged?.ok && joiningOf(site.joining, tier.joining) === 'by-code' && !judged.admits)
    return refusedField('code', 'code.not-for-this');
  const paid = payerIn(open, plan, input, payer);
  if (!paid.ok) return paid;
  const begun = known?.subscriptionId ?? null;
  if (begun && open.stored.accounts.has(begun)) {
    await setPayer(open, begun, { ...paid.value, taxCountry: plan.country });
    await endAgreementsOf(db, begun);
  }
  const method: Method | null = methodOf(account);
  const happened = await happen(
    open,
    {
      do: 'submit',
      ...placeOf(tier, id),
      checkout: id,
      offer: offerKey(offer.versionId, plan.addedTax),
      method,
      discount,
      byQuote: input.quoteId !== '',
      due: method?.nature === 'wallet' ? input.dueAtWallet : input.due,
    },
    (): Account => ({ ...paid.value, taxCountry: plan.country, addedTax: plan.addedTax, remindAt: null }),
  );
  if (!happened.ok)
    return happened.why === 'under-way' && known ? done('again') : refusedWith(refusal(happened.why));
  return done({
    stored: open.stored,
    asks: happened.asks,
    agreement: await agreementFor(open, plan, id),
  });
}

/** Whether every place is taken, counted under a lock of the tier: the last place goes to one person. */
async function whyFull(
  { db, stored, site, at }: OpenBook,
  { tier, offer }: CheckoutPlan,
  id: string,
): Promise<Problem<ProblemCode> | null> {
  const runs = runningHere(looking(stored.book, contextOf(site, stored), at, placeOf(tier, id)));
  const isHeld = runs !== undefined && stored.offers[runs.offer]?.tier === offer.tierId;
  if (tier.places === null || isHeld) return null;
  const { state } = await joiningStateOf(site, tier, at, { db, checkout: id });
  return state === 'sold-out' ? problem('checkout.full', { tier: tier.name }) : null;
}

const NOBODY: Payer = {
  gatewayAccountId: null,
  customerRef: null,
  methodRef: null,
  methodLabel: null,
  methodExpires: null,
};

/** Who pays, where that is known by now: what was chosen, or what pays for what runs already. */
function payerIn(
  { stored, site, at }: OpenBook,
  { account, tier }: CheckoutPlan,
  { keepCard: keeps, checkoutId }: CheckoutInput,
  chosen: Payer | null,
): Result<Payer> {
  if (!account) return done(NOBODY);
  if (chosen) return done(chosen);
  const runs = runningHere(looking(stored.book, contextOf(site, stored), at, placeOf(tier, checkoutId)));
  const kept = runs && stored.accounts.get(runs.id);
  if (!keeps || !kept?.methodRef || kept.gatewayAccountId !== account.id)
    return refusedField('card', 'checkout.saved-card-gone');
  const { gatewayAccountId, customerRef, methodRef, methodLabel, methodExpires } = kept;
  return done({ gatewayAccountId, customerRef, methodRef, methodLabel, methodExpires });
}

/** What a wallet is to be asked to approve, written before it is asked. */
async function agreementFor(
  { db, stored, at }: OpenBook,
  { account, offer, site }: CheckoutPlan,
  id: string,
): Promise<StoredAgreement | null> {
  const checkout = stored.book.checkouts.find((one) => one.id === id);
  if (checkout?.state !== 'approving' || !account || checkout.subscription === null) return null;
  return insertAgreement(db, {
    subscriptionId: checkout.subscription,
    mode: site.mode,
    gatewayAccountId: account.id,
    offerVersionId: offer.versionId,
    after: null,
    at,
  });
}

/** Asks the payer to approve, on the wallet's own page, what it will bill. The answer is that page. */
async function askWallet(
  { site, offer, tier, account }: CheckoutPlan,
  stored: StoredBook,
  agreement: StoredAgreement,
  { checkoutId }: CheckoutInput,
): Promise<Result<{ approveUrl: string }>> {
  const s = stored.book.subscriptions.find(({ id }) => id === agreement.subscriptionId);
  const first = stored.book.charges.find(
    ({ subscription, state }) => subscription === s?.id && state === 'open',
  );
  if (!s || !account) throw new Error(`checkout ${checkoutId} has no subscription`);
  const { skipTrial, skipFee } = s.place;
  const billed = skipFee ? { ...offer.definition, joiningFee: undefined } : offer.definition;
  const credit = first?.unused.reduce((sum, one) => sum + one.amount, 0) ?? 0;
  return beginAgreement(site, account, agreement, {
    currency: billed.currency,
    startsAt: agreement.at,
    stages: billingStages(billed, skipTrial, localDate(agreement.at, site.zone), credit),
    takesUp: null,
    returnUrl: `${config().SITE_URL}/join/approved/${checkoutId}`,
    note: `${site.name}: ${tier.name}`,
  });
}
