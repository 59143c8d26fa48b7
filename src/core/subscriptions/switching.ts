import { addLength, isBefore, toMs, type Instant } from '../calendar';
import type { Offer } from '../offers/offer';
import { nextPeriod, type Period } from '../offers/schedule';
import { prorate } from '../prorate';

/** How the owner of a ladder has switching done. */
export type LadderTerms = {
  creditUnused: boolean;
  /** Days from its beginning that a subscription waits before its first switch up. */
  waitDays: number;
  /** Whether a switch down is done at once rather than at the end of what is paid. */
  downAtOnce: boolean;
};

/** The side that is left: where it stands and what was paid for the period that runs. */
export type Leaving = {
  rung: number;
  offer: Offer;
  state: 'trial' | 'active' | 'overdue' | 'paused' | 'cancelling';
  startedAt: Instant;
  hasSwitched: boolean;
  /** The period that runs; null where nothing is settled yet. */
  period: Pick<Period, 'step' | 'from' | 'to'> | null;
  paidThrough: Instant | null;
  /** Money and credit spent on that period, without joining fee, less refunds; minor units. */
  paid: number;
};

export type SwitchQuote = {
  direction: 'up' | 'down';
  /** Now, rather than at the end of what is paid. */
  atOnce: boolean;
  startsAt: Instant;
  totalDays: number;
  unusedDays: number;
  /** For unused days, in minor units. */
  credit: number;
  /** The first period under the new offer: no trial, no joining fee. */
  first: Period;
  /** Of the first charge, what is left to pay when the credit is spent on it. */
  due: number;
  /** Credit that the first charge did not need. */
  leftOver: number;
};

export type Refusal = 'currency' | 'overdue' | 'wait' | 'nothing-left' | 'same';

/** How long a period of an offer is as it goes on; 0 where it has no length. Only lengths are compared by it. */
function periodMs({ steps }: Offer): number {
  const last = steps.at(-1);
  if (!last) return 0;
  if (last.kind === 'repeat') return toMs(addLength('2027-01-01T00:00:00Z', last.every, 'UTC'));
  if (last.lasts === 'forever' || 'until' in last.lasts) return Infinity;
  return toMs(addLength('2027-01-01T00:00:00Z', last.lasts, 'UTC'));
}

/** Higher rung: up; lower: down; on the same rung a longer period is up, a shorter one down. */
export function directionOf(
  from: { rung: number; offer: Offer },
  to: { rung: number; offer: Offer },
): 'up' | 'down' {
  if (from.rung !== to.rung) return to.rung > from.rung ? 'up' : 'down';
  return periodMs(to.offer) > periodMs(from.offer) ? 'up' : 'down';
}

/**
 * What it costs to go over to another offer of the ladder at `now`: up begins now and is credited the unused days,
 * down begins at the end of what is paid, unless the owner allows it at once. Pure; the quote shown is the quote charged.
 */
export function quoteSwitch(
  leaving: Leaving,
  to: { rung: number; offer: Offer },
  ladder: LadderTerms,
  now: Instant,
  zone: string,
): { ok: true; quote: SwitchQuote } | { ok: false; why: Refusal; until?: Instant } {
  if (leaving.offer.currency !== to.offer.currency) return { ok: false, why: 'currency' };
  if (leaving.state === 'overdue') return { ok: false, why: 'overdue' };
  const direction = directionOf(leaving, to);
  const waitEnd = addLength(leaving.startedAt, { n: ladder.waitDays, unit: 'day' }, zone);
  if (direction === 'up' && !leaving.hasSwitched && isBefore(now, waitEnd))
    return { ok: false, why: 'wait', until: waitEnd };
  const atOnce = direction === 'up' || ladder.downAtOnce || leaving.paidThrough === null;
  const startsAt = atOnce ? now : (leaving.paidThrough ?? now);
  const offer: Offer = { ...to.offer, joiningFee: undefined };
  const first = nextPeriod(offer, startsAt, zone, true, null);
  if (!first) return { ok: false, why: 'nothing-left' };
  const isCredited = atOnce && ladder.creditUnused && leaving.state !== 'trial' && leaving.period !== null;
  const { credit, totalDays, unusedDays } =
    isCredited && leaving.period
      ? prorate(leaving.paid, leaving.period.from, leaving.period.to, now, zone)
      : { credit: 0, totalDays: 0, unusedDays: 0 };
  const due = Math.max(0, first.amount - credit);
  return {
    ok: true,
    quote: {
      direction,
      atOnce,
      startsAt,
      totalDays,
      unusedDays,
      credit,
      first,
      due,
      leftOver: credit - (first.amount - due),
    },
  };
}
