import { isPaid } from '../offers/offer';
import {
  named,
  type Charge,
  type Checkout,
  type Discount,
  type Method,
  type Subscription,
  type Track,
} from './book';
import { ask, attemptOf, begin, declined, paid } from './charging';
import { end, withdraw } from './ending';
import { beginAgain, changeMethod, joins, standsBeside, writeFirst } from './joining';
import { planSwitch } from './switch-plan';
import { quoted, switches } from './switching';
import {
  askedOf,
  isOn,
  offerNamed,
  refuse,
  refuseDisputed,
  Refused,
  runningHere,
  underWay,
  type Refusal,
  type Work,
} from './work';

export type Submitted = Track & {
  checkout: string;
  offer: string;
  method: Method | null;
  discount?: Discount | null;
  /** It accepts the quote of a switch. */
  byQuote: boolean;
  /** What the page said is due now; minor units. Null: nothing was shown. */
  due: number | null;
};

/**
 * Why a checkout for an offer cannot go ahead now; null if it can. The page, the button and
 * the resumed checkout all ask here.
 */
export function obstacle(work: Work, offer: string, id: string | null): Refusal | null {
  try {
    refuseObstacle(work, offer, id);
    return null;
  } catch (error) {
    if (error instanceof Refused) return error.message as Refusal;
    throw error;
  }
}

/** @throws Refused */
function refuseObstacle(work: Work, offer: string, id: string | null): void {
  const { book } = work;
  const own = book.checkouts.find((one) => one.id === id);
  if (own?.state === 'done') refuse('already');
  if (own?.state === 'expired') refuse('expired');
  if (own?.state === 'charging') refuse('under-way');
  const isBusy = ({ state }: Checkout) => state === 'charging' || state === 'awaiting';
  if (book.checkouts.some((one) => one !== own && isOn(work, one) && isBusy(one))) refuse('elsewhere');
  offerNamed(work, offer);
  // A renewal after the end has no checkout, and makes something begin as well.
  const busy = underWay(work);
  if (busy && busy.subscription !== own?.subscription) refuse('under-way');
  const runs = runningHere(work);
  if (!runs || standsBeside(work, runs)) return runs && runs.offer === offer ? refuse('held') : undefined;
  if (runs.offer === offer) refuse('held');
  refuseDisputed(runs);
  planSwitch(work, runs, offer);
}

/** The button of a checkout is pressed. */
export function submit(work: Work, input: Submitted): void {
  const { book } = work;
  const { checkout: id, offer, method, due } = input;
  const own = checkoutOf(work, input);
  refuseObstacle(work, offer, id);
  if (isPaid(offerNamed(work, offer)) && !method) refuse('no-method');
  if (own.state === 'awaiting') return payAnotherWay(work, own, method);
  for (const other of book.checkouts) if (other !== own && isOn(work, other)) forget(work, other);
  // So does a renewal that was declined: it has no checkout.
  for (const s of book.subscriptions)
    if (s.state === 'pending' && isOn(work, s) && s.id !== own.subscription) end(work, s);
  const runs = runningHere(work);
  const isSwitch = runs !== undefined && !standsBeside(work, runs);
  // A switch is made at the price that was shown for it, and nothing else by such a price.
  if (isSwitch && !input.byQuote) refuse('held');
  if (input.byQuote && !isSwitch) refuse('quote-void');
  const unused = isSwitch ? planOf(work, runs, input).unused : [];
  const beginning = isSwitch ? switches(runs, method) : joins(work, method, input.discount ?? null);
  const known = book.subscriptions.find((one) => one.id === own.subscription);
  const s = known ?? begin(work, offer, beginning);
  if (known) beginAgain(work, s, offer, beginning);
  own.subscription = s.id;
  own.replacedEvents = isSwitch ? runs.events : null;
  const first = writeFirst(work, s, unused);
  if (due !== null && due !== first.due) refuse('another-price');
  if (method?.nature === 'wallet') own.state = 'approving';
  else ask(work, first, method);
}

/** What begins at once by a quote that was shown; what comes later is no checkout. */
function planOf(work: Work, s: Subscription, { offer }: Submitted) {
  const plan = quoted(work, s, offer);
  return plan.atOnce ? plan : refuse('not-now');
}

function checkoutOf(work: Work, { checkout: id }: Submitted): Checkout {
  const known = work.book.checkouts.find((one) => one.id === id);
  if (known) return known;
  const { track, slot, now } = work;
  const made: Checkout = {
    id,
    track,
    slot,
    state: 'open',
    subscription: null,
    at: now,
    replacedEvents: null,
  };
  work.book.checkouts.push(made);
  return made;
}

/** A transfer is awaited, and the person pays another way after all: of the same charge, which keeps its reference. */
function payAnotherWay(work: Work, own: Checkout, method: Method | null): void {
  const s = named(work.book.subscriptions, own.subscription);
  if (!method) return refuse('no-method');
  if (method.nature !== 'wallet') return changeMethod(work, s, method);
  s.method = method;
  withdraw(openOf(work, own));
  own.state = 'approving';
}

/** The charge that a checkout is to pay. @throws where it has none */
const openOf = ({ book }: Work, { subscription }: Checkout): Charge => {
  const found = book.charges.find((one) => one.subscription === subscription && one.state === 'open');
  return found ?? refuse('nothing-pending');
};

/** A checkout is replaced by another: what it would have begun is discarded, and its credit is free again. */
function forget(work: Work, own: Checkout): void {
  if (own.state === 'done' || own.state === 'expired') return;
  const s = work.book.subscriptions.find((one) => one.id === own.subscription);
  if (s && s.state !== 'ended') end(work, s);
  own.subscription = null;
  own.state = 'open';
}

/**
 * The payer has approved at the wallet. `bill`: its first, where something was due; with a code where that was not paid.
 * @throws Refused where what was approved has changed since
 */
export function approved(work: Work, own: Checkout, bill: { ref: string; code?: string } | null): void {
  if (own.state !== 'approving') refuse('nothing-pending');
  const s = named(work.book.subscriptions, own.subscription);
  const one = openOf(work, own);
  const runs = runningHere(work);
  if (runs && runs.id !== s.replaces) refuse('held');
  if (runs) refuseDisputed(runs);
  if (underWay(work)) refuse('under-way');
  // A switch was approved at its price, which anything that has happened since makes void.
  if (runs && own.replacedEvents !== null && own.replacedEvents !== runs.events) refuse('quote-void');
  own.state = 'open';
  if (one.due === 0) return paid(work, one);
  if (!bill) return refuse('nothing-due');
  attemptOf(work, one, s.method, true);
  if (bill.code) declined(work, one, { ref: bill.ref, code: bill.code });
  else paid(work, one, { ref: bill.ref });
}

/** The payer has refused at the wallet, or what they approved holds no more: the button can be pressed again. */
export function notApproved(own: Checkout): void {
  if (own.state !== 'approving') refuse('nothing-pending');
  own.state = 'open';
}

/** A checkout that was never paid has expired. */
export function expire(work: Work, own: Checkout): void {
  if (own.state === 'done' || own.state === 'expired') refuse('already');
  if (own.state === 'charging' || own.state === 'awaiting') refuse('under-way');
  forget(work, own);
  own.state = 'expired';
}

/** How far each checkout has come follows from what it began. */
export function followCheckouts({ book }: Work): void {
  for (const own of book.checkouts) {
    if (own.state === 'confirming' || own.state === 'done' || own.state === 'expired') continue;
    const s = book.subscriptions.find((one) => one.id === own.subscription);
    const open = book.charges.find((one) => one.subscription === s?.id && one.state === 'open');
    if (!s) own.state = 'open';
    else if (s.beganAt !== null) own.state = 'done';
    else if (s.state === 'ended') own.state = 'expired';
    else if (open && askedOf(open)) own.state = askedOf(open)?.until ? 'awaiting' : 'charging';
    else if (own.state !== 'approving' || !open) own.state = 'open';
  }
}
