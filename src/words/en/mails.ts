/** What members are mailed. Which mails there are, and what each is about, is in `src/mail/mails`. */
export const mails = {
  'mails.hello': 'Hello{name, select, none {} other { {name}}},',
  'mails.there': 'there',
  'mails.account': 'Your account',
  'mails.join-again': 'Join again',
  'mails.later': 'later',
  'mails.next': 'The next charge is {amount} on {date}.',
  'mails.next-and-credit': 'The next charge is {amount} on {date}; {credit} more is taken from your credit.',
  'mails.next-by-credit': 'Your credit pays the next charge, {credit} on {date}.',
  'mails.cancel-before': '{next} You can cancel before then, in your account, with one click.',
  'mails.nothing-more': 'Nothing more will be charged.',
  'mails.taken': '{amount} is charged{method, select, none {} other { to the {method}}}',
  'mails.taken-credit': '{credit} is taken from your credit',
  'mails.taken-both':
    '{amount} is charged{method, select, none {} other { to the {method}}} and {credit} is taken from your credit',

  'mail-code.subject':
    '{why, select, join {Your code to join {site}} address {Your code to use this email address at {site}} other {Your code to sign in to {site}}}',
  'mail-code.words':
    '{why, select, join {Type this code to join {site}.} address {Type this code to use this email address at {site}.} other {Type this code to sign in to {site}.}} It works once, for {minutes, plural, one {# minute} other {# minutes}}, in the browser where you asked for it.',
  'mail-code.not-you': 'Didn’t ask for a code? Ignore this email: nothing happens without the code.',
  'mail-code.link': 'Or open this link in the same browser',

  'mail-read-link.subject': 'Your link to read on at {site}',
  'mail-read-link.words':
    'Open this link to read on at {site} with the pass “{name}”. It works once, for {hours, plural, one {# hour} other {# hours}}.',
  'mail-read-link.not-you': 'Didn’t ask for it? Ignore this email: nothing happens without the link.',
  'mail-read-link.link': 'Read on',

  'mail-sign-in-link.subject': 'Your link to sign in to {site}',
  'mail-sign-in-link.words':
    'Open this link to sign in to {site}. It works once, for {days, plural, one {# day} other {# days}}. Staff of {site} sent it to you.',
  'mail-sign-in-link.not-you': 'Please don’t pass it on: anyone who opens it is signed in as you.',
  'mail-sign-in-link.link': 'Sign in',

  'mail-staff-invite.subject': 'You are invited to help run {site}',
  'mail-staff-invite.words':
    'You are invited to join the staff of {site} as {role, select, owner {an owner} editor {an editor} helper {a helper} other {a viewer}}. Open this link to accept. It works once, for {days, plural, one {# day} other {# days}}.',
  'mail-staff-invite.not-you': 'Weren’t expecting this? Ignore this email: nothing happens without the link.',
  'mail-staff-invite.link': 'See the invitation',

  'mail-gift.subject': 'You have been given {name} at {site}',
  'mail-gift.words': 'You now have {name} at {site}, for good.',
  'mail-gift.words-until': 'You now have {name} at {site}, through {date}.',
  'mail-gift.free': 'It is a gift: nothing will be charged for it.',

  'mail-no-account.subject': 'Signing in to {site}',
  'mail-no-account.words':
    'Someone asked to sign in to {site} with this email address, but it has no account here.',
  'mail-no-account.not-you':
    'If that was you, you may have joined with another address. If not, ignore this email.',
  'mail-no-account.link': 'See how to join',

  'mail-unfinished.subject': 'Finish joining {tier}',
  'mail-unfinished.words':
    'You started to join {site} as {tier}, but didn’t finish. Nothing was charged. This link takes you back to your checkout. It works once, for {days, plural, one {# day} other {# days}}.',
  'mail-unfinished.changed-mind':
    'Changed your mind? You don’t need to do anything. This is the only reminder.',
  'mail-unfinished.link': 'Continue to checkout',

  'mail-welcome.subject': 'Welcome to {site}{name, select, none {} other {, {name}}}',
  'mail-joined.words': 'You now have {tier}. {sentence}',
  'mail-switched.subject': 'You now have {tier}',

  'mail-receipt.subject': 'Receipt: {amount} for {tier}',
  'mail-receipt.words':
    'We received {amount} on {date} for {tier}{method, select, none {} other {, from the {method}}}.',
  'mail-receipt.fee': 'It includes the joining fee of {amount}.',
  'mail-receipt.credit': 'Your credit of {credit} paid the rest of {total}.',
  'mail-receipt.link': 'View your receipt',

  'mail-transfer.subject': 'Please transfer {amount} for {tier}',
  'mail-transfer.words':
    'Transfer {amount} to {payee}, account {account}{bank, select, none {} other {, {bank}}}.',
  'mail-transfer.reference':
    'Use this reference, and nothing else: {reference}. It tells us that the money is yours.',
  'mail-transfer.by': 'Please make sure it arrives by {date}.',
  'mail-transfer.link': 'View the payment details',

  'mail-trial.subject': 'Your trial of {tier} ends on {date}',
  'mail-trial.words': 'Your trial of {tier} ends on {date}. Then {taken}, and it continues: {sentence}',
  'mail-trial.cancel':
    'If it isn’t for you, cancel in your account before then, with one click, and nothing is charged.',

  'mail-renewal.subject': '{tier} renews on {date}',
  'mail-renewal.words': '{tier} renews on {date}: {taken}. You don’t need to do anything.',
  'mail-renewal.cancel':
    'If you’d rather stop, cancel in your account before then: you have access until that day.',

  'mail-card.subject': 'The card for {tier} expires soon',
  'mail-card.words':
    'The {method} that pays for {tier} can be charged until the end of {month}. The next charge is on {date}.',
  'mail-card.card': 'card',
  'mail-card.change': 'Add another card before then, and your membership continues without a break.',
  'mail-card.link': 'Change payment method',

  'mail-failed.subject': 'A payment for {tier} failed',
  'mail-failed.words': 'We couldn’t collect the payment for {tier}: the card was declined.',
  'mail-failed.again':
    'We’ll try again on {date}. Until then nothing changes for you. Please check that the card can pay, or change your payment method.',

  'mail-moved.words': 'From today you have {tier}. {sentence}',

  'mail-price.subject': 'The price of {tier} from {date}',
  'mail-price.before': 'Until now: {sentence}',
  'mail-price.after': 'From your next period, on {date}: {sentence}',
  'mail-price.approve': 'Your wallet bills only what you’ve approved: please approve this before that day.',
  'mail-price.cancel':
    'Nothing changes before that day. If it isn’t for you, you can cancel in your account until then.',
  'mail-price.link': 'Approve the new price',

  'mail-paused.subject': '{tier} is paused',
  'mail-paused.words':
    '{tier} is paused. Nothing is charged and you have no access until you resume it; the next period then begins that day.',

  'mail-resumed.subject': '{tier} has resumed',
  'mail-resumed.words': '{tier} has resumed, and you have access again to everything it opens.',

  'mail-cancelled.subject': '{tier} is cancelled',
  'mail-cancelled.words':
    'As you asked, {tier} ends on {date}. Nothing more will be charged. You have access until then, and you can undo the cancellation in your account.',

  'mail-ended.subject': '{tier} has ended',
  'mail-ended.words': '{tier} has ended. Thank you for being a member. You can join again at any time.',

  'mail-unpaid.subject': '{tier} has ended: the payment failed',
  'mail-unpaid.words':
    'We tried several times to collect the payment for {tier}, and it was declined each time. {tier} has ended, and we won’t try again. You can join again with another card.',

  'mail-refunded.subject': 'Your refund of {amount} for {tier}',
  'mail-refunded.words':
    'We’ve refunded {amount} of what you paid for {tier} to the payment method you paid with. Your bank may take a few days to show it.',
  'mail-refunded.by-hand':
    'We’re refunding {amount} of what you paid for {tier}. We send it to you ourselves; it takes a few days.',
  'mail-refunded.ended': '{tier} has ended with it.',
  'mail-refunded.open': 'You still have access to everything {tier} opens.',

  'mail-dispute.subject': '{tier} has ended',
  'mail-dispute.words':
    'Your bank took back a payment for {tier}, so {tier} has ended. If that was a mistake, write to us.',

  'mail-address.subject': 'Your email address at {site} has changed',
  'mail-address.words':
    'Your account now has the address {email}. We write to you there from now on, and you sign in with it.',
  'mail-address.not-you': 'If you didn’t change it, write to us at once.',

  'mail-passkey.subject': 'A passkey was added to your account at {site}',
  'mail-passkey.words': 'The passkey “{name}” can sign in as you from now on, without a password.',
  'mail-passkey.not-you':
    'If you didn’t add it, sign in, remove it in your account settings, and change your password.',

  'mail-post.words':
    '{name, select, none {New on the site: “{title}”.} other {New on the site, by {name}: “{title}”.}}',
  'mail-post.link-none': 'Read it on the site',
  'mail-post.link-closed': 'Read on',
  'mail-post.link-sections': 'See what else is in it on the site',
  'mail-letter.link': 'Visit {site}',
  'mail-confirm.subject': 'Confirm that you want emails from {site}',
  'mail-confirm.words':
    'Someone asked for emails from {site} to this address. If it was you, confirm it by this link. It works for {hours, plural, one {# hour} other {# hours}}.',
  'mail-confirm.not-you': 'If it wasn’t you, ignore this email. Nothing will be sent without the link.',
  'mail-confirm.link': 'Yes, send me emails',

  'mail-bought.subject': 'Your code for {name}',
  'mail-bought.code-subject': 'Your code for {name}, sent again',
  'mail-bought.paid': 'Thank you. We received {amount} for {name} on {date}.',
  'mail-bought.by-credit': 'Thank you. Your credit paid for {name}.',
  'mail-bought.pass':
    'It is open to you now, wherever you’re signed in. On another device, sign in or type the code above.',
  'mail-bought.gift-card':
    'Pass the code above on to the person it’s for. They type it on our site, or follow the link below, and have it from that day.',
  'mail-bought.until': 'It is yours until {date}.',
  'mail-bought.receipt': 'Your receipt: {url}',
  'mail-bought.link': 'Use the code',

  'mail-join-invite.subject': 'You’re invited to join {site}',
  'mail-join-invite.words': '{site} invites you to join as {tier}.',
  'mail-join-invite.yours-alone': 'The link is for you alone, and works for 30 days.',
  'mail-join-invite.link': 'Join as {tier}',
} as const;
