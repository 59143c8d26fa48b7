import { isBefore, type Instant } from '../calendar';
import { share } from '../money';
import type { Period } from '../offers/schedule';
import { hold, holdUntil, sinceOfSubscription } from './access';
import {
  named,
  type Attempt,
  type Charge,
  type ChargeKind,
  type Discount,
  type Subscription,
  type UnusedCredit,
} from './book';
import { giveUnused, reserve, spend, spendGiven } from './credit';
import { drop, end, leave } from './ending';
import { beginningAt } from '../offers/place';
import { renewalAt } from './renewal';
import { directionTo } from './switch-plan';
import { changed, daysAfter, nextOf, refuse, RUNNING, stretchesOf, type Work } from './work';

/** A subscription that is yet to be paid for; nothing is held by it. */
export function begin(
  { book, now }: Work,
  offer: string,
  {
    skipTrial,
    skipFee,
    discount = null,
  }: { skipTrial: boolean; skipFee: boolean; discount?: Discount | null },
): Subscription {
  const s: Subscription = {
    id: `s${book.subscriptions.length + 1}`,
    offer,
    state: 'pending',
    place: { anchor: now, from: { step: 0, n: 0 }, last: null, skipTrial, skipFee },
    beganAt: null,
    paidThrough: null,
    unpaid: null,
    firstFailedAt: null,
    dueAt: null,
    pauses: false,
    switchesTo: null,
    movesTo: null,
    discount,
    disputes: [],
    endedUnpaid: false,
    charges: 0,
    events: 0,
  };
  book.subscriptions.push(s);
  return s;
}

/** The first period of what was just begun. @throws Refused where nothing of the offer is left */
export function firstPeriod(work: Work, s: Subscription): Period {
  return nextOf(work, s) ?? refuse('nothing left');
}

/** Writes a charge, with its number, and asks for it; what credit or a discount leaves nothing of is paid at once. */
export function charge(
  work: Work,
  s: Subscription,
  kind: ChargeKind,
  period: Period,
  unused: UnusedCredit[] = [],
): void {
  const price = period.amount - period.joiningFee;
  const amount = discounted(s, price) + period.joiningFee;
  const fresh = unused.reduce((sum, one) => sum + one.amount, 0);
  const reserved = reserve(work.book, Math.max(0, amount - fresh));
  s.charges += 1;
  const written: Charge = {
    id: `${s.id}:${s.charges}`,
    subscription: s.id,
    kind,
    period,
    amount,
    joiningFee: period.joiningFee,
    credit: reserved,
    unused,
    due: Math.max(0, amount - fresh - reserved.reduce((sum, one) => sum + one.amount, 0)),
    state: 'open',
    attempts: [],
    usesDiscount: price > 0 && s.discount !== null && s.discount.charges !== 0,
  };
  work.book.charges.push(written);
  ask(work, written);
}

function discounted({ discount }: Subscription, price: number): number {
  if (!discount || discount.charges === 0) return price;
  const off = discount.amount ?? share(price, discount.share ?? 0, 100);
  return Math.max(0, price - off);
}

/** Has a charge collected once more. */
export function ask(work: Work, one: Charge): void {
  if (one.due === 0) return paid(work, one);
  const attempt: Attempt = { n: one.attempts.length + 1, at: work.now, state: 'asked' };
  one.attempts = [...one.attempts, attempt];
  work.asks.push({ charge: one.id, attempt: attempt.n, amount: one.due });
}

function answered(one: Charge, state: Attempt['state']): void {
  const last = one.attempts.at(-1);
  if (last) one.attempts = [...one.attempts.slice(0, -1), { ...last, state }];
}

/** A charge is paid, by money or by credit alone. Money for a dropped charge is returned. */
export function paid(work: Work, one: Charge): void {
  const { book, now } = work;
  if (one.state === 'paid') refuse('paid already');
  const isReturned = one.state === 'dropped';
  answered(one, isReturned ? 'returned' : 'succeeded');
  if (one.due > 0)
    book.payments.push({
      id: `p${book.payments.length + 1}`,
      charge: one.id,
      amount: one.due,
      at: now,
      refunded: 0,
      lost: 0,
      dispute: 'none',
      isReturned,
    });
  if (isReturned) return;
  const s = named(book.subscriptions, one.subscription);
  one.state = 'paid';
  const left = leftBy(work, one);
  const carries =
    left && directionTo(work, left, s.offer) === 'up'
      ? sinceOfSubscription(book, work.terms, left, now)
      : undefined;
  if (left && directionTo(work, left, s.offer) === 'up') book.hasSwitchedUp = true;
  const given = one.unused.flatMap((unused) => giveUnused(book, unused));
  spendGiven(book, one.id, given, one.amount);
  spend(book, one);
  if (one.usesDiscount && s.discount && s.discount.charges !== null)
    s.discount = { ...s.discount, charges: s.discount.charges - 1 };
  if (left) leave(work, left);
  if (one.kind === 'renewal') renewed(work, s, one);
  else settle(work, s, one, carries);
}

/** The subscription whose place the one of a paid switch takes. */
const leftBy = ({ book }: Work, { kind, subscription }: Charge): Subscription | undefined =>
  kind === 'switch'
    ? book.subscriptions.find((one) => one.id !== subscription && RUNNING.has(one.state))
    : undefined;

/** The period that was paid for is lived. */
function settle(work: Work, s: Subscription, one: Charge, carries: Instant | undefined): void {
  const { book, now, terms } = work;
  const { period } = one;
  // A version that it moved to while it was paused begins with the period that it is resumed by.
  if (one.kind === 'resume' && s.movesTo)
    Object.assign(s, { offer: s.movesTo, movesTo: null, place: { ...s.place, skipFee: true } });
  const isOnTime = isOnCalendar(work, s, one);
  if (!isOnTime) s.place = beginningAt(s.place, now, period);
  const lived = isOnTime ? period : (nextOf(work, s) ?? period);
  const skipFee = s.place.skipFee || period.joiningFee > 0;
  s.place = { ...s.place, skipFee, last: { step: lived.step, n: lived.n, to: lived.to } };
  s.state = period.kind === 'trial' ? 'trial' : 'active';
  s.beganAt ??= now;
  s.unpaid = null;
  s.firstFailedAt = null;
  s.endedUnpaid = false;
  live(work, s, one, lived);
  book.joinedAt ??= now;
  if (period.kind === 'trial') book.hadTrial = true;
  hold(book, terms, s, period.tier, now, { carries });
}

/** Whether the period is lived as it was expected: it is not over, and nothing had stopped. Else it begins now. */
function isOnCalendar({ now }: Work, { state, disputes }: Subscription, { kind, period }: Charge): boolean {
  if (kind === 'first' || kind === 'switch' || kind === 'resume') return false;
  if (state === 'ended' || state === 'paused' || disputes.length > 0) return false;
  return period.to === null || isBefore(now, period.to);
}

function live({ book }: Work, s: Subscription, { id }: Charge, period: Period): void {
  s.paidThrough = period.to;
  s.dueAt = period.to;
  changed(s);
  const { from, to } = period;
  book.stretches.push({ subscription: s.id, charge: id, period, from, to, isTakenBack: false });
}

/** A further length was paid for: it begins where the old ends, or now where it would be over already. */
function renewed(work: Work, s: Subscription, one: Charge): void {
  const { period } = one;
  const isOver = period.to !== null && !isBefore(work.now, period.to);
  s.state = 'active';
  live(work, s, one, isOver ? renewalAt(work, s, work.now) : period);
  hold(work.book, work.terms, s, period.tier, work.now);
}

/** The gateway has refused the charge for certain. */
export function declined(work: Work, one: Charge): void {
  const { book } = work;
  const s = named(book.subscriptions, one.subscription);
  const askedAt = one.attempts.at(-1)?.at ?? work.now;
  if (one.state === 'paid') refuse('paid already');
  answered(one, 'declined');
  if (one.state === 'dropped') return;
  if (one.kind === 'first') {
    s.unpaid = one.id;
  } else if (one.kind === 'period' || one.kind === 'down') {
    failed(work, s, one, askedAt);
  } else {
    drop(work, one);
    if (one.kind === 'switch') s.state = 'ended';
    for (const other of book.subscriptions) if (other.state === 'overdue') awaitRetry(work, other, askedAt);
  }
}

function failed(work: Work, s: Subscription, one: Charge, askedAt: Instant): void {
  const first = (s.firstFailedAt ??= work.now);
  s.unpaid = one.id;
  s.state = 'overdue';
  holdUntil(work.book, s, daysAfter(work, first, work.terms.settings.graceDays), work.now);
  changed(s);
  awaitRetry(work, s, askedAt);
}

/** The next retry; one that passed while an attempt was under way is left out. After the last it ends, unpaid. */
function awaitRetry(work: Work, s: Subscription, askedAt: Instant): void {
  const { now, terms } = work;
  const first = s.firstFailedAt ?? now;
  // What was asked for earlier is settled before a retry of this very instant.
  const isAhead = (at: Instant): boolean => isBefore(now, at) || (at === now && isBefore(askedAt, now));
  s.dueAt = terms.settings.retryDays.map((n) => daysAfter(work, first, n)).find(isAhead) ?? null;
  if (s.dueAt === null) end(work, s, { unpaid: true });
}

/** Takes a cancel back, as an undo and a renewal do. */
export function undoCancel(work: Work, s: Subscription): void {
  s.state = stretchesOf(work, s).at(-1)?.period.kind === 'trial' ? 'trial' : 'active';
  changed(s);
}
