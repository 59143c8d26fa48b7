import { z } from 'zod';
import type { Instant, Length } from '../instants';
import type { Offer } from '../offers/offer';
import type { Place } from '../offers/place';
import type { Period } from '../offers/schedule';
import type { CheckoutState, State } from './states';
import type {
  ChargeId,
  CheckoutId,
  CreditId,
  HoldingId,
  OfferKey,
  PaymentId,
  PurchaseId,
  QuoteId,
  RefundId,
  SubscriptionId,
} from '../ids';

/** Of the first charges above zero of a subscription: an amount in minor units, or a percentage. `charges` null: all. */
export const discountSchema = z.object({
  amount: z.number().optional(),
  share: z.number().optional(),
  charges: z.number().nullable(),
});
export type Discount = z.infer<typeof discountSchema>;

/** How something is paid for: by a card that is charged, a wallet that bills, or a transfer that is awaited for so many days. */
export type Method = { nature: 'card' | 'wallet' } | { nature: 'transfer'; waitDays: number };

/** Where a subscription has its place: on a ladder, or at a tier off any; slots tell apart several of one tier. */
export type Track = { track: string; slot: string };

export type Subscription = Track & {
  id: SubscriptionId;
  /** Of `context.offers`. */
  offer: OfferKey;
  state: State;
  begunBy: 'first' | 'switch' | 'down';
  /** The subscription whose place it takes. */
  replaces: SubscriptionId | null;
  /** Null: none was given, and it can be charged only what credit pays. */
  method: Method | null;
  place: Place;
  /** When its first period began; null before. */
  beganAt: Instant | null;
  endedAt: Instant | null;
  /** End of what is paid; null before the first period, and where what was paid never ends. */
  paidThrough: Instant | null;
  /** The charge that is unpaid while it is pending or overdue. */
  unpaid: ChargeId | null;
  firstFailedAt: Instant | null;
  /** When it next does something by itself; null where nothing is to come. */
  dueAt: Instant | null;
  /** When something last happened to it: what falls due before that happens then. */
  changedAt: Instant | null;
  pauses: boolean;
  /** The offer of a switch down that waits for the end of what is paid. */
  switchesTo: OfferKey | null;
  /** The version of its offer under which its next period begins. */
  movesTo: OfferKey | null;
  discount: Discount | null;
  /** Payments whose dispute suspends it. */
  disputes: string[];
  endedUnpaid: boolean;
  /** Numbers of charges given out. */
  charges: number;
  /** Events that changed it: a quote made before the last of them is void. */
  events: number;
};

/** Something bought once: a pass, or a gift card. */
export type Purchase = {
  id: PurchaseId;
  kind: 'pass' | 'gift-card';
  /** The pass, or what the gift card is for. */
  item: string;
  /** How long a pass lasts; null: for good. */
  lasts: Length | null;
  method: Method | null;
  state: 'pending' | 'paid' | 'ended';
  charges: number;
};

/** One attempt of a person to join, from the first look at the page to the end. */
export type Checkout = Track & {
  id: CheckoutId;
  state: CheckoutState;
  /** What it begins, once the button was pressed. */
  subscription: SubscriptionId | null;
  at: Instant;
  /** Of a switch: the events of what is left, when the button was pressed. */
  replacedEvents: number | null;
};

/** What a charge is written for; it decides what its payment begins, and what becomes of it when it is declined. */
export type ChargeKind = 'first' | 'period' | 'switch' | 'down' | 'renewal' | 'resume' | 'purchase';
/** `withdrawn`: the payer chose another way before they sent the money. `until`: how long a transfer is awaited. */
export type Attempt = {
  id: PaymentId;
  n: number;
  at: Instant;
  state: 'asked' | 'declined' | 'withdrawn' | 'succeeded';
  until: Instant | null;
  /** By the member's own wish: declined, it changes nothing. */
  byMember: boolean;
  /** What the gateway calls it, and why it declined. */
  ref: string | null;
  code: string | null;
};
export type Charge = {
  id: ChargeId;
  /** One of the two. */
  subscription: SubscriptionId | null;
  purchase: PurchaseId | null;
  /** Issued when it is written, never again: with what it belongs to, the beginning of its idempotency keys. */
  number: number;
  kind: ChargeKind;
  /** The period that it pays for, as it was expected when the charge was written. */
  period: Period;
  currency: string;
  /** With joining fee, less discount; before credit. */
  amount: number;
  joiningFee: number;
  /** Credit that is reserved for it, and spent once it is paid. */
  credit: { credit: CreditId; amount: number }[];
  /** Of a switch: credit for unused days, given when it is paid. */
  unused: UnusedCredit[];
  /** What is asked for. */
  due: number;
  state: 'open' | 'paid' | 'dropped';
  attempts: Attempt[];
  usesDiscount: boolean;
  /** It is the first under a version to which the subscription was moved. */
  isMove: boolean;
};

/** Credit for what is left of one stretch: of its payment, then of the credits that were spent on it. */
export const unusedSchema = z.array(z.object({ charge: z.string(), amount: z.number() }));
export type UnusedCredit = z.infer<typeof unusedSchema>[number];

/** Money that came; its id is that of the attempt. */
export type Payment = {
  id: PaymentId;
  charge: ChargeId;
  amount: number;
  at: Instant;
  refunded: number;
  lost: number;
  dispute: 'none' | 'open' | 'won' | 'lost';
  /** It paid for nothing, so all of it is returned. */
  isReturned: boolean;
};

/** Money on its way back: asked of the gateway, until it answers. */
export type Refund = {
  id: RefundId;
  payment: PaymentId;
  amount: number;
  at: Instant;
  access: 'take' | 'keep';
  reason: string;
  /** The idempotency key under which the gateway is asked. */
  key: string;
  /** What the gateway calls it. */
  ref: string | null;
  state: 'asked' | 'succeeded' | 'refused';
};

export type Credit = {
  id: CreditId;
  payment: PaymentId | null;
  /** Whose unused days it is for. */
  charge: ChargeId | null;
  currency: string;
  given: number;
  spent: number;
  reserved: number;
  void: number;
};
/** Credit that a paid charge has spent. */
export type CreditUse = { credit: CreditId; charge: ChargeId; amount: number };

/** A period as it was really lived. */
export type Stretch = {
  subscription: SubscriptionId;
  charge: ChargeId;
  period: Period;
  from: Instant;
  to: Instant | null;
  isTakenBack: boolean;
};

/** A tier or a pass that is held: by a subscription or a purchase, or given, or brought along by an import. */
export type Holding = {
  id: HoldingId;
  kind: 'tier' | 'pass';
  why: 'subscription' | 'purchase' | 'gift' | 'import';
  subscription: SubscriptionId | null;
  purchase: PurchaseId | null;
  tier: string;
  isPaid: boolean;
  from: Instant;
  to: Instant | null;
  since: Instant;
};

export type Quote = {
  id: QuoteId;
  at: Instant;
  subscription: SubscriptionId;
  to: string;
  events: number;
  plan: SwitchPlan;
};
export type SwitchPlan = { direction: 'up' | 'down'; atOnce: boolean; unused: UnusedCredit[] };

/** What of the past matters later: one for each ladder, or tier off any. */
export type Summary = {
  track: string;
  hadTrial: boolean;
  /** When the first joining was paid, or began free. */
  joinedAt: Instant | null;
  hasSwitchedUp: boolean;
};

/**
 * All of one member's money and access, in one mode. It need not hold all of the past: what is open, what is paid and not
 * over, credit that is left with its payments, and the summaries are enough for whatever happens next.
 */
export type Book = {
  subscriptions: Subscription[];
  purchases: Purchase[];
  checkouts: Checkout[];
  charges: Charge[];
  payments: Payment[];
  refunds: Refund[];
  credits: Credit[];
  uses: CreditUse[];
  stretches: Stretch[];
  holdings: Holding[];
  summaries: Summary[];
  quote: Quote | null;
};

export type LadderRules = {
  /** Tiers, lowest first; of a tier off any ladder, that one. */
  rungs: string[];
  creditUnused: boolean;
  /** Days from the first joining before a first switch up. */
  waitDays: number;
  downAtOnce: boolean;
};
export type BillingContext = {
  /** The site's IANA zone. */
  zone: string;
  offers: Record<string, Offer>;
  /** By track. */
  ladders: Record<string, LadderRules>;
  /** Local days after the first failure. */
  retryDays: number[];
  graceDays: number;
  /** Names what is new. Handed in, so that the same step can be taken again. */
  newId: () => string;
};

/** What a gateway is to be asked for once the book is stored. */
export type Ask =
  { do: 'collect'; charge: ChargeId; attempt: PaymentId } | { do: 'refund'; refund: RefundId };

/** What a member is told, or staff read in the history of a subscription. */
export type NoticeKind =
  | 'joined'
  | 'switched'
  | 'left'
  | 'paid'
  | 'returned'
  | 'declined'
  | 'payment-failed'
  | 'ended-unpaid'
  | 'begun-anew'
  | 'renewed'
  | 'moved'
  | 'cancelled'
  | 'cancel-undone'
  | 'pause-asked'
  | 'pause-undone'
  | 'paused'
  | 'resumed'
  | 'switch-asked'
  | 'switch-undone'
  | 'move-asked'
  | 'refund-asked'
  | 'refunded'
  | 'refund-refused'
  | 'dispute-opened'
  | 'dispute-won'
  | 'dispute-lost'
  | 'finished'
  | 'ended';
export type Notice = {
  kind: NoticeKind;
  subscription: SubscriptionId | null;
  charge?: ChargeId;
  refund?: RefundId;
};

export const emptyBook = (summaries: Summary[] = []): Book => ({
  subscriptions: [],
  purchases: [],
  checkouts: [],
  charges: [],
  payments: [],
  refunds: [],
  credits: [],
  uses: [],
  stretches: [],
  holdings: [],
  summaries,
  quote: null,
});

/**
 * A copy that can be written in. What is settled (paid charges, payments, what was lived, held and spent) is shared with
 * the book before: it changes seldom, and then `own` copies it.
 */
export const copyOf = (book: Book): Book => ({
  subscriptions: book.subscriptions.map((one) => ({ ...one })),
  purchases: book.purchases.map((one) => ({ ...one })),
  checkouts: book.checkouts.map((one) => ({ ...one })),
  charges: book.charges.map((one) => (one.state === 'paid' ? one : { ...one })),
  credits: book.credits.map((one) => ({ ...one })),
  refunds: book.refunds.map((one) => ({ ...one })),
  payments: [...book.payments],
  uses: [...book.uses],
  stretches: [...book.stretches],
  holdings: [...book.holdings],
  summaries: book.summaries.map((one) => ({ ...one })),
  quote: book.quote,
});

/** A copy of something shared, in its place: to be written in. */
export function own<T>(list: T[], one: T): T {
  const copy = { ...one };
  list[list.indexOf(one)] = copy;
  return copy;
}

/** The one of that id. @throws where there is none: the book is broken */
export function named<T extends { id: string }>(list: T[], id: string | null): T {
  const found = list.find((one) => one.id === id);
  if (!found) throw new Error(`the book has no ${id}`);
  return found;
}
