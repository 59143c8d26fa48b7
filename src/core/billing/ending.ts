import { holdUntil } from './access';
import type { Charge, Subscription } from './book';
import { release } from './credit';
import { changed, offerOf, type Work } from './work';

/** Drops an unpaid charge, and frees the credit that was reserved for it. */
export function drop({ book }: Work, charge: Charge): void {
  charge.state = 'dropped';
  release(book, charge);
}

/** Ends a subscription. What it holds ends now at the latest, unless it is kept. */
export function end(work: Work, s: Subscription, { unpaid = false, keeps = false } = {}): void {
  const { book, now } = work;
  if (!keeps) holdUntil(book, s, now, now);
  for (const charge of book.charges)
    if (charge.subscription === s.id && charge.state === 'open') drop(work, charge);
  Object.assign(s, {
    state: 'ended',
    dueAt: null,
    endedUnpaid: unpaid,
    pauses: false,
    switchesTo: null,
    movesTo: null,
    disputes: [],
  });
  changed(s);
}

/** Another subscription takes its place; what is held for good stays. */
export function leave(work: Work, s: Subscription): void {
  end(work, s, { keeps: s.paidThrough === null });
}

/** Its schedule has come to its end. */
export function finish(work: Work, s: Subscription): void {
  end(work, s, { keeps: offerOf(work, s).after === 'keep' });
}
