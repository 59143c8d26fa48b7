import { isBefore } from '../instants';
import { holdUntil } from './access';
import { named, own, type Charge, type Payment, type Refund, type Subscription } from './book';
import { refundable, takeBackUses, voidCreditOf } from './credit';
import { end } from './ending';
import { takePurchase } from './purchasing';
import { renewalAt } from './renewal';
import { changed, refuse, stretchesOf, tell, underWay, type Work } from './work';

/** Money of a payment is to be refunded: the gateway is asked. `access: 'take'`: with the stretch that it paid for. */
export function refund(
  work: Work,
  payment: Payment,
  asked: number | 'all',
  access: 'take' | 'keep',
  { id = work.context.newId(), reason = '' }: { id?: string; reason?: string } = {},
): void {
  const { book, now } = work;
  if (payment.isReturned) refuse('returned');
  refuseWhileBusy(work, payment);
  if (book.refunds.some((one) => one.payment === payment.id && one.state === 'asked')) refuse('under-way');
  const most = refundable(book, payment);
  const amount = asked === 'all' ? most : asked;
  if (amount <= 0 || amount > most) refuse('too-much');
  book.refunds.push({
    id,
    payment: payment.id,
    amount,
    at: now,
    access,
    reason,
    key: id,
    ref: null,
    state: 'asked',
  });
  tell(work, 'refund-asked', ownerOf(work, payment), { refund: id });
  work.asks.push({ do: 'refund', refund: id });
}

/** The gateway has refunded what it was asked for, or of its own accord. */
export function refunded(work: Work, one: Refund, ref: string | null = null): void {
  const { book } = work;
  if (one.state !== 'asked') refuse('known');
  Object.assign(one, { state: 'succeeded', ref });
  const payment = named(book.payments, one.payment);
  own(book.payments, payment).refunded += one.amount;
  voidCreditOf(book, payment.id);
  const s = ownerOf(work, payment);
  tell(work, 'refunded', s, { refund: one.id });
  if (payment.isReturned) return;
  if (s) changed(work, s);
  if (one.access === 'keep') return;
  const of = named(book.charges, payment.charge);
  if (s) takeStretch(work, s, of);
  else takePurchase(work, of);
}

export function refundRefused(work: Work, one: Refund): void {
  if (one.state !== 'asked') refuse('known');
  one.state = 'refused';
  tell(work, 'refund-refused', ownerOf(work, named(work.book.payments, one.payment)), { refund: one.id });
}

/** A refund that was made at the gateway itself, also in a dispute; access stays, for nobody here decided otherwise. */
export function refundedThere(work: Work, payment: Payment, amount: number, ref: string): void {
  refuseWhileUnderWay(work);
  const id = work.context.newId();
  const one: Refund = {
    id,
    payment: payment.id,
    amount: Math.min(amount, payment.amount - payment.refunded - payment.lost),
    at: work.now,
    access: 'keep',
    reason: 'at the gateway',
    key: id,
    ref,
    state: 'asked',
  };
  work.book.refunds.push(one);
  refunded(work, one, ref);
}

function refuseWhileBusy(work: Work, payment: Payment): void {
  if (payment.dispute === 'open') refuse('disputed');
  refuseWhileUnderWay(work);
}

/** What is under way may be spending credit of the payment. */
function refuseWhileUnderWay(work: Work): void {
  const busy = underWay(work)?.kind;
  if (busy === 'switch' || busy === 'renewal' || busy === 'resume') refuse('under-way');
}

const ownerOf = ({ book }: Work, payment: Payment): Subscription | null => {
  const { subscription } = named(book.charges, payment.charge);
  return subscription === null ? null : named(book.subscriptions, subscription);
};

function takeStretch(work: Work, s: Subscription, of: Charge): void {
  const { book, now } = work;
  const stretch = stretchesOf(work, s).find((one) => one.charge === of.id);
  if (!stretch) return;
  takeBackUses(book, of.id);
  if (stretch.to !== null && !isBefore(now, stretch.to)) return;
  own(book.stretches, stretch).isTakenBack = true;
  if (s.state === 'ended') return holdUntil(work, s, now);
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
