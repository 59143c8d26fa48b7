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
  'staff-mail.open': 'Open in the Desk',
  'staff-mail.joined': '{name} joined {tier}',
  'staff-mail.joined-words': '{name} ({email}) joined {tier} on {date}.',
  'staff-mail.failed': 'A payment by {name} for {tier} failed',
  'staff-mail.failed-words':
    'The payment by {name} ({email}) for {tier} was declined on {date}. It is retried automatically, and the member has been told.',
  'staff-mail.disputed': '{name} disputes a payment for {tier}',
  'staff-mail.disputed-words':
    '{name} ({email}) asked their bank to take back a payment for {tier} on {date}. Answer on the page of the gateway; access is stopped until it is decided.',
  'staff-mail.left': '{name} is leaving {tier}',
  'staff-mail.left-words': '{name} ({email}) cancelled {tier}, or it ended, on {date}.',
  'staff-mail.transfer': 'A bank transfer of {amount} is due from {name}',
  'staff-mail.transfer-words':
    '{name} is paying {amount} by bank transfer, with the reference {reference}. Import a statement, or mark it as received, when it arrives.',
  'staff-mail.weekly': 'The week from {from} at {site}',
  'staff-mail.weekly-joined':
    '{count, plural, =0 {Nobody joined.} one {One member joined.} other {# members joined.}}',
  'staff-mail.weekly-left':
    '{count, plural, =0 {Nobody left.} one {One member left.} other {# members left.}}',
  'staff-mail.weekly-received': 'Received: {amount}.',
  'staff-mail.weekly-failed':
    '{count, plural, =0 {No payment failed.} one {One payment failed.} other {# payments failed.}}',
  'staff-mail.weekly-disputed':
    '{count, plural, =0 {No payment was disputed.} one {One payment was disputed.} other {# payments were disputed.}}',
  'desk.list-cut': 'The {which} {shown, number} of {total, number} are shown.',
} as const;
