import { addLength } from '../calendar';
import type { Instant } from '../instants';
import type { Offer } from '../offers/offer';
import { nextAt } from '../offers/place';
import type { Period } from '../offers/schedule';
import type {
  Ask,
  Attempt,
  Book,
  Charge,
  LadderRules,
  Notice,
  NoticeKind,
  Payment,
  Stretch,
  Subscription,
  Summary,
  BillingContext,
  Track,
} from './book';
import { RUNNING } from './states';

/** One step on its way: a copy of the book that is written in, where it happens, and what follows from it. */
export type Work = Track & {
  book: Book;
  context: BillingContext;
  now: Instant;
  asks: Ask[];
  notices: Notice[];
};

/** Thrown where an event is refused; the book stays as it was. */
export class Refused extends Error {}
/** @throws Refused */
export function refuse(why: Refusal): never {
  throw new Refused(why);
}

/** Why nothing was done; words for it are the interface's. */
export type Refusal =
  | 'already'
  | 'another-price'
  | 'cancelling'
  | 'currency'
  | 'disputed'
  | 'elsewhere'
  | 'ended'
  | 'expired'
  | 'finished'
  | 'held'
  | 'known'
  | 'merge'
  | 'no-method'
  | 'no-offer'
  | 'no-payment'
  | 'not-cancelled'
  | 'not-disputed'
  | 'not-now'
  | 'not-paused'
  | 'not-renewed'
  | 'nothing-due'
  | 'nothing-left'
  | 'nothing-pending'
  | 'nothing-runs'
  | 'nothing-to-cancel'
  | 'nothing-to-pause'
  | 'nothing-to-take-back'
  | 'nothing-unpaid'
  | 'overdue'
  | 'paused'
  | 'pending'
  | 'quote-void'
  | 'returned'
  | 'same'
  | 'too-early'
  | 'too-much'
  | 'trial'
  | 'active'
  | 'under-way'
  | 'wait';

export const isOn = ({ track, slot }: Track, one: Track): boolean => one.track === track && one.slot === slot;

export function offerNamed({ context }: Work, id: string): Offer {
  return context.offers[id] ?? refuse('no-offer');
}
export const offerOf = (work: Work, { offer }: Subscription): Offer => offerNamed(work, offer);

export function paymentNamed({ book }: Work, id: string | undefined): Payment {
  return book.payments.find((one) => one.id === id) ?? refuse('no-payment');
}

/** The rules of the ladder on which it happens. */
export function ladderOf({ context, track }: Work): LadderRules {
  const found = context.ladders[track];
  if (!found) throw new Error(`no rules for ${track}`);
  return found;
}

/** What of the past of this ladder matters; to be written in. */
export function summaryOf({ book, track }: Work): Summary {
  const known = book.summaries.find((one) => one.track === track);
  if (known) return known;
  const made: Summary = { track, hadTrial: false, joinedAt: null, hasSwitchedUp: false };
  book.summaries.push(made);
  return made;
}

/** Not merely what a switch would begin, once its charge is paid. */
const hasBegun = ({ state, begunBy }: Subscription): boolean => state !== 'pending' || begunBy === 'first';

/** The subscription that runs here, or is pending. */
export const current = (work: Work): Subscription | undefined =>
  work.book.subscriptions.find((one) => isOn(work, one) && one.state !== 'ended' && hasBegun(one));

/** The subscription that runs here; undefined while none does. */
export const runningHere = (work: Work): Subscription | undefined =>
  work.book.subscriptions.find((one) => isOn(work, one) && RUNNING.has(one.state));

/** The same. @throws Refused where none does */
export function running(work: Work): Subscription {
  const found = current(work);
  if (!found) return refuse('nothing-runs');
  return found.state === 'pending' ? refuse('pending') : found;
}

export const lastAttempt = ({ attempts }: Charge): Attempt | undefined => attempts.at(-1);

/** The attempt for which an answer of the gateway, or a transfer, is awaited. */
export const askedOf = ({ attempts }: Charge): Attempt | undefined =>
  attempts.find(({ state }) => state === 'asked');

/** Whether an answer is awaited for a charge that still counts. */
export const isAsked = (one: Charge): boolean => one.state === 'open' && askedOf(one) !== undefined;

/** The charge of this ladder that is under way. */
export const underWay = (work: Pick<Work, 'book'> & Track): Charge | undefined =>
  work.book.charges.find((one) => isAsked(one) && isOfTrack(work, one));

const isOfTrack = (work: Pick<Work, 'book'> & Track, { subscription }: Charge): boolean =>
  work.book.subscriptions.some((one) => one.id === subscription && isOn(work, one));

/** @throws Refused */
export function refuseUnderWay(work: Work): void {
  if (underWay(work)) refuse('under-way');
}

/** @throws Refused */
export function refuseDisputed({ disputes }: Subscription): void {
  if (disputes.length > 0) refuse('disputed');
}

/** The period that comes next; undefined where the schedule is finished. */
export const nextOf = (work: Pick<Work, 'context'>, s: Subscription): Period | undefined => {
  const offer = work.context.offers[s.offer];
  return offer && nextAt(s.place, offer, work.context.zone);
};

/** The periods that it has lived or paid for ahead, in order. */
export const stretchesOf = ({ book }: Work, { id }: Subscription): Stretch[] =>
  book.stretches.filter((one) => one.subscription === id && !one.isTakenBack);

/** So many local days later; below zero, earlier. */
export const daysAfter = ({ context }: Pick<Work, 'context'>, at: Instant, n: number): Instant =>
  addLength(at, { n, unit: 'day' }, context.zone);

/** Makes quotes of before void. */
export function changed({ now }: Work, s: Subscription): void {
  s.events += 1;
  s.changedAt = now;
}

export function tell(
  { notices }: Work,
  kind: NoticeKind,
  subscription: Subscription | null,
  more: Pick<Notice, 'charge' | 'refund'> = {},
): void {
  notices.push({ kind, subscription: subscription?.id ?? null, ...more });
}

/** Nothing more is charged, and the tier is kept. */
export const isKept = (work: Work, s: Subscription): boolean =>
  s.paidThrough === null || (!nextOf(work, s) && offerOf(work, s).after === 'keep');
