import type { Subscription } from '@/core/billing/book';
import type { Instant } from '@/core/instants';
import type { Account } from './book-rows';
import type { NewCode } from './purchase-rows';

/** What the book alone does not say of what a step adds. */
export type Details = {
  /** When the step was taken; the site's clock. */
  at: Instant;
  /** Of subscriptions that are new, where they are not paid as those whose place they take; and of purchases. */
  accounts?: Map<string, Account>;
  /** Seconds of real time for which no other process works on what is asked now. */
  leaseSeconds: number;
  /** When the member is told about the next charge. */
  remindAt: (s: Subscription) => Instant | null;
  /** The code of a purchase that is paid. */
  newCode: NewCode;
  /** What a payer writes on a transfer; used for a charge that has none yet. */
  newReference: () => string;
};

/** What was there before, and what is there now. */
export type Pair<T> = { was: T | undefined; is: T };

/** Those of a list that a step added or changed. A step shares what it leaves as it was, or copies it as it was. */
export function changes<T extends object>(before: T[], after: T[], key: (one: T) => string): Pair<T>[] {
  const known = new Map(before.map((one) => [key(one), one]));
  return after.flatMap((is): Pair<T>[] => {
    const was = known.get(key(is));
    return was === is || (was && JSON.stringify(was) === JSON.stringify(is)) ? [] : [{ was, is }];
  });
}
/** A write of which nothing more is to be known. */
export const done = (_: number): void => undefined;
export const byId = ({ id }: { id: string }): string => id;
