/**
 * The idempotency key of a money effect. Made of what the money is for, never of a date, so that the same
 * attempt has the same key wherever and whenever it is made.
 */
export function paymentKey(subscriptionId: string, step: number, n: number, attempt: number): string {
  return `${subscriptionId}:${step}:${n}:${attempt}`;
}
