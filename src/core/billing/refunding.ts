import { isBefore } from '../calendar';
import { holdUntil } from './access';
import { named, own, type Charge, type Payment, type Subscription } from './book';
import { refundable, takeBackUses, voidCreditOf } from './credit';
import { end } from './ending';
import { renewalAt } from './renewal';
import { changed, refuse, stretchesOf, underWay, type Work } from './work';

/** Gives money of a payment back, and takes the stretch that it paid for where that is asked. */
export function refund(work: Work, payment: Payment, asked: number | 'all', access: 'take' | 'keep'): void {
  const { book } = work;
  const of = named(book.charges, payment.charge);
  const s = named(book.subscriptions, of.subscription);
  if (payment.isReturned) refuse('returned');
  if (payment.dispute === 'open') refuse('disputed');
  const busy = underWay(work)?.kind;
  if (busy === 'switch' || busy === 'renewal' || busy === 'resume') refuse('under way');
  const most = refundable(book, payment);
  const amount = asked === 'all' ? most : asked;
  if (amount <= 0 || amount > most) refuse('too much');
  own(book.payments, payment).refunded += amount;
  voidCreditOf(book, payment.id);
  changed(s);
  if (access === 'take') takeStretch(work, s, of);
}

function takeStretch(work: Work, s: Subscription, of: Charge): void {
  const { book, now } = work;
  const stretch = stretchesOf(work, s).find((one) => one.charge === of.id);
  if (!stretch) return;
  takeBackUses(book, of.id);
  if (stretch.to !== null && !isBefore(now, stretch.to)) return;
  own(book.stretches, stretch).isTakenBack = true;
  if (s.state === 'ended') return holdUntil(book, s, now, now);
  const left = stretchesOf(work, s).filter((one) => one.to === null || isBefore(now, one.to));
  if (left.length === 0) return end(work, s);
  // What was renewed later moves up.
  let from = isBefore(now, stretch.from) ? stretch.from : now;
  for (const later of left.filter((one) => !isBefore(one.from, stretch.from))) {
    const { to } = renewalAt(work, s, from);
    Object.assign(own(book.stretches, later), { from, to });
    from = to ?? from;
  }
  s.paidThrough = stretchesOf(work, s).at(-1)?.to ?? null;
  s.dueAt = s.paidThrough;
}
