import { addLength, type Instant } from '../calendar';
import type { Offer } from '../offers/offer';
import type { Period } from '../offers/schedule';
import type { State } from '../subscriptions/subscription';
import type { Ask, Book, Charge, Payment, Stretch, Subscription, Terms } from './book';
import { nextAt } from '../offers/place';

/** One step on its way: a copy of the book that is written in, and what the gateway is to be asked for. */
export type Work = { book: Book; terms: Terms; now: Instant; asks: Ask[] };

/** Thrown where an event is refused; the book stays as it was. */
export class Refused extends Error {}
/** @throws Refused */
export function refuse(why: string): never {
  throw new Refused(why);
}

export const RUNNING: ReadonlySet<State> = new Set(['trial', 'active', 'overdue', 'paused', 'cancelling']);

export function offerNamed({ terms }: Work, id: string): Offer {
  return terms.offers[id] ?? refuse('no such offer');
}
export const offerOf = (work: Work, { offer }: Subscription): Offer => offerNamed(work, offer);

export function paymentNamed({ book }: Work, id: string | undefined): Payment {
  return book.payments.find((one) => one.id === id) ?? refuse('no such payment');
}

/** Not merely what a switch would begin, once its charge is paid. */
const hasBegun = ({ book }: Work, { id, state }: Subscription): boolean =>
  state !== 'pending' || book.charges.some((one) => one.subscription === id && one.kind === 'first');

/** The subscription that runs, or is pending. */
export const current = (work: Work): Subscription | undefined =>
  work.book.subscriptions.find((one) => one.state !== 'ended' && hasBegun(work, one));

/** The subscription that runs. @throws Refused */
export function running(work: Work): Subscription {
  const found = current(work);
  if (!found) return refuse('nothing runs');
  return found.state === 'pending' ? refuse('pending') : found;
}

/** Whether an answer of the gateway is awaited for a charge that still counts. */
export const isAsked = ({ state, attempts }: Charge): boolean =>
  state === 'open' && attempts.at(-1)?.state === 'asked';

export const underWay = ({ book }: Work): Charge | undefined => book.charges.find(isAsked);

/** @throws Refused */
export function refuseUnderWay(work: Work): void {
  if (underWay(work)) refuse('under way');
}

/** @throws Refused */
export function refuseDisputed({ disputes }: Subscription): void {
  if (disputes.length > 0) refuse('disputed');
}

/** The period that comes next; undefined where the schedule is finished. */
export const nextOf = (work: Work, s: Subscription): Period | undefined =>
  nextAt(s.place, offerOf(work, s), work.terms.zone);

/** The periods that it has lived or paid for ahead, in order. */
export const stretchesOf = ({ book }: Work, { id }: Subscription): Stretch[] =>
  book.stretches.filter((one) => one.subscription === id && !one.isTakenBack);

/** So many local days later; below zero, earlier. */
export const daysAfter = ({ terms }: Work, at: Instant, n: number): Instant =>
  addLength(at, { n, unit: 'day' }, terms.zone);

/** Makes quotes of before void. */
export function changed(s: Subscription): void {
  s.events += 1;
}

/** Nothing more is charged, and the tier is kept. */
export const isKept = (work: Work, s: Subscription): boolean =>
  s.paidThrough === null || (!nextOf(work, s) && offerOf(work, s).after === 'keep');
