import { isEndless, type Offer, type Step } from '@/core/offers/offer';
import type { Length } from '@/core/instants';
import type { Words } from './speak';

export type SentenceOptions = {
  /** For a returning person, who gets no second trial. */
  skipTrial?: boolean;
  /** For a member who switched or was moved: no joining fee. */
  skipFee?: boolean;
  /** Names of tiers by id, for offers that lead from one tier to the next. */
  tierNames?: ReadonlyMap<string, string>;
};

/** The sentence of the join page: "14 days free, then £6 a month until you cancel." */
export function offerSentence(
  offer: Offer,
  t: Words,
  { skipTrial = false, skipFee = false, tierNames }: SentenceOptions = {},
): string {
  const steps = offer.steps.filter((step) => !(skipTrial && step.kind === 'trial'));
  const leads = new Set(steps.map((step) => step.tier ?? offer.tier)).size > 1;
  const nameOf = (step: Step): string => (leads && tierNames?.get(step.tier ?? offer.tier)) || 'none';
  const [first = '', ...rest] = steps.map((step) => stepWords(step, offer.currency, nameOf(step), t));
  const all = rest.reduce((before, after) => t('offer.then', { before, after }), first);
  return [
    `${capitalise(withEnd(all, offer, steps, t))}.`,
    renewalWords(offer, t),
    skipFee ? '' : feeWords(offer, t),
  ]
    .filter(Boolean)
    .join(' ');
}

function stepWords(step: Step, currency: string, tier: string, t: Words): string {
  const isFree = step.amount === 0;
  const price = t.money(step.amount, currency, true);
  if (step.kind === 'trial') {
    const length = lengthWords(step.lasts, t);
    return isFree ? t('offer.trial-free', { length, tier }) : t('offer.trial-paid', { length, tier, price });
  }
  if (step.kind === 'repeat') {
    const { every, times } = step;
    if (isFree) {
      if (times === null) return t('offer.free-until-you-leave', { tier });
      return t('offer.free-for', { tier, length: forWords({ ...every, n: every.n * times }, t) });
    }
    if (times === 1) return t('offer.one-period', { tier, price, length: forWords(every, t) });
    const each = { tier, price, every: everyWords(every, t) };
    return times === null ? t('offer.until-you-cancel', each) : t('offer.instalments', { ...each, times });
  }
  if (step.lasts === 'forever')
    return isFree ? t('offer.free-for-good', { tier }) : t('offer.once-for-good', { tier, price });
  if ('until' in step.lasts) {
    const date = t.day(step.lasts.until);
    return isFree ? t('offer.free-until', { tier, date }) : t('offer.once-until', { tier, price, date });
  }
  const length = forWords(step.lasts, t);
  return isFree ? t('offer.free-for', { tier, length }) : t('offer.once-for', { tier, price, length });
}

function withEnd(before: string, offer: Offer, steps: Step[], t: Words): string {
  const last = steps.at(-1);
  if (!last || isEndless(last)) return before;
  if (offer.after === 'keep') return t('offer.then-kept', { before });
  const isSeveral = last.kind === 'repeat' && last.amount > 0 && last.times !== null && last.times > 1;
  return isSeveral ? t('offer.then-ends', { before }) : before;
}

function renewalWords({ renewal }: Offer, t: Words): string {
  if (!renewal) return '';
  return renewal.daysBefore === 0
    ? t('offer.renewable-after')
    : t('offer.renewable-before', { days: renewal.daysBefore });
}

function feeWords({ joiningFee, currency }: Offer, t: Words): string {
  if (!joiningFee || joiningFee.amount === 0) return '';
  const amount = t.money(joiningFee.amount, currency, true);
  return joiningFee.due === 'start'
    ? t('offer.fee-at-start', { amount })
    : t('offer.fee-with-first', { amount });
}

/** "14 days", "1 month". */
export const lengthWords = ({ n, unit }: Length, t: Words): string => t(`length.${unit}`, { n });
/** "a month", "10 days": after "for". */
const forWords = ({ n, unit }: Length, t: Words): string => t(`length.for-${unit}`, { n });
/** "a month", "every 10 days", "an hour": after a price. */
export const everyWords = ({ n, unit }: Length, t: Words): string => t(`length.every-${unit}`, { n });

/** The price in a few words for a card or a row: "£6 a month", "£25 once", "free". */
export function offerPrice(offer: Offer, t: Words): string {
  const step = [...offer.steps].reverse().find((s) => s.kind !== 'trial');
  if (!step) return '';
  if (step.amount === 0) return t('offer.free');
  const price = t.money(step.amount, offer.currency, true);
  if (step.kind !== 'repeat') return t('offer.once', { price });
  const every = everyWords(step.every, t);
  return step.times === null
    ? t('offer.each', { price, every })
    : t('offer.instalments-short', { times: step.times, price, every });
}

const capitalise = (text: string): string => text.charAt(0).toUpperCase() + text.slice(1);
