import type { Length, LocalDate } from '../instants';
import { stepsOver, type Offer, type Step } from './offer';

/** What a gateway can carry. Checkout hides it where it cannot carry an offer, and the offer editor says so. */
export type Carries = {
  /** ISO 4217 codes; null: any. */
  currencies: string[] | null;
  repeating: boolean;
  /** Whether something may come before the first payment, or be cheaper at first. */
  trial: boolean;
  /** Lengths of period that it can bill; a single payment has none. */
  units: Length['unit'][];
  /** A step that runs until a date, with another after it. */
  dates: boolean;
  /** Going over to another offer without being asked anew by the payer. */
  switch: boolean;
  /** Taking something off a single charge. */
  discount: boolean;
  pause: boolean;
  /** Giving money back by a call, rather than by hand. */
  refund: boolean;
};

/** What of an offer a gateway cannot carry; `what` names the currency or the unit. */
export type Uncarried = { why: 'currency' | 'repeating' | 'trial' | 'dates' | 'unit'; what: string };

/** Why a gateway cannot carry an offer; empty where it can. */
export function cannotCarry(carries: Carries, offer: Offer): Uncarried[] {
  const lengths = offer.steps.flatMap((step): Length[] => {
    // What costs nothing is not billed.
    if (step.amount === 0) return [];
    if (step.kind === 'repeat') return [step.every];
    return 'n' in lastsOf(step) ? [lastsOf(step) as Length] : [];
  });
  const wrongUnit = lengths.find((length) => !carries.units.includes(length.unit));
  return [
    ...(carries.currencies && !carries.currencies.includes(offer.currency)
      ? [{ why: 'currency' as const, what: offer.currency }]
      : []),
    ...(!carries.repeating && offer.steps.some((step) => step.kind === 'repeat')
      ? [{ why: 'repeating' as const, what: '' }]
      : []),
    ...(!carries.trial && offer.steps.some((step) => step.kind === 'trial')
      ? [{ why: 'trial' as const, what: '' }]
      : []),
    ...(!carries.dates &&
    offer.steps.slice(0, -1).some((step) => step.kind === 'once' && 'until' in lastsOf(step))
      ? [{ why: 'dates' as const, what: '' }]
      : []),
    ...(wrongUnit ? [{ why: 'unit' as const, what: wrongUnit.unit }] : []),
  ];
}

const lastsOf = (step: Exclude<Step, { kind: 'repeat' }>): object =>
  typeof step.lasts === 'string' ? {} : step.lasts;

/** A stretch of what a gateway bills by itself: `first` for its first bill, `amount` for each later one. */
export type BillingStage = { amount: number; first: number; every: Length | null; times: number | null };

/**
 * An offer as a gateway bills it that keeps the calendar itself. Minor units.
 * @param less taken off the first bill, which may come to nothing
 */
export function billingStages(offer: Offer, skipTrial: boolean, today: LocalDate, less = 0): BillingStage[] {
  const over = stepsOver(offer.steps, today);
  let fee = offer.joiningFee?.amount ?? 0;
  let reduction = less;
  return offer.steps
    .filter((step, index) => !(skipTrial && step.kind === 'trial') && !over.includes(index))
    .map((step) => {
      const carriesFee = fee > 0 && (offer.joiningFee?.due === 'start' || step.amount > 0);
      const full = step.amount + (carriesFee ? fee : 0);
      if (carriesFee) fee = 0;
      const first = Math.max(0, full - reduction);
      reduction = 0;
      if (step.kind === 'repeat') return { amount: step.amount, first, every: step.every, times: step.times };
      const every = 'n' in lastsOf(step) ? (lastsOf(step) as Length) : null;
      return { amount: step.amount, first, every, times: 1 };
    });
}
