import type { Instant } from '../instants';
import {
  copyOf,
  named,
  type Ask,
  type Book,
  type Method,
  type Notice,
  type Subscription,
  type BillingContext,
  type Track,
} from './book';
import { declined, paid } from './charging';
import { approved, expire, followCheckouts, notApproved, submit } from './checkout';
import { loseDispute, openDispute, winDispute } from './disputing';
import { billed, closeEnds, due } from './due';
import { end } from './ending';
import type { Event } from './event';
import { erase, extend, give, merge, takeBack } from './giving';
import { changeMethod, join, lastDeclined, lateSuccess, payNow, renew, takeUnusable } from './joining';
import { abandon, buy } from './buying';
import { refuseUnknownEdges } from './life';
import { refund, refunded, refundedThere, refundRefused } from './refunding';
import { cancel, cancelNow, pause, resume, takeAway, undo } from './stopping';
import { move, quote, switchTo, takeBackSwitch } from './switching';
import { current, paymentNamed, refuse, Refused, refuseUnderWay, type Refusal, type Work } from './work';

/** The book afterwards, what gateways are to be asked for once it is stored, and what people are told; or why nothing was done. */
export type Stepped = { ok: true; book: Book; asks: Ask[]; notices: Notice[] } | { ok: false; why: Refusal };

/** What an event does to a member's book at an instant. Pure: the book that is given stays as it is. */
export function step(book: Book, event: Event, context: BillingContext, now: Instant): Stepped {
  const { track, slot } = trackOf(book, event, context);
  const work: Work = {
    track,
    slot,
    book: copyOf(book),
    context,
    now,
    asks: [],
    notices: [],
  };
  try {
    take(work, event);
    followCheckouts(work);
    closeEnds(work);
  } catch (error) {
    if (error instanceof Refused) return { ok: false, why: error.message as Refusal };
    throw error;
  }
  // A merge brings in what has gone its way in another book.
  if (event.do !== 'merge') refuseUnknownEdges(book, work.book, event.do);
  return { ok: true, book: work.book, asks: work.asks, notices: work.notices };
}

/** The ladder on which an event happens: of what it names, else the only one of the context. */
function trackOf(book: Book, event: Event, context: BillingContext): Track {
  const at = (one: Track | undefined): Track | null => (one ? { track: one.track, slot: one.slot } : null);
  const ofCharge = (id: string | undefined) => {
    const charge = book.charges.find((one) => one.id === id);
    return at(book.subscriptions.find((one) => one.id === charge?.subscription));
  };
  const ofPayment = (id: string | undefined) => ofCharge(book.payments.find((one) => one.id === id)?.charge);
  const only = { track: Object.keys(context.ladders)[0] ?? '', slot: '' };
  const found = (): Track | null => {
    if ('track' in event && event.track !== undefined) return { track: event.track, slot: event.slot ?? '' };
    if ('subscription' in event) return at(book.subscriptions.find((one) => one.id === event.subscription));
    if ('checkout' in event) return at(book.checkouts.find((one) => one.id === event.checkout));
    if ('charge' in event) return ofCharge(event.charge);
    if ('payment' in event) return ofPayment(event.payment);
    if ('refund' in event) return ofPayment(book.refunds.find((one) => one.id === event.refund)?.payment);
    return null;
  };
  return found() ?? only;
}

function take(work: Work, event: Event): void {
  const { book } = work;
  refuseOther(work, event);
  switch (event.do) {
    case 'join':
      return join(work, event.offer, event.discount ?? null, methodOf(event.method));
    case 'submit':
      return submit(work, event);
    case 'approved':
      return approved(work, named(book.checkouts, event.checkout), event.bill);
    case 'not-approved':
      return notApproved(named(book.checkouts, event.checkout));
    case 'expire':
      return event.checkout === undefined
        ? expireFirst(work)
        : expire(work, named(book.checkouts, event.checkout));
    case 'due':
      return due(work);
    case 'paid':
      return paid(work, named(book.charges, event.charge), event);
    case 'declined':
      return declined(work, named(book.charges, event.charge), event);
    case 'late-success':
      return lateSuccess(
        work,
        event.charge === undefined ? lastDeclined(work) : named(book.charges, event.charge),
        event,
      );
    case 'unusable':
      return takeUnusable(work, named(book.charges, event.charge), event);
    case 'billed':
      return billed(work, subscriptionNamed(work, event.subscription), event);
    case 'pay-now':
      return payNow(work);
    case 'method':
      return changeMethod(work, subscriptionNamed(work, event.subscription), event.method);
    case 'cancel':
      return cancel(work);
    case 'cancel-now':
      return cancelNow(work);
    case 'take-away':
      return takeAway(work, subscriptionNamed(work, event.subscription));
    case 'undo':
      return undo(work);
    case 'pause':
      return pause(work);
    case 'resume':
      return resume(work);
    case 'renew':
      return renew(work, event.method);
    case 'quote':
      return quote(work, event.to);
    case 'switch':
      return switchTo(work, event.to, {
        byQuote: event.quote,
        method: event.method === false ? null : event.method,
      });
    case 'take-back':
      return takeBackSwitch(work);
    case 'move':
      return move(work, event.to);
    case 'refund':
      return refund(work, paymentNamed(work, event.payment), event.amount, event.access, event);
    case 'refunded':
      return refunded(work, named(book.refunds, event.refund), event.ref);
    case 'refund-refused':
      return refundRefused(work, named(book.refunds, event.refund));
    case 'refunded-there':
      return refundedThere(work, paymentNamed(work, event.payment), event.amount, event.ref);
    case 'dispute':
      return openDispute(work, paymentNamed(work, event.payment));
    case 'dispute-won':
      return winDispute(work, paymentNamed(work, event.payment));
    case 'dispute-lost':
      return loseDispute(work, paymentNamed(work, event.payment));
    case 'buy':
      return buy(work, event);
    case 'abandon':
      return abandon(work, event.purchase);
    case 'give':
      return give(work, 'gift', event);
    case 'import':
      return give(work, 'import', event);
    case 'extend':
      return extend(work, event.holding, event.to);
    case 'take':
      return takeBack(work, event.holding);
    case 'merge':
      return merge(work, event.book);
    case 'erase':
      return erase(work);
  }
}

const methodOf = (method: Method | null | undefined): Method | null =>
  method === undefined ? { nature: 'card' } : method;

const subscriptionNamed = ({ book }: Work, id: string): Subscription =>
  book.subscriptions.find((one) => one.id === id) ?? refuse('nothing-runs');

/** What is named has to be what runs: a page that was opened before may speak of what has ended since. */
function refuseOther(work: Work, event: Event): void {
  if (!('subscription' in event) || event.subscription === undefined || event.do === 'billed') return;
  const named = subscriptionNamed(work, event.subscription);
  if (event.do === 'renew' && named.state === 'ended') return;
  if (event.do === 'due' || event.do === 'method' || event.do === 'take-away') return;
  if (current(work)?.id !== named.id) refuse('ended');
}

/** A first payment that was never made. */
function expireFirst(work: Work): void {
  const s = current(work);
  if (s?.state !== 'pending') return refuse('nothing-pending');
  refuseUnderWay(work);
  end(work, s);
}
