import type { Refusal } from './work';

/** Why a member's or staff's wish was not done, in a sentence that says what to do next. */
export function refusalSentence(why: Refusal): string {
  return SENTENCES[why];
}

const UNDER_WAY = 'A payment is under way. Try again in a minute.';
const ENDED = 'This subscription has ended. You can join again.';
const PENDING = 'The first payment hasn’t arrived yet.';
const NOT_NOW = 'This can’t be done now. Load the page again to see how things stand.';

const SENTENCES: Record<Refusal, string> = {
  active: NOT_NOW,
  already: 'This has been done already. Load the page again.',
  'another-price':
    'What is due has changed since this page was opened. Check the amount, then press the button again.',
  cancelling: 'You have cancelled. Undo that in your account first, then switch.',
  currency: 'That offer is in another currency, so you can’t switch to it. Write to us and we will help.',
  disputed: 'A payment is disputed. Nothing can be changed until that is decided.',
  elsewhere: 'Another payment of yours is under way. Finish that one first, or cancel it in your account.',
  ended: ENDED,
  expired: 'This checkout has expired. Load the page again; nothing was charged.',
  finished: ENDED,
  held: 'You hold this, or another tier of its ladder, already. Your account shows it.',
  known: 'This has been done already. Load the page again.',
  merge: 'Both accounts have a subscription on the same ladder. End one of them first.',
  'no-method': 'This offer costs money. Add a payment method first.',
  'no-offer': 'This offer is no longer available.',
  'no-payment': 'This payment is no longer available.',
  'not-cancelled': 'This isn’t cancelled, so there is nothing to undo.',
  'not-disputed': NOT_NOW,
  'not-now': NOT_NOW,
  'not-paused': 'This isn’t paused.',
  'not-renewed': 'This can’t be renewed.',
  'nothing-due': NOT_NOW,
  'nothing-left': 'Nothing is left of this offer: its dates have passed.',
  'nothing-pending': NOT_NOW,
  'nothing-runs': ENDED,
  'nothing-to-cancel': 'Nothing more will be charged, so there is nothing to cancel.',
  'nothing-to-pause': 'Nothing more will be charged, so there is nothing to pause.',
  'nothing-to-take-back': NOT_NOW,
  'nothing-unpaid': 'Everything is paid.',
  overdue: 'The last payment failed. Pay it first.',
  paused: 'This is paused. Resume it first.',
  pending: PENDING,
  'quote-void':
    'What this switch costs has changed since the page was opened. Load it again to see it; nothing was charged.',
  returned: 'This payment was returned already.',
  same: 'You are on this offer already.',
  'too-early': 'This can’t be renewed yet. Nothing was charged.',
  'too-much': 'That is more than is left of this payment.',
  trial: 'The trial is still running.',
  'under-way': UNDER_WAY,
  wait: 'The wait before a first switch up isn’t over yet.',
};
