import { declineSentence, type ChargeOutcome } from '@/billing/gateways/contract';
import { refusedField, type Refusal } from '@/platform/result';

/** What a gateway said, where a person has to know: declined, or no answer. Null: the money came, or is awaited. */
export function answerOf(outcome: ChargeOutcome): Refusal | null {
  if (outcome.state === 'declined') return refusedField('card', declineSentence(outcome.code));
  if (outcome.state === 'unknown') return refusedField('', silence(outcome.reason));
  return null;
}

export const silence = (reason: string): string =>
  `${reason}, so we do not know yet whether the payment went through. Press the button again in a minute: you will not be charged twice.`;
