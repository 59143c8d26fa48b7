import type { Instant } from '../instants';
import type { Book, BillingContext } from './book';
import { step } from './step';

/** What a person can ask for a subscription by one press. */
export const DEEDS = [
  'cancel',
  'undo',
  'take-away',
  'pause',
  'resume',
  'renew',
  'pay-now',
  'take-back',
] as const;
export type Deed = (typeof DEEDS)[number];

/** The deeds that would not be refused now, by the step itself: no button is offered that only says no. */
export const deedsOpen = (book: Book, subscription: string, context: BillingContext, now: Instant): Deed[] =>
  DEEDS.filter((deed) => step(book, { do: deed, subscription }, context, now).ok);
