/** What only staff read. */
export const desk = {
  'state.message-new': 'waiting',
  'state.message-done': 'done',
  'state.message-ignored': 'ignored',
  'state.message-refused': 'refused',
  'state.mail-queued': 'sending',
  'state.mail-sent': 'sent',
  'state.mail-failed': 'failed',
  'state.dispute-open': 'disputed',
  'state.dispute-won': 'dispute won',
  'state.dispute-lost': 'dispute lost',

  'live.members': '{count, plural, one {# member} other {# members}}',
  'live.subscriptions': '{count, plural, one {# test subscription} other {# test subscriptions}}',
  'live.approvals': '{count, plural, one {# approval} other {# approvals}}',
  'live.test-data':
    '{subscriptions, plural, one {# subscription} other {# subscriptions}}, {payments, plural, one {# payment} other {# payments}}, {documents, plural, one {# document} other {# documents}} and {messages, plural, one {# gateway message} other {# gateway messages}}',
  'desk.list-cut': 'The {which} {shown, number} of {total, number} are shown.',
} as const;
