import type { Instant } from '../calendar';
import type { Offer } from '../offers/offer';
import type { Period } from '../offers/schedule';
import type { State } from '../subscriptions/subscription';
import type { Place } from '../offers/place';

/** Of the first charges above zero of a subscription: an amount in minor units, or a percentage. `charges` null: all. */
export type Discount = { amount?: number; share?: number; charges: number | null };

export type Subscription = {
  id: string;
  /** Of `terms.offers`. */
  offer: string;
  state: State;
  place: Place;
  /** When its first period began; null before. */
  beganAt: Instant | null;
  /** End of what is paid; null before the first period, and where what was paid never ends. */
  paidThrough: Instant | null;
  /** The charge that is unpaid while it is pending or overdue. */
  unpaid: string | null;
  firstFailedAt: Instant | null;
  /** When it next does something by itself; null where nothing is to come. */
  dueAt: Instant | null;
  pauses: boolean;
  /** The offer of a switch down that waits for the end of what is paid. */
  switchesTo: string | null;
  /** The version of its offer under which its next period begins. */
  movesTo: string | null;
  discount: Discount | null;
  /** Payments whose dispute suspends it. */
  disputes: string[];
  endedUnpaid: boolean;
  /** Numbers of charges given out. */
  charges: number;
  /** Events that changed it: a quote made before the last of them is void. */
  events: number;
};

/** What a charge is written for; it decides what its payment begins, and what becomes of it when it is declined. */
export type ChargeKind = 'first' | 'period' | 'switch' | 'down' | 'renewal' | 'resume';
export type Attempt = { n: number; at: Instant; state: 'asked' | 'declined' | 'succeeded' | 'returned' };
export type Charge = {
  /** The subscription's id and the charge's number: the beginning of its idempotency keys. */
  id: string;
  subscription: string;
  kind: ChargeKind;
  /** The period that it pays for, as it was expected when the charge was written. */
  period: Period;
  /** With joining fee, less discount; before credit. */
  amount: number;
  joiningFee: number;
  /** Credit that is reserved for it, and spent once it is paid. */
  credit: { credit: string; amount: number }[];
  /** Of a switch: credit for unused days, given when it is paid. */
  unused: UnusedCredit[];
  /** What is asked for. */
  due: number;
  state: 'open' | 'paid' | 'dropped';
  /** While it has lost its credit again, late money alone counts. */
  attempts: Attempt[];
  usesDiscount: boolean;
};

/** Credit for what is left of one stretch: of its payment, then of the credits that were spent on it. */
export type UnusedCredit = { charge: string; amount: number };

export type Payment = {
  id: string;
  charge: string;
  amount: number;
  at: Instant;
  refunded: number;
  lost: number;
  dispute: 'none' | 'open' | 'won' | 'lost';
  isReturned: boolean;
};

export type Credit = {
  id: string;
  payment: string;
  given: number;
  spent: number;
  reserved: number;
  void: number;
};
/** Credit that a paid charge has spent. */
export type CreditUse = { credit: string; charge: string; amount: number };

/** A period as it was really lived. */
export type Stretch = {
  subscription: string;
  charge: string;
  period: Period;
  from: Instant;
  to: Instant | null;
  isTakenBack: boolean;
};

export type Holding = {
  subscription: string;
  tier: string;
  from: Instant;
  to: Instant | null;
  since: Instant;
};

export type Quote = { at: Instant; subscription: string; to: string; events: number; plan: SwitchPlan };
export type SwitchPlan = { direction: 'up' | 'down'; atOnce: boolean; unused: UnusedCredit[] };

/** All of one member's money and access. */
export type Book = {
  subscriptions: Subscription[];
  charges: Charge[];
  payments: Payment[];
  credits: Credit[];
  uses: CreditUse[];
  stretches: Stretch[];
  holdings: Holding[];
  quote: Quote | null;
  hadTrial: boolean;
  /** When the first joining of the ladder was paid, or began free. */
  joinedAt: Instant | null;
  hasSwitchedUp: boolean;
};

export type Terms = {
  /** The site's IANA zone. */
  zone: string;
  offers: Record<string, Offer>;
  /** Tiers, lowest first. */
  ladder: string[];
  settings: {
    /** Local days after the first failure. */
    retryDays: number[];
    graceDays: number;
    creditUnused: boolean;
    /** Days from the first joining before a first switch up. */
    waitDays: number;
    downAtOnce: boolean;
  };
};

/** What a gateway is to be asked for: an attempt to collect a charge. Its key is the charge's id and the attempt's number. */
export type Ask = { charge: string; attempt: number; amount: number };

export const emptyBook = (hadTrial = false): Book => ({
  subscriptions: [],
  charges: [],
  payments: [],
  credits: [],
  uses: [],
  stretches: [],
  holdings: [],
  quote: null,
  hadTrial,
  joinedAt: null,
  hasSwitchedUp: false,
});

/**
 * A copy that can be written in. What is settled (paid charges, payments, what was lived, held and spent) is shared with
 * the book before: it changes seldom, and then `own` copies it.
 */
export const copyOf = (book: Book): Book => ({
  ...book,
  subscriptions: book.subscriptions.map((one) => ({ ...one })),
  charges: book.charges.map((one) => (one.state === 'paid' ? one : { ...one })),
  credits: book.credits.map((one) => ({ ...one })),
  payments: [...book.payments],
  uses: [...book.uses],
  stretches: [...book.stretches],
  holdings: [...book.holdings],
});

/** A copy of something shared, in its place: to be written in. */
export function own<T>(list: T[], one: T): T {
  const copy = { ...one };
  list[list.indexOf(one)] = copy;
  return copy;
}

/** The one of that id. @throws where there is none: the book is broken */
export function named<T extends { id: string }>(list: T[], id: string): T {
  const found = list.find((one) => one.id === id);
  if (!found) throw new Error(`the book has no ${id}`);
  return found;
}
