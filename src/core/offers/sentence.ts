import { formatDate, formatLength, type Length, type LocalDate } from '../instants';
import { formatMoney } from '../money';
import { isEndless, type Offer, type Step } from './offer';

export type SentenceOptions = {
  /** For a returning person, who gets no second trial. */
  skipTrial?: boolean;
  /** For somebody who switched or was moved: no joining fee. */
  skipFee?: boolean;
  /** Names of tiers by id, for offers that lead from one tier to the next. */
  tierNames?: ReadonlyMap<string, string>;
};

/** The sentence that stands on the join page: "14 days free, then £6 a month until you cancel." */
export function offerSentence(
  offer: Offer,
  { skipTrial = false, skipFee = false, tierNames }: SentenceOptions = {},
): string {
  const steps = offer.steps.filter((step) => !(skipTrial && step.kind === 'trial'));
  const leads = new Set(steps.map((step) => step.tier ?? offer.tier)).size > 1;
  const nameOf = (step: Step): string | undefined =>
    leads ? tierNames?.get(step.tier ?? offer.tier) : undefined;
  const parts = steps.map((step) => stepWords(step, offer, nameOf(step)));
  return [
    `${capitalise(parts.join(', then '))}${endWords(offer, steps)}.`,
    renewalWords(offer),
    skipFee ? '' : feeWords(offer),
  ]
    .filter(Boolean)
    .join(' ');
}

function stepWords(step: Step, { currency }: Offer, tierName: string | undefined): string {
  const price = step.amount === 0 ? 'free' : formatMoney(step.amount, currency, true);
  const of = tierName ? ` of ${tierName}` : '';
  const as = tierName ? ` for ${tierName}` : '';
  if (step.kind === 'trial')
    return `${formatLength(step.lasts)}${of} ${step.amount === 0 ? 'free' : `for ${price}`}`;
  if (step.kind === 'repeat') {
    if (step.times === 1) return `${price}${as} for ${aLength(step.every)}`;
    if (step.amount === 0)
      return step.times === null
        ? `free${as} until you leave`
        : `free${as} for ${aLength({ ...step.every, n: step.every.n * step.times })}`;
    const each = `${price} ${everyWords(step.every)}${as}`;
    return step.times === null ? `${each} until you cancel` : `${step.times} payments of ${each}`;
  }
  if (step.lasts === 'forever')
    return step.amount === 0 ? `free${as} for good` : `${price} once${as}, for good`;
  if ('until' in step.lasts)
    return `${step.amount === 0 ? 'free' : `${price} once`}${as}, until ${shortDate(step.lasts.until)}`;
  return step.amount === 0
    ? `free${as} for ${aLength(step.lasts)}`
    : `${price} once${as}, for ${aLength(step.lasts)}`;
}

function endWords(offer: Offer, steps: Step[]): string {
  const last = steps.at(-1);
  if (!last || isEndless(last)) return '';
  if (offer.after === 'keep') return ', and it is yours for good';
  return last.kind === 'repeat' && last.amount > 0 && last.times !== null && last.times > 1
    ? ', then it ends'
    : '';
}

function renewalWords({ renewal }: Offer): string {
  if (!renewal) return '';
  return renewal.daysBefore === 0
    ? 'It can be renewed when it has ended.'
    : `It can be renewed from ${renewal.daysBefore === 1 ? 'a day' : `${renewal.daysBefore} days`} before its end.`;
}

function feeWords({ joiningFee, currency }: Offer): string {
  if (!joiningFee || joiningFee.amount === 0) return '';
  const when = joiningFee.due === 'start' ? 'is due on joining' : 'comes with the first payment';
  return `A joining fee of ${formatMoney(joiningFee.amount, currency, true)} ${when}.`;
}

/** "a month", "every 10 days", "an hour". */
export function everyWords(every: Length): string {
  return every.n === 1 ? aLength(every) : `every ${formatLength(every)}`;
}

/** "a month", "10 days". */
function aLength(length: Length): string {
  if (length.n !== 1) return formatLength(length);
  return `${length.unit === 'hour' ? 'an' : 'a'} ${length.unit}`;
}

/** The price in a few words for a card or a row: "£6 a month", "£25 once", "free". */
export function offerPrice(offer: Offer): string {
  const step = [...offer.steps].reverse().find((s) => s.kind !== 'trial');
  if (!step) return '';
  if (step.amount === 0) return 'free';
  const price = formatMoney(step.amount, offer.currency, true);
  if (step.kind === 'repeat') {
    return step.times === null
      ? `${price} ${everyWords(step.every)}`
      : `${step.times} × ${price} ${everyWords(step.every)}`;
  }
  return `${price} once`;
}

function shortDate(date: LocalDate): string {
  return formatDate(`${date}T00:00:00Z`, 'UTC').replace(/^\w+ /, '');
}

const capitalise = (text: string): string => text.charAt(0).toUpperCase() + text.slice(1);
