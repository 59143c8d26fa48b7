import { holdUntil } from './access';
import type { Charge, NoticeKind, Subscription } from './book';
import { release } from './credit';
import { askedOf, changed, isKept, tell, type Work } from './work';

/** Drops an unpaid charge, and frees the credit that was reserved for it. */
export function drop({ book }: Work, charge: Charge): void {
  charge.state = 'dropped';
  release(book, charge);
}

/** Ends a subscription. What it holds ends now at the latest, unless it is kept. */
export function end(
  work: Work,
  s: Subscription,
  {
    unpaid = false,
    keeps = false,
    notice = 'ended',
  }: { unpaid?: boolean; keeps?: boolean; notice?: NoticeKind } = {},
): void {
  const { book, now } = work;
  if (!keeps) holdUntil(work, s, now);
  for (const charge of book.charges)
    if (charge.subscription === s.id && charge.state === 'open') drop(work, charge);
  Object.assign(s, {
    state: 'ended',
    endedAt: now,
    dueAt: null,
    endedUnpaid: unpaid,
    pauses: false,
    switchesTo: null,
    movesTo: null,
    disputes: [],
  });
  changed(work, s);
  if (s.beganAt !== null) tell(work, notice, s);
}

/** Another subscription takes its place; what is held for good stays. */
export function leave(work: Work, s: Subscription): void {
  end(work, s, { keeps: s.paidThrough === null, notice: 'left' });
}

/** Its schedule has come to its end. */
export function finish(work: Work, s: Subscription): void {
  const keeps = isKept(work, s);
  end(work, s, { keeps, notice: keeps ? 'finished' : 'ended' });
}

/** A transfer is no longer awaited, because the payer chose another method. Its money may arrive all the same. */
export function withdraw(one: Charge): void {
  const asked = askedOf(one);
  one.attempts = one.attempts.map((each) => (each === asked ? { ...each, state: 'withdrawn' } : each));
}
