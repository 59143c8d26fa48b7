import { formatDate, formatLength, startOfDate, type Length } from '../calendar';
import { formatMoney } from '../money';
import type { Offer, Step } from './offer';

/** The sentence that stands on the join page: "14 days free, then £6 a month until you cancel." */
export function offerSentence(offer: Offer, skipTrial = false): string {
  const steps = offer.steps.filter((step) => !(skipTrial && step.kind === 'trial'));
  const parts = steps.map((step) => stepWords(step, offer));
  let sentence = capitalise(parts.join(', then '));
  const last = steps.at(-1);
  if (
    offer.after === 'keep' &&
    last &&
    !(last.kind === 'once' && last.lasts === 'forever') &&
    !(last.kind === 'repeat' && last.times === null)
  ) {
    sentence += ', and it is yours for good';
  }
  sentence += '.';
  const fee = offer.joiningFee?.amount ?? 0;
  if (fee > 0) {
    const when = offer.joiningFee?.due === 'start' ? 'is due on joining' : 'comes with the first payment';
    sentence += ` A joining fee of ${formatMoney(fee, offer.currency, true)} ${when}.`;
  }
  return sentence;
}

function stepWords(step: Step, offer: Offer): string {
  const price = step.amount === 0 ? 'free' : formatMoney(step.amount, offer.currency, true);
  if (step.kind === 'trial')
    return step.amount === 0
      ? `${formatLength(step.lasts)} free`
      : `${formatLength(step.lasts)} for ${price}`;
  if (step.kind === 'repeat') {
    const each = `${price} ${everyWords(step.every)}`;
    if (step.times === null) return step.amount === 0 ? 'free until you leave' : `${each} until you cancel`;
    return step.times === 1
      ? `${price} for ${formatLength(step.every)}`
      : `${step.times} payments of ${each}`;
  }
  if (step.lasts === 'forever') return step.amount === 0 ? 'free for good' : `${price} once, for good`;
  if ('until' in step.lasts)
    return `${price === 'free' ? 'free' : `${price} once`}, until ${shortDate(step.lasts.until)}`;
  return step.amount === 0
    ? `free for ${formatLength(step.lasts, true)}`
    : `${price} once, for ${formatLength(step.lasts)}`;
}

/** "a month", "every 10 days", "an hour". */
export function everyWords(every: Length): string {
  if (every.n !== 1) return `every ${formatLength(every)}`;
  return `${every.unit === 'hour' ? 'an' : 'a'} ${every.unit}`;
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

function shortDate(date: string): string {
  return formatDate(startOfDate(date, 'UTC'), 'UTC').replace(/^\w+ /, '');
}

const capitalise = (text: string): string => text.charAt(0).toUpperCase() + text.slice(1);
