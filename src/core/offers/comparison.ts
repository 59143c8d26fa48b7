import type { Length } from '../instants';
import { share } from '../money';
import { isPaid, type Offer } from './offer';

/** How often an offer is paid for as long as it runs; null where it does not repeat until cancelled. */
export function rhythmOf(offer: Offer): Length | null {
  const last = offer.steps.at(-1);
  return last?.kind === 'repeat' && last.times === null && last.amount > 0 ? last.every : null;
}

const APPROXIMATE_DAYS: Record<Length['unit'], number> = {
  hour: 1 / 24,
  day: 1,
  week: 7,
  month: 30.4,
  year: 365,
};
const keyOf = ({ n, unit }: Length): string => `${n}-${unit}`;
export type Rhythm = { key: string; length: Length };

/**
 * The rhythms between which a join page can switch, shortest first: those of tiers that are offered in more than
 * one. Empty where there is nothing to choose between.
 */
export function rhythmsToChoose(tiers: Offer[][]): Rhythm[] {
  const found = new Map<string, Length>();
  for (const offers of tiers) {
    const own = new Map(
      offers.flatMap((offer) => {
        const length = rhythmOf(offer);
        return length ? [[keyOf(length), length] as const] : [];
      }),
    );
    if (own.size > 1) for (const [key, length] of own) found.set(key, length);
  }
  return [...found].map(([key, length]) => ({ key, length })).sort((a, b) => days(a.length) - days(b.length));
}

const days = ({ n, unit }: Length): number => n * APPROXIMATE_DAYS[unit];

/** The offers of a tier shown for a chosen rhythm: those paid at it and those that have none; all of them if none is paid at it. */
export function offersUnder<T extends { definition: Offer }>(offers: T[], rhythm: string | null): T[] {
  const isPaidSo = ({ definition }: T): boolean => {
    const length = rhythmOf(definition);
    return length !== null && keyOf(length) === rhythm;
  };
  if (!rhythm || !offers.some(isPaidSo)) return offers;
  return offers.filter((offer) => isPaidSo(offer) || rhythmOf(offer.definition) === null);
}

/** What an offer costs in twelve months once its repeating price has begun; null where that is no whole number of payments. */
function yearlyPrice(offer: Offer): number | null {
  const last = offer.steps.at(-1);
  const length = rhythmOf(offer);
  if (!length || !last) return null;
  const months = length.unit === 'year' ? length.n * 12 : length.unit === 'month' ? length.n : null;
  return months === null || 12 % months !== 0 ? null : last.amount * (12 / months);
}

/** What is saved in a year by the one offer against the other: minor units, and whole per cent rounded half up. Null: nothing. */
export function savingOf(offer: Offer, against: Offer): { amount: number; percent: number } | null {
  const [price, other] = [yearlyPrice(offer), yearlyPrice(against)];
  if (price === null || other === null || offer.currency !== against.currency || price >= other) return null;
  return { amount: other - price, percent: share(100, other - price, other) };
}

/** The saving of an offer against the dearest other of its tier, by the year. */
export function bestSaving(offer: Offer, others: Offer[]): { amount: number; percent: number } | null {
  const savings = others.flatMap((other) => savingOf(offer, other) ?? []);
  return savings.reduce<(typeof savings)[number] | null>(
    (best, saving) => (best && best.amount >= saving.amount ? best : saving),
    null,
  );
}

/** Mean Gregorian month in thousandths of an hour: 365.2425 days of 24 hours, a twelfth of them. */
const MONTH = 730_485;
const LENGTHS: Record<Length['unit'], number> = {
  hour: 1_000,
  day: 24_000,
  week: 168_000,
  month: MONTH,
  year: 12 * MONTH,
};

/** What a repeating price comes to in a month, in minor units, rounded half up: £60 a year is £5. */
export function perMonth(amount: number, { n, unit }: Length): number {
  return share(amount, MONTH, n * LENGTHS[unit]);
}

/** What a person pays each month in the step of an offer that they are in; 0 where that step does not repeat. */
export function monthlyValue(offer: Offer, step: number): number {
  const current = offer.steps[step];
  if (!current || !isPaid(offer) || current.kind === 'once') return 0;
  return current.kind === 'repeat' ? perMonth(current.amount, current.every) : 0;
}
