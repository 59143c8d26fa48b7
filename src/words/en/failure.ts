/** Where a page fails. Said without a database, and so in no words of the owner's own. */
export const failure = {
  'failure.title': 'Something went wrong',
  'failure.words':
    'The fault is ours. If you were only reading, nothing was changed. If you were paying or saving something, we can’t tell from here whether it went through: look in your account before you try again. You will never be charged twice for the same thing.',
  'failure.back': 'Use your browser’s Back button to return to what you typed.',
  'failure.again': 'Try again',
  'failure.account': 'Your account',
  'failure.number': 'If it happens again, tell the people who run this site this number: {number}',
} as const;
