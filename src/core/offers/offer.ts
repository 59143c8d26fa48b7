import type { Length, LocalDate } from '../instants';

/** A part of an offer. Amounts in minor units of its currency; `tier` where it opens another than the offer's own. */
export type Step = { amount: number; tier?: string | undefined } & (
  | { kind: 'trial'; lasts: Length }
  /** `times` null: until it is cancelled. */
  | { kind: 'repeat'; every: Length; times: number | null }
  | { kind: 'once'; lasts: Length | 'forever' | { until: LocalDate } }
);

/** The open form of an offer. Amounts in minor units of `currency`. */
export type Offer = {
  id?: string | undefined;
  tier: string;
  currency: string;
  joiningFee?: { amount: number; due: 'start' | 'first-payment' } | undefined;
  steps: Step[];
  after: 'end' | 'keep';
  /** A single payment for a length can be renewed, from so many days before its end. */
  renewal?: { daysBefore: number } | undefined;
};

export function isEndless(step: Step): boolean {
  return (
    (step.kind === 'repeat' && step.times === null) || (step.kind === 'once' && step.lasts === 'forever')
  );
}

/** Whether an offer comes to an end after which it could be bought once more: its last step is one payment for a length. */
export function isRenewable({ steps, after }: Pick<Offer, 'steps' | 'after'>): boolean {
  const last = steps.at(-1);
  return after === 'end' && last?.kind === 'once' && typeof last.lasts === 'object' && 'n' in last.lasts;
}

/** The steps whose last day had passed by a local date: nothing is left of them. */
export function stepsOver(steps: Step[], today: LocalDate): number[] {
  return steps.flatMap((step, index) =>
    step.kind === 'once' &&
    typeof step.lasts === 'object' &&
    'until' in step.lasts &&
    step.lasts.until < today
      ? [index]
      : [],
  );
}

/** Whether anything is ever charged: such an offer needs a gateway, and its tier counts as paid. */
export function isPaid(offer: Offer): boolean {
  return (offer.joiningFee?.amount ?? 0) > 0 || offer.steps.some((step) => step.amount > 0);
}

const MOST_DAYS = { hour: 1 / 24, day: 1, week: 7, month: 31, year: 366 };

/**
 * How long a tier can be held by an offer at most, without buying it again; null where it runs on, is kept, can be renewed,
 * or lasts until a date. In days, rather too many than too few.
 */
export function longestHolding(offer: Offer): Length | null {
  if (offer.after === 'keep' || isRenewable(offer)) return null;
  let days = 0;
  for (const step of offer.steps) {
    const lasts = step.kind === 'repeat' ? step.every : step.lasts;
    const times = step.kind === 'repeat' ? step.times : 1;
    if (typeof lasts !== 'object' || !('n' in lasts) || times === null) return null;
    days += Math.ceil(lasts.n * MOST_DAYS[lasts.unit]) * times;
  }
  return { n: days, unit: 'day' };
}
