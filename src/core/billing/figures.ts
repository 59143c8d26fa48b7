import { isBefore, latest, type Instant } from '../instants';
import type { Period } from '../offers/schedule';
import { nextPeriod } from '../offers/schedule';
import { prorate } from '../prorate';
import {
  copyOf,
  named,
  type Book,
  type Charge,
  type Method,
  type Quote,
  type Subscription,
  type BillingContext,
  type Track,
} from './book';
import type { Buying } from './buying';
import type { Submitted } from './checkout';
import { step } from './step';
import { nextCharge } from './upcoming';
import { stretchesOf, type Refusal, type Work } from './work';

/** A book to be looked at: what only asks, and writes nothing, takes it as it takes a step. */
export const looking = (book: Book, context: BillingContext, now: Instant, at: Track): Work => ({
  track: at.track,
  slot: at.slot,
  book: copyOf(book),
  context,
  now,
  asks: [],
  notices: [],
});

/** What a charge comes to; minor units. */
export type Figures = {
  /** With joining fee, less discount. */
  amount: number;
  /** Credit for unused days that is spent on it, and what is left over of that. */
  fresh: number;
  leftOver: number;
  /** Other credit of the member that is spent on it. */
  credit: number;
  /** What money is asked for. */
  due: number;
  first: Period;
};

function figuresOf(one: Charge): Figures {
  const given = one.unused.reduce((sum, { amount }) => sum + amount, 0);
  const fresh = Math.min(given, one.amount);
  const credit = one.amount - fresh - one.due;
  return { amount: one.amount, fresh, leftOver: given - fresh, credit, due: one.due, first: one.period };
}

/**
 * What the button of a checkout would charge now: the step itself, taken and thrown away, so that what is shown is what is
 * charged.
 */
export function figuresOfCheckout(
  book: Book,
  submitted: Omit<Submitted, 'due'>,
  context: BillingContext,
  now: Instant,
): Figures | { why: Refusal } {
  const taken = step(book, { do: 'submit', ...submitted, due: null }, context, now);
  if (!taken.ok) return taken;
  const { subscription } = taken.book.checkouts.find(({ id }) => id === submitted.checkout) ?? {};
  const one = taken.book.charges.findLast((charge) => charge.subscription === subscription);
  return one ? figuresOf(one) : { why: 'nothing-pending' };
}

export type SwitchFigures = Figures & {
  direction: 'up' | 'down';
  atOnce: boolean;
  startsAt: Instant;
  /** Of the period that runs, where its unused days are credited. */
  totalDays: number;
  unusedDays: number;
};

/** What a switch by a quote comes to, charged to a method. */
export function figuresOfSwitch(
  book: Book,
  s: Subscription,
  quote: Quote,
  context: BillingContext,
  now: Instant,
  method: Method = { nature: 'card' },
): SwitchFigures | null {
  const { direction, atOnce, unused } = quote.plan;
  const days =
    unused.length > 0 ? daysOf(looking(book, context, now, s), s) : { totalDays: 0, unusedDays: 0 };
  const startsAt = atOnce ? now : (s.paidThrough ?? now);
  const common = { direction, atOnce, startsAt, ...days };
  const event = { do: 'switch', subscription: s.id, to: quote.to, quote: true, method } as const;
  const taken = step({ ...book, quote }, event, context, now);
  if (!atOnce) {
    const offer = context.offers[quote.to];
    const first =
      offer && nextPeriod({ ...offer, joiningFee: undefined }, startsAt, context.zone, true, null);
    if (!first) return null;
    const next = taken.ok && figuresOfNext(taken.book, named(taken.book.subscriptions, s.id), context, now);
    const credit = next && next.at === startsAt ? next.credit : 0;
    const due = first.amount - credit;
    return { ...common, amount: first.amount, fresh: 0, leftOver: 0, credit, due, first };
  }
  const one = taken.ok ? taken.book.charges.findLast(({ kind }) => kind === 'switch') : undefined;
  return taken.ok && one ? { ...common, ...figuresOf(one) } : null;
}

/** The days of the period that runs, all and unused. */
function daysOf(work: Work, s: Subscription): { totalDays: number; unusedDays: number } {
  const { now, context } = work;
  const runs = stretchesOf(work, s).find(({ to }) => to !== null && isBefore(now, to));
  const { totalDays, unusedDays } = runs
    ? prorate(0, runs.from, runs.to, now, context.zone)
    : { totalDays: 0, unusedDays: 0 };
  return { totalDays, unusedDays };
}

/** The next charge of a subscription, and what of it money will be asked for as things are: minor units. */
export type NextCharge = { at: Instant; amount: number; credit: number; due: number };

/** As many free periods as are looked through for the next charge. */
const MOST_FREE = 24;

/**
 * The next charge of a subscription, by the steps that will take it: null where nothing more is charged. Other subscriptions
 * of the book are left as they are, and credit is that of now.
 */
export function figuresOfNext(
  book: Book,
  s: Subscription,
  context: BillingContext,
  now: Instant,
): NextCharge | null {
  const next = nextCharge(s, context);
  if (!next) return null;
  const open = book.charges.find(({ subscription, state }) => subscription === s.id && state === 'open');
  const one = open ?? chargeAhead(book, s, context, now);
  const amount = one?.amount ?? next.amount;
  const due = one?.due ?? next.amount;
  return { at: latest(next.at, now), amount, credit: amount - due, due };
}

function chargeAhead(
  book: Book,
  of: Subscription,
  context: BillingContext,
  now: Instant,
): Charge | undefined {
  let [here, s] = [book, of];
  for (let periods = 0; periods < MOST_FREE && s.dueAt !== null; periods++) {
    const taken = step(here, { do: 'due', subscription: s.id }, context, latest(s.dueAt, now));
    if (!taken.ok) return undefined;
    const runs = taken.book.subscriptions.filter(({ state }) => state !== 'ended');
    const after = runs.find(({ replaces }) => replaces === s.id) ?? runs.find(({ id }) => id === s.id);
    if (!after) return undefined;
    const isNew = ({ id, subscription }: Charge) =>
      subscription === after.id && !here.charges.some((known) => known.id === id);
    const one = taken.book.charges.findLast(isNew);
    if (one && one.amount > 0) return one;
    [here, s] = [taken.book, after];
  }
  return undefined;
}

/** What buying something once would charge now, by the step itself; minor units. @throws where the step refuses */
export function figuresOfBuying(
  book: Book,
  buying: Buying,
  context: BillingContext,
  now: Instant,
): { amount: number; credit: number; due: number } {
  const result = step(book, { do: 'buy', ...buying }, context, now);
  if (!result.ok) throw new Error(`cannot be bought: ${result.why}`);
  const one = result.book.charges.findLast(({ kind }) => kind === 'purchase');
  return {
    amount: one?.amount ?? 0,
    credit: (one?.amount ?? 0) - (one?.due ?? 0),
    due: one?.due ?? 0,
  };
}
