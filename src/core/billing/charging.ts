import { isBefore, type Instant } from '../instants';
import { afterCharge, discounted, hasLeft } from './discount';
import { beginningAt } from '../offers/place';
import type { Period } from '../offers/schedule';
import { hold, holdUntil, sinceOfSubscription } from './access';
import {
  named,
  type Attempt,
  type Charge,
  type ChargeKind,
  type Discount,
  type Method,
  type Subscription,
  type UnusedCredit,
} from './book';
import { giveUnused, reserve, spend, spendGiven } from './credit';
import { drop, end, finish, leave } from './ending';
import { bought } from './purchasing';
import { renewalAt } from './renewal';
import { RUNNING } from './states';
import { directionTo } from './switch-plan';
import {
  askedOf,
  changed,
  daysAfter,
  lastAttempt,
  nextOf,
  offerOf,
  refuse,
  stretchesOf,
  summaryOf,
  tell,
  type Work,
} from './work';

export type Beginning = {
  begunBy: Subscription['begunBy'];
  method: Method | null;
  skipTrial: boolean;
  skipFee: boolean;
  replaces?: string | null;
  discount?: Discount | null;
};

/** A subscription that is yet to be paid for; nothing is held by it. */
export function begin(work: Work, offer: string, beginning: Beginning): Subscription {
  const s: Subscription = {
    id: work.context.newId(),
    track: work.track,
    slot: work.slot,
    state: 'pending',
    beganAt: null,
    endedAt: null,
    paidThrough: null,
    unpaid: null,
    firstFailedAt: null,
    dueAt: null,
    changedAt: null,
    pauses: false,
    switchesTo: null,
    movesTo: null,
    disputes: [],
    endedUnpaid: false,
    charges: 0,
    events: 0,
    ...beginsAs(work, offer, beginning),
  };
  work.book.subscriptions.push(s);
  return s;
}

/** What a checkout decides of the subscription that it begins. */
export const beginsAs = (
  { now }: Work,
  offer: string,
  { begunBy, method, skipTrial, skipFee, replaces = null, discount = null }: Beginning,
): Pick<Subscription, 'offer' | 'begunBy' | 'replaces' | 'method' | 'place' | 'discount'> => ({
  offer,
  begunBy,
  replaces,
  method,
  place: { anchor: now, from: { step: 0, n: 0 }, last: null, skipTrial, skipFee },
  discount,
});

/** The first period of what was just begun. @throws Refused where nothing of the offer is left */
export function firstPeriod(work: Work, s: Subscription): Period {
  return nextOf(work, s) ?? refuse('nothing-left');
}

/** Writes a charge, with its number and the credit that is reserved for it. */
export function write(
  work: Work,
  s: Subscription,
  kind: ChargeKind,
  period: Period,
  { unused = [], isMove = false }: { unused?: UnusedCredit[]; isMove?: boolean } = {},
): Charge {
  const price = period.amount - period.joiningFee;
  const amount = discounted(s.discount, price) + period.joiningFee;
  const { currency } = offerOf(work, s);
  const fresh = unused.reduce((sum, one) => sum + one.amount, 0);
  // A wallet bills what was agreed: nothing can be taken off a single bill of it.
  const reserved =
    s.method?.nature === 'wallet' ? [] : reserve(work.book, Math.max(0, amount - fresh), currency);
  s.charges += 1;
  const written: Charge = {
    id: work.context.newId(),
    subscription: s.id,
    purchase: null,
    number: s.charges,
    kind,
    period,
    currency,
    amount,
    joiningFee: period.joiningFee,
    credit: reserved,
    unused,
    due: Math.max(0, amount - fresh - reserved.reduce((sum, one) => sum + one.amount, 0)),
    state: 'open',
    attempts: [],
    usesDiscount: price > 0 && hasLeft(s.discount),
    isMove,
  };
  work.book.charges.push(written);
  return written;
}

/** Writes a charge and asks for it; what credit or a discount leaves nothing of is paid at once. */
export function charge(
  work: Work,
  s: Subscription,
  kind: ChargeKind,
  period: Period,
  more: { unused?: UnusedCredit[]; isMove?: boolean } = {},
): void {
  ask(work, write(work, s, kind, period, more), s.method);
}

/** Has a charge collected once more. Where there is no method, that fails at once. */
export function ask(work: Work, one: Charge, method: Method | null, byMember = false): void {
  if (one.due === 0) return paid(work, one);
  const attempt = attemptOf(work, one, method, byMember);
  if (!method) return declined(work, one, { code: 'no-method' });
  work.asks.push({ do: 'collect', charge: one.id, attempt: attempt.id });
}

/** An attempt, written before the gateway is asked. */
export function attemptOf(work: Work, one: Charge, method: Method | null, byMember = false): Attempt {
  const attempt: Attempt = {
    id: work.context.newId(),
    n: one.attempts.length + 1,
    at: work.now,
    state: 'asked',
    until: method?.nature === 'transfer' ? daysAfter(work, work.now, method.waitDays) : null,
    byMember,
    ref: null,
    code: null,
  };
  one.attempts = [...one.attempts, attempt];
  return attempt;
}

/** How an attempt ended, as the gateway told it. Without an id: the last one. */
export type Answer = { attempt?: string; ref?: string | null; code?: string };

export const attemptNamed = (one: Charge, id: string | undefined): Attempt | undefined =>
  id === undefined ? (askedOf(one) ?? lastAttempt(one)) : one.attempts.find((each) => each.id === id);

export function setAttempt(one: Charge, { id }: Attempt, to: Partial<Attempt>): void {
  one.attempts = one.attempts.map((each) => (each.id === id ? { ...each, ...to } : each));
}

/**
 * A charge is paid, by money or by credit alone. Money for what is dropped, or paid already, is noted as returned.
 * @throws Refused where the attempt has succeeded before, or another one is under way
 */
export function paid(work: Work, one: Charge, { attempt: id, ref = null }: Answer = {}): void {
  const { book, now } = work;
  const attempt = attemptNamed(one, id);
  if (attempt?.state === 'succeeded') refuse('known');
  const asked = askedOf(one);
  if (asked && asked !== attempt) refuse('under-way');
  const isReturned = one.state !== 'open';
  const mine = one.state === 'paid' ? { ...one } : one;
  if (attempt) {
    if (one.state === 'paid') book.charges[book.charges.indexOf(one)] = mine;
    setAttempt(mine, attempt, { state: 'succeeded', ref });
    book.payments.push({
      id: attempt.id,
      charge: one.id,
      amount: one.due,
      at: now,
      refunded: 0,
      lost: 0,
      dispute: 'none',
      isReturned,
    });
  }
  const s = one.subscription === null ? null : named(book.subscriptions, one.subscription);
  if (isReturned) return giveBack(work, one, s, attempt);
  one.state = 'paid';
  const left = s && leftBy(work, one, s);
  const isUp = left && one.kind === 'switch' && directionTo(work, left, s.offer) === 'up';
  const carries = isUp ? sinceOfSubscription(book, work.context, left, now) : undefined;
  if (isUp) summaryOf(work).hasSwitchedUp = true;
  const given = one.unused.flatMap((unused) => giveUnused(work, unused));
  spendGiven(book, one.id, given, one.amount);
  spend(book, one);
  if (!s) return bought(work, one);
  if (one.usesDiscount) s.discount = afterCharge(s.discount, one.period.amount - one.period.joiningFee);
  if (left && one.kind === 'switch') leave(work, left);
  // What is kept for good stays as it is, and the other tier is held beside it.
  else if (left) finish(work, left);
  if (attempt) tell(work, 'paid', s, { charge: one.id });
  if (one.kind === 'renewal') renewed(work, s, one);
  else settle(work, s, one, carries);
}

/** Money that paid for nothing is returned, all of it. */
function giveBack(work: Work, one: Charge, s: Subscription | null, attempt: Attempt | undefined): void {
  const { book, now, context } = work;
  tell(work, 'returned', s, { charge: one.id });
  if (!attempt) return;
  const id = context.newId();
  book.refunds.push({
    id,
    payment: attempt.id,
    amount: one.due,
    at: now,
    access: 'keep',
    reason: 'nothing followed from it',
    key: id,
    ref: null,
    state: 'asked',
  });
  work.asks.push({ do: 'refund', refund: id });
}

/** The subscription that runs until this charge is paid: it makes place. */
const leftBy = ({ book }: Work, { kind }: Charge, s: Subscription): Subscription | undefined =>
  kind === 'switch' || kind === 'first'
    ? book.subscriptions.find(
        (one) => one.id !== s.id && one.track === s.track && one.slot === s.slot && RUNNING.has(one.state),
      )
    : undefined;

/** The period that was paid for is lived. */
function settle(work: Work, s: Subscription, one: Charge, carries: Instant | undefined): void {
  const { now } = work;
  const { period } = one;
  // A version that it moved to while it was paused begins with the period that it is resumed by.
  const isMove = one.kind === 'resume' && s.movesTo !== null;
  if (one.kind === 'resume' && s.movesTo)
    Object.assign(s, { offer: s.movesTo, movesTo: null, place: { ...s.place, skipFee: true } });
  tellOf(work, s, one, isMove);
  const isOnTime = isOnCalendar(work, s, one);
  if (!isOnTime) s.place = beginningAt(s.place, now, period);
  const lived = isOnTime ? period : (nextOf(work, s) ?? period);
  const skipFee = s.place.skipFee || period.joiningFee > 0;
  s.place = { ...s.place, skipFee, last: { step: lived.step, n: lived.n, to: lived.to } };
  s.state = period.kind === 'trial' ? 'trial' : 'active';
  s.beganAt ??= now;
  s.endedAt = null;
  s.unpaid = null;
  s.firstFailedAt = null;
  s.endedUnpaid = false;
  live(work, s, one, lived);
  const summary = summaryOf(work);
  summary.joinedAt ??= now;
  if (period.kind === 'trial') summary.hadTrial = true;
  hold(work, s, period.tier, carries);
}

/** What a payment is news of, besides itself. */
function tellOf(work: Work, s: Subscription, { kind, isMove, id, number }: Charge, movesNow: boolean): void {
  const more = { charge: id };
  if (kind === 'first') return tell(work, s.beganAt ? 'begun-anew' : 'joined', s, more);
  if (kind === 'switch') return tell(work, 'switched', s, more);
  if (isMove || movesNow || (kind === 'down' && number === 1)) tell(work, 'moved', s, more);
  if (kind === 'resume') tell(work, 'resumed', s, more);
  else if (s.state === 'ended') tell(work, 'begun-anew', s, more);
}

/** Whether the period is lived as it was expected: it is not over, and nothing had stopped. Else it begins now. */
function isOnCalendar({ now }: Work, { state, disputes }: Subscription, { kind, period }: Charge): boolean {
  if (kind === 'first' || kind === 'switch' || kind === 'resume') return false;
  if (state === 'ended' || state === 'paused' || disputes.length > 0) return false;
  return period.to === null || isBefore(now, period.to);
}

function live(work: Work, s: Subscription, { id }: Charge, period: Period): void {
  s.paidThrough = period.to;
  s.dueAt = period.to;
  changed(work, s);
  const { from, to } = period;
  work.book.stretches.push({ subscription: s.id, charge: id, period, from, to, isTakenBack: false });
}

/** A further length was paid for: it begins where the old ends, or now where it would be over already. */
function renewed(work: Work, s: Subscription, one: Charge): void {
  const { period } = one;
  const isOver = period.to !== null && !isBefore(work.now, period.to);
  s.state = 'active';
  tell(work, 'renewed', s, { charge: one.id });
  live(work, s, one, isOver ? renewalAt(work, s, work.now) : period);
  hold(work, s, period.tier);
}

/** The gateway has refused the charge for certain, or the payer has not sent the money in time. */
export function declined(work: Work, one: Charge, { attempt: id, ref = null, code = '' }: Answer = {}): void {
  const { book } = work;
  const attempt = attemptNamed(one, id);
  if (attempt?.state !== 'asked') return refuse('known');
  setAttempt(one, attempt, { state: 'declined', ref, code });
  const s = one.subscription === null ? null : named(book.subscriptions, one.subscription);
  if (one.state !== 'open') return;
  // Who tried another way than the transfer that is awaited has not given that up.
  const former = one.attempts.findLast(({ state }) => state === 'withdrawn');
  if (former?.until && attempt.byMember && isBefore(work.now, former.until)) {
    setAttempt(one, former, { state: 'asked' });
    return tell(work, 'declined', s, { charge: one.id });
  }
  if (!s || one.kind === 'first') {
    if (s) s.unpaid = one.id;
    return tell(work, 'declined', s, { charge: one.id });
  }
  if (one.kind === 'period' || one.kind === 'down') return failed(work, s, one, attempt);
  tell(work, 'declined', s, { charge: one.id });
  drop(work, one);
  if (one.kind === 'switch' && !book.checkouts.some(({ subscription }) => subscription === s.id))
    Object.assign(s, { state: 'ended', endedAt: work.now });
  for (const other of book.subscriptions)
    if (other.state === 'overdue' && other.track === s.track && other.slot === s.slot)
      awaitRetry(work, other, attempt.at);
}

function failed(work: Work, s: Subscription, one: Charge, attempt: Attempt): void {
  const first = (s.firstFailedAt ??= work.now);
  const wasOverdue = s.state === 'overdue';
  s.unpaid = one.id;
  s.state = 'overdue';
  // What a dispute has suspended has no days of grace.
  if (s.disputes.length === 0) holdUntil(work, s, daysAfter(work, first, work.context.graceDays));
  changed(work, s);
  if (awaitRetry(work, s, attempt.at))
    tell(work, wasOverdue && attempt.byMember ? 'declined' : 'payment-failed', s, { charge: one.id });
}

/**
 * The next retry; one that passed while an attempt was under way is left out. After the last it ends, unpaid: the answer is
 * whether another comes.
 */
function awaitRetry(work: Work, s: Subscription, askedAt: Instant): boolean {
  const { now, context } = work;
  const first = s.firstFailedAt ?? now;
  // What was asked for earlier is settled before a retry of this very instant.
  const isAhead = (at: Instant): boolean => isBefore(now, at) || (at === now && isBefore(askedAt, now));
  s.dueAt = context.retryDays.map((n) => daysAfter(work, first, n)).find(isAhead) ?? null;
  if (s.dueAt === null) end(work, s, { unpaid: true, notice: 'ended-unpaid' });
  return s.dueAt !== null;
}

/** Takes a cancel back, as an undo and a renewal do. */
export function undoCancel(work: Work, s: Subscription): void {
  s.state = stretchesOf(work, s).at(-1)?.period.kind === 'trial' ? 'trial' : 'active';
  changed(work, s);
}
