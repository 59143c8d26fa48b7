/** Mails to staff. */
export const staffMails = {
  'staff-mail.open': 'Open in the Desk',
  'staff-mail.joined': '{name} joined {tier}',
  'staff-mail.joined-words': '{name} ({email}) joined {tier} on {date}.',
  'staff-mail.bought': '{name} bought “{tier}”',
  'staff-mail.bought-words': '{name} ({email}) bought “{tier}” for {amount} on {date}.',
  'staff-mail.disputed-purchase':
    '{name} ({email}) asked their bank to take back the payment for “{tier}” on {date}. Answer on the page of the gateway. What was bought stays open until it is decided.',
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
  'staff-mail.comment': '{name} commented on “{title}”',
  'staff-mail.comment-held': 'A comment on “{title}” is waiting for approval',
  'staff-mail.comment-words': '{name} commented on “{title}” on {date}.',
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
} as const;
