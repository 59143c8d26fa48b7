import { isBefore } from '../instants';
import { beginningAt } from '../offers/place';
import { hold, holdUntil, lastHolding } from './access';
import { named, own, type Payment, type Subscription } from './book';
import { ask } from './charging';
import { voidCreditOf } from './credit';
import { chargeNext, endOfPaid, placeFrom } from './due';
import { end } from './ending';
import { takePurchase } from './purchasing';
import { RUNNING } from './states';
import { changed, nextOf, refuse, refuseUnderWay, tell, type Work } from './work';

/** Its own subscription, and those that spent credit of it, are suspended while they run; its credit is frozen. */
export function openDispute(work: Work, payment: Payment): void {
  if (payment.isReturned || payment.dispute !== 'none' || payment.refunded >= payment.amount)
    refuse('disputed');
  refuseUnderWay(work);
  own(work.book.payments, payment).dispute = 'open';
  for (const s of suspendedBy(work, payment)) {
    s.disputes = [...s.disputes, payment.id];
    holdUntil(work, s, work.now);
    changed(work, s);
    tell(work, 'dispute-opened', s);
  }
  tellOfPurchase(work, payment, 'dispute-opened');
}

/** What was bought once is no subscription: its news names the charge. */
function tellOfPurchase(
  work: Work,
  payment: Payment,
  kind: 'dispute-opened' | 'dispute-won' | 'dispute-lost',
): void {
  const of = named(work.book.charges, payment.charge);
  if (of.purchase !== null) tell(work, kind, null, { charge: of.id });
}

function suspendedBy({ book }: Work, payment: Payment): Subscription[] {
  const spent = book.uses.filter(
    ({ amount, credit }) => amount > 0 && named(book.credits, credit).payment === payment.id,
  );
  const ids = [payment.charge, ...spent.map((use) => use.charge)].map(
    (id) => named(book.charges, id).subscription,
  );
  return book.subscriptions.filter((one) => ids.includes(one.id) && RUNNING.has(one.state));
}

export function winDispute(work: Work, payment: Payment): void {
  if (payment.dispute !== 'open') refuse('not-disputed');
  own(work.book.payments, payment).dispute = 'won';
  for (const s of work.book.subscriptions.filter((one) => one.disputes.includes(payment.id))) {
    s.disputes = s.disputes.filter((id) => id !== payment.id);
    changed(work, s);
    tell(work, 'dispute-won', s);
    if (s.disputes.length === 0) restore({ ...work, track: s.track, slot: s.slot }, s);
  }
  tellOfPurchase(work, payment, 'dispute-won');
}

/** Resumes what a dispute suspended; what fell due meanwhile begins now. */
function restore(work: Work, s: Subscription): void {
  const { book, now } = work;
  if (s.state === 'paused') return;
  const isOver = s.paidThrough !== null && !isBefore(now, s.paidThrough);
  if (isOver && (s.pauses || s.switchesTo || s.state === 'cancelling')) return endOfPaid(work, s, now);
  const held = lastHolding(book, s.id);
  if (held) hold(work, s, held.tier, held.since);
  if (s.state === 'overdue') {
    const unpaid = named(book.charges, s.unpaid);
    s.firstFailedAt = null;
    s.place = beginningAt(s.place, now, unpaid.period);
    unpaid.period = nextOf(work, s) ?? unpaid.period;
    return ask(work, unpaid, s.method);
  }
  if (!isOver) return;
  if (!s.movesTo) s.place = placeFrom(work, s, now);
  chargeNext(work, s, now);
}

/** The gateway has taken the money back. */
export function loseDispute(work: Work, payment: Payment): void {
  if (payment.dispute !== 'open') refuse('not-disputed');
  const { book } = work;
  Object.assign(own(book.payments, payment), { dispute: 'lost', lost: payment.amount - payment.refunded });
  voidCreditOf(book, payment.id);
  for (const s of book.subscriptions)
    if (s.disputes.includes(payment.id)) end(work, s, { notice: 'dispute-lost' });
  const of = named(book.charges, payment.charge);
  if (of.purchase !== null) takePurchase(work, of);
  tellOfPurchase(work, payment, 'dispute-lost');
}
