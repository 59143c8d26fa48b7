import { declineProblem, type ChargeOutcome } from '@/billing/gateways/contract';
import { refusedField, refusedWith, type Refusal } from '@/platform/result';

/** What a gateway said, where a person has to know: declined, or no answer. Null: the money came, or is awaited. */
export function answerOf(outcome: ChargeOutcome): Refusal | null {
  if (outcome.state === 'declined') return refusedWith(declineProblem(outcome.code), 'card');
  if (outcome.state === 'unknown') return refusedField('', 'payment.unknown', { reason: outcome.reason });
  return null;
}
