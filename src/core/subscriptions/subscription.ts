import type { Instant } from '../calendar';
import type { Offer } from '../offers/offer';
import type { Period } from '../offers/schedule';

export const STATES = ['pending', 'trial', 'active', 'overdue', 'paused', 'cancelling', 'ended'] as const;
export type State = (typeof STATES)[number];

/** A member's running agreement, as far as its life is decided by it. */
export type Subscription = {
  state: State;
  /** When its schedule began: at joining, or when it was last taken up again after a pause or an end. */
  startedAt: Instant;
  skipTrial: boolean;
  /** The place in the offer at which the schedule begun at `startedAt` takes it up: its beginning, unless taken up again. */
  takesUp: { step: number; n: number };
  /** Whether it began without its joining fee: by a switch, or moved by the owner. */
  skipFee: boolean;
  /** Added to period numbers in the keys of charges: a schedule begun anew never meets the keys of the one before. */
  numberFrom: number;
  /** The last period that began and is settled (paid, or free). Null before the first. */
  period: { step: number; n: number } | null;
  /** End of what is paid. Null before the first period, and where what was paid never ends. */
  paidThrough: Instant | null;
  /** When something next falls due: a charge, a retry, the end. */
  dueAt: Instant | null;
  /** Definite failures of the period that is unpaid now. */
  failures: number;
  firstFailedAt: Instant | null;
  endedAt: Instant | null;
  /** Whether a pause was asked for, which begins at the end of what is paid. */
  pauses: boolean;
  /** Since when a payment of it is disputed: until that is decided it charges nothing and opens nothing. */
  disputedAt: Instant | null;
};

/** What the life of a subscription depends on besides itself. */
export type Terms = {
  offer: Offer;
  /** The site's IANA zone. */
  zone: string;
  /** Days after the first failure at which the charge is tried again, rising. */
  retryDays: number[];
  /** Days after the first failure for which access is kept. */
  graceDays: number;
  /** The offer under which it goes on from its next period, where it was moved or switched down. */
  movesTo?: Offer;
};

export type Event =
  /** The instant of `dueAt` has come. */
  | { type: 'due' }
  | { type: 'paid'; period: Period }
  /** A try by schedule was refused. What the member tried of their own accord and was refused changes nothing. */
  | { type: 'failed'; reason: string }
  | { type: 'cancel' }
  | { type: 'undo-cancel' }
  /** By staff, a refund that ends access, or the member's leaving for good. */
  | { type: 'end-now' }
  | { type: 'pause' }
  /** Takes a pause back, or asks for the next period to begin now. */
  | { type: 'resume' }
  /** A further length of a single payment was paid for. */
  | { type: 'renewed'; period: Period }
  /** Another subscription takes its place at this moment. */
  | { type: 'switched' }
  | { type: 'dispute-opened' }
  | { type: 'dispute-won' }
  | { type: 'dispute-lost' };

export type Notice =
  | 'payment-failed'
  | 'begun-anew'
  | 'cancelled'
  | 'cancel-undone'
  | 'dispute-opened'
  | 'dispute-won'
  | 'dispute-lost'
  | 'ended'
  | 'ended-unpaid'
  | 'finished'
  | 'moved'
  | 'pause-asked'
  | 'paused'
  | 'renewed'
  | 'resumed'
  | 'switched';

/** What has to be done besides storing the new subscription. Each is safe to do twice. */
export type Effect =
  | { do: 'charge'; period: Period }
  | { do: 'hold'; tier: string; from: Instant; until: Instant | null }
  /** Moves the end of what is held now. */
  | { do: 'hold-until'; until: Instant | null }
  /** Nothing is held any longer than this. */
  | { do: 'release'; at: Instant }
  /** From now on it runs under the offer it moves to. */
  | { do: 'move' }
  | { do: 'tell'; notice: Notice };

export type Transition =
  { ok: true; subscription: Subscription; effects: Effect[] } | { ok: false; reason: string };
