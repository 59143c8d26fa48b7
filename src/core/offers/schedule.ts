import { CALENDAR, MS_CALENDAR, type Calendar } from '../calendar';
import { fromMs, isBefore, isToTheMs, toMs, type Instant, type Length } from '../instants';
import type { Offer, Step } from './offer';

/** One stretch of an offer with at most one charge, due at its start. `to` is null where it never ends. */
export type Period<Time = Instant> = {
  step: number;
  n: number;
  kind: Step['kind'];
  tier: string;
  from: Time;
  to: Time | null;
  /** All that is due at `from`, joining fee included, in minor units. */
  amount: number;
  joiningFee: number;
};

export type Charge = { at: Instant; amount: number; why: Step['kind']; joiningFee: number };
export type AccessInterval = { tier: string; from: Instant; to: Instant | null };

/**
 * Every period of an offer in order, for a member who joined at `start`; endless where the offer is.
 * Each step's periods are counted from that step's own start in the site's `zone`.
 */
export function periods(
  offer: Offer,
  start: Instant,
  zone: string,
  skipTrial: boolean,
): Generator<Period, void> {
  return periodsBy(CALENDAR, offer, start, zone, skipTrial);
}

/**
 * The same by any calendar, whatever it takes for an instant.
 * @param since leaves out periods that are over by then, without counting through them one by one
 */
export function* periodsBy<Time>(
  calendar: Calendar<Time>,
  offer: Offer,
  start: Time,
  zone: string,
  skipTrial: boolean,
  since: Time | null = null,
): Generator<Period<Time>, void> {
  let cursor = start;
  let fee = offer.joiningFee?.amount ?? 0;
  const feeAtStart = offer.joiningFee?.due === 'start';
  for (const [index, step] of offer.steps.entries()) {
    if (step.kind === 'trial' && skipTrial) continue;
    const stepStart = cursor;
    const count = step.kind === 'repeat' ? (step.times ?? Infinity) : 1;
    const first =
      since === null ? 0 : Math.min(periodsOver(step, calendar.between(stepStart, since)), count - 1);
    if (first > 0) {
      if (feeAtStart || step.amount > 0) fee = 0;
      cursor = periodEnd(calendar, step, stepStart, first - 1, zone) ?? stepStart;
    }
    for (let n = first; n < count; n++) {
      const from = n === 0 ? stepStart : cursor;
      const to = periodEnd(calendar, step, stepStart, n, zone);
      // A step that has ended when it is reached counts as absent; so does a day that a zone left out of its calendar.
      if (to !== null && calendar.between(from, to) <= 0) continue;
      const joiningFee = fee > 0 && (feeAtStart || step.amount > 0) ? fee : 0;
      fee -= joiningFee;
      if (to !== null) cursor = to;
      if (since !== null && to !== null && calendar.between(since, to) <= 0) continue;
      const tier = step.tier ?? offer.tier;
      yield { step: index, n, kind: step.kind, tier, from, to, amount: step.amount + joiningFee, joiningFee };
      if (to === null) return;
    }
  }
}

/** The longest that a unit can last, in ms, with an hour to spare for what a zone's clock may do. */
const LONGEST: Record<Length['unit'], number> = {
  hour: 3_600_000,
  day: 90_000_000,
  week: 608_400_000,
  month: 2_682_000_000,
  year: 31_626_000_000,
};

/** A number of periods that are certainly over when so many ms have passed; never too many. */
function periodsOver(step: Step, passed: number): number {
  if (step.kind !== 'repeat') return 0;
  // A zone may once have left out a day: two periods less than the sum says.
  return Math.max(0, Math.floor(passed / (step.every.n * LONGEST[step.every.unit])) - 2);
}

function periodEnd<Time>(
  calendar: Calendar<Time>,
  step: Step,
  stepStart: Time,
  n: number,
  zone: string,
): Time | null {
  if (step.kind === 'repeat') return calendar.add(stepStart, step.every, zone, n + 1);
  if (step.lasts === 'forever') return null;
  if ('until' in step.lasts) return calendar.endOfDate(step.lasts.until, zone);
  return calendar.add(stepStart, step.lasts, zone, 1);
}

/**
 * What an offer means for a member who joins at `start`: every charge due before `horizon`, in order, and
 * every access interval that begins before it. A period that straddles the horizon is whole; adjoining
 * intervals of one tier are one. Nothing is listed where nothing is due.
 * @param start instant of joining, UTC
 * @param zone the site's IANA zone, in which the calendar is counted
 * @param skipTrial for a returning person, who gets no second trial
 */
export function expand(offer: Offer, start: Instant, zone: string, horizon: Instant, skipTrial: boolean) {
  const charges: Charge[] = [];
  const access: AccessInterval[] = [];
  let last: Period | undefined;
  let exhausted = true;
  for (const period of periods(offer, start, zone, skipTrial)) {
    if (!isBefore(period.from, horizon)) {
      exhausted = false;
      break;
    }
    last = period;
    if (period.amount > 0) {
      charges.push({
        at: period.from,
        amount: period.amount,
        why: period.kind,
        joiningFee: period.joiningFee,
      });
    }
    append(access, { tier: period.tier, from: period.from, to: period.to });
  }
  const end = last?.to;
  if (exhausted && last && end && offer.after === 'keep' && isBefore(end, horizon)) {
    append(access, { tier: last.tier, from: end, to: null });
  }
  return { charges, access };
}

function append(access: AccessInterval[], next: AccessInterval): void {
  const previous = access.at(-1);
  if (previous && previous.tier === next.tier && previous.to === next.from) previous.to = next.to;
  else access.push(next);
}

/**
 * The period that comes after the one named by `after`, or the first; undefined where the schedule is finished.
 * @param since an instant by which the named period has ended: periods before it are not counted one by one
 */
export function nextPeriod(
  offer: Offer,
  start: Instant,
  zone: string,
  skipTrial: boolean,
  after: { step: number; n: number } | null,
  since: Instant | null = null,
): Period | undefined {
  const isNext = ({ step, n }: { step: number; n: number }): boolean =>
    !after || step > after.step || (step === after.step && n > after.n);
  if (!isToTheMs(start) || (since !== null && !isToTheMs(since)))
    return first(periodsBy(CALENDAR, offer, start, zone, skipTrial, since), isNext);
  const inMs = periodsBy(
    MS_CALENDAR,
    offer,
    toMs(start),
    zone,
    skipTrial,
    since === null ? null : toMs(since),
  );
  const found = first(inMs, isNext);
  return found && { ...found, from: fromMs(found.from), to: found.to === null ? null : fromMs(found.to) };
}

function first<T>(all: Iterable<T>, isIt: (one: T) => boolean): T | undefined {
  for (const one of all) if (isIt(one)) return one;
  return undefined;
}
