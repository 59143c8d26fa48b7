/**
 * How the idempotency key of a money effect begins; the number of the attempt ends it. Made of what the money is for, never of a date, so that the same
 * attempt has the same key wherever and whenever it is made.
 */
export function paymentKeyStart(subscriptionId: string, step: number, n: number): string {
  return `${subscriptionId}:${step}:${n}:`;
}
