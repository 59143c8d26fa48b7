/** What was refused, where, and what a person can do about it: a sentence for each code, as an ICU message. These can reach members. */
export const problems = {
  // Any form
  'country.missing': 'Choose a country.',
  'date.unreal': 'That date does not exist.',
  'email.missing': 'Type your email address.',
  'email.unreadable': 'Type an email address, like name@site.example.',
  'form.nested': 'This is nested too deeply to be read.',
  'form.old': 'This page has been open too long. Load it again; nothing was charged.',
  'form.quick': 'That was quick. Wait a second, then press the button again.',
  'form.site-only': 'Only the site itself does this.',
  'form.too-large': 'This is more than can be sent at once. Shorten it, then try again.',
  'form.unknown': 'This cannot be done here.',
  'form.unloaded':
    'This page hasn’t finished loading. Wait a second, then press the button again. It needs JavaScript.',
  'form.unreadable': 'This has characters that cannot be saved. Remove them, then try again.',
  'list.at-least': 'At least {least}.',
  'list.at-most': 'At most {most}.',
  'name.missing': 'Type your name.',
  'name.one-line': 'A name is one line.',
  'name.address': 'A name holds no address. Type your name alone.',
  'name.full-stop': 'A name holds no address. Put a space after a full stop.',
  'number.at-least': 'Type a whole number, at least {least}.',
  'number.at-most': 'At most {most}.',
  'number.optional': 'Type a whole number, or leave it empty.',
  'number.too-many': 'That is too many.',
  'number.whole': 'Whole numbers only.',
  'number.whole-days': 'Whole days only.',
  'number.whole-hours': 'Whole hours only.',
  'record.missing': 'This page or record is no longer available.',
  'record.saved-elsewhere':
    'This was saved in another window in the meantime. Open it there or in a new one, copy over what you need, and save again.',
  'staff.may-not':
    '{role, select, none {Someone who is not staff} editor {An editor} other {A {role}}} can’t {right}. Ask the owner of the site.',
  'staff.not-signed-in': 'Sign in first.',
  'staff.test-checkout': 'Test checkout is for staff.',
  'text.too-long': 'At most {most, plural, one {# character} other {# characters}}.',
  'text.too-short': 'At least {least, plural, one {# character} other {# characters}}.',
  'use.signed-out': 'You aren’t signed in. Sign in in another tab, then try again here.',
  'value.choose': 'Choose one of these.',
  'value.invalid': 'This can’t be read. Check it, then try again.',
  'value.missing': 'This is required.',

  // Signing in
  'code.expired': 'This code has expired or was used. Request a new one; it works for {minutes} minutes.',
  'code.six-digits': 'The code has six digits. Copy it from our email.',
  'code.too-many':
    'Too many codes were requested. Wait {minutes, plural, one {a minute} other {# minutes}}, then try again.',
  'code.used-up': 'That isn’t the code we emailed, and it has now expired. Request a new one.',
  'code.wrong':
    'That isn’t the code we emailed. You have {left, plural, one {one try} other {# tries}} left.',
  'email.is-yours': 'This is the address you have already.',
  'email.taken': 'This email address has an account of its own. Sign in with it, or use another address.',
  'link.used': 'This link has expired or was used. Sign in to continue.',
  'password.confirm': 'Type your password to confirm this.',
  'password.missing': 'Type your password.',
  'password.none': 'You haven’t set a password. Set one in your account settings, then try again.',
  'password.weak':
    'This password is easy to guess. Use a few words that have nothing to do with each other or with you.',
  'password.weak-because':
    'This password is easy to guess. {why} Use a few words that have nothing to do with each other or with you.',
  'password.wrong': 'This isn’t your password. Nothing was changed.',
  'session.over': 'This session has already ended.',
  'sign-in.code-after-session': 'Sign in first, then type the code again.',
  'sign-in.old-page': 'This page is too old. Go back, and type your email address again.',
  'sign-in.too-many':
    'Too many tries. Wait {minutes, plural, one {a minute} other {# minutes}}, or sign in with a code we email you.',
  'sign-in.blocked': 'This account is blocked. Write to the people who run the site.',
  'one-time.wrong': 'That code is wrong, too old, or was used before. Type the one that your app shows now.',
  'one-time.on-already': 'One-time codes are on already.',
  'one-time.off-already': 'One-time codes are off.',
  'one-time.not-begun': 'Set up one-time codes first.',
  'passkey.gone': 'This passkey has already been removed.',
  'passkey.known': 'This device has a passkey for the site already.',
  'passkey.long-name': 'A name can have up to 80 characters.',
  'passkey.no-answer': 'Your browser needs JavaScript for passkeys. Nothing was changed.',
  'passkey.no-name': 'Give the passkey a name, so that you know it again.',
  'passkey.too-many': 'You have {most} passkeys, and can’t have more. Remove one first.',
  'passkey.unknown':
    'This passkey doesn’t sign in here: it may have been removed, or you took too long. Try again, or sign in with your password.',
  'passkey.wrong': 'Your device’s answer can’t be used: you may have taken too long. Try again.',
  'proof.last':
    'The site asks its staff for a one-time code or a passkey, and this is your only one. Add another first.',
  'proof.none': 'They have no one-time codes and no passkeys.',
  'proof.own-first': 'Set up one-time codes or a passkey for yourself first, and sign in with it.',
  'proof.show-yours':
    'Sign out, and sign in with your passkey first. If you have lost it, ask an owner of the site to reset your sign-in.',
  'sign-in.wrong':
    'This email address and password don’t match. Check both, or sign in with a code we email you.',
  'comment.empty': 'Write something first.',
  'comment.too-long': 'A comment can have up to {most} characters.',
  'comment.looking':
    'You’re looking at the site as someone else. Go back to the Desk to comment as yourself.',
  'frame.too-old': 'The frame was opened too long ago. Reload the page that shows it, and try again.',
  'frame.closed': 'Your membership doesn’t include this.',
  'pass.looking': 'You’re looking at the site as someone else. Go back to the Desk to do this as yourself.',
  'pass.wrong-password': 'That isn’t the password. Check it, or ask the person who gave it to you.',
  'pass.link-used': 'This link has been used, or is too old. Ask for a new one where you wanted to read.',
  'pass.revoked': 'The people who run this site have ended the access of this email address.',
  'pass.had': 'The time for this email address has run out.',
  'comment.not-you': 'Your membership doesn’t include commenting here.',
  'comment.too-many':
    'You have posted a lot in a short time. Wait {minutes, plural, one {a minute} other {# minutes}}, then post this one.',
  'comment.gone': 'The comment you are replying to was removed. Your words are still here.',
  'tries.too-many':
    'Too many tries. Wait {minutes, plural, one {a minute} other {# minutes}}, then try again.',

  // A member’s account
  'account.by-staff': 'Accounts are deleted by the people who run this site. Write to them.',
  'account.confirm-delete': 'Tick this to say that you are sure.',
  'account.not-deleted': '{why} Nothing was deleted.',
  'account.of-staff': 'You’re staff here. The owner has to remove your role first.',
  'account.wrong-password': 'This is not your password. Nothing was deleted.',

  // What joining asks for
  'answer.date': 'Choose a date.',
  'answer.missing': 'This is required.',
  'answer.none-of-these': 'Choose one of these.',
  'answer.not-agreed': 'You need to agree to this to join.',
  'answer.not-chosen': 'Choose one.',
  'answer.not-ticked': 'You need to tick this to join.',

  // Checkout
  'checkout.closed': 'Joining {tier} is closed. Nothing was charged.',
  'checkout.code-invalid': 'This code isn’t valid, or has expired. Check it, or ask for another.',
  'code.over': 'This code has expired.',
  'code.not-yet': 'This code can’t be used yet.',
  'code.used-up-all': 'This code has been used up.',
  'code.used-by-you': 'You have used this code already.',
  'code.new-only': 'This code is for people who are new here.',
  'code.of-another': 'This invitation was sent to another email address. Sign in with that one.',
  'code.not-for-this': 'This code is good, but not for this offer.',
  'code.lower-already': 'You already pay less because of a tier you hold, so you don’t need this code.',
  'code.gives-nothing': 'This code gives nothing by itself. Use it when you join.',
  'code.changes-price': 'This code changes the price. Choose “Use the code” first to see what you would pay.',
  'checkout.code-needed': 'Joining {tier} needs a code. Type the one you were given.',
  'checkout.full': 'The last place of {tier} has just been taken. Nothing was charged.',
  'checkout.lost': 'We couldn’t finish this. Look in your account to see whether you’ve joined.',
  'checkout.method-gone': 'This payment method is no longer available. Choose another. Nothing was charged.',
  'checkout.not-on-sale': '{tier} is not on sale today. Nothing was charged.',
  'checkout.of-another': 'This page was opened by someone else. Load it again; nothing was charged.',
  'checkout.of-another-offer': 'This page belongs to another offer. Load it again; nothing was charged.',
  'checkout.of-test': 'This page was opened before the site went live. Load it again; nothing was charged.',
  'checkout.offer-gone': 'This offer is no longer on sale. Choose another on the join page.',
  'checkout.offer-left': 'This offer is no longer on sale. Go back to the join page and choose another.',
  'checkout.no-payments': 'This site cannot take payments yet. Nothing was charged; try again later.',
  'checkout.price-changed':
    'The price has changed since this page was opened. Load the page again to see it; nothing was charged.',
  'checkout.saved-card-gone': 'This card is no longer saved. Enter a card.',
  'checkout.too-many':
    'Too many tries. Wait {minutes, plural, one {a minute} other {# minutes}}, then try again; what you typed stays.',

  // Payments and subscriptions
  'card.missing': 'Enter your card.',
  'card.not-saved': '{reason}. Nothing was charged; try again in a moment.',
  'declined.bad-request': 'This card can’t be charged. Use another card.',
  'declined.bad-token': 'The card details could not be used. Type them again.',
  'declined.expired': 'This card has expired. Use another card.',
  'declined.needs-confirmation':
    'Your bank asks you to confirm this payment. Enter the card again, then confirm.',
  'declined.no-funds': 'There isn’t enough money on this card. Try another card, or try again later.',
  'declined.no-method': 'There is no payment method. Add a card.',
  'declined.not-paid': 'The transfer didn’t arrive in time.',
  'declined.other': 'Your card was declined. Try another card, or contact your bank.',
  'method.not-here': 'This payment method can’t be used here. Choose another.',
  'payment.unknown':
    '{reason}, so we do not know yet whether the payment went through. Press the button again in a minute: you will not be charged twice.',
  'quote.gone': 'This quote is no longer available. Load the page again.',
  'renewal.awaited':
    'Your transfer is awaited; your account shows the reference. It is renewed as soon as the money arrives.',
  'switch.at-once': 'This switch begins at once. Load the page again to see it.',
  'wallet.cannot-pause': '{gateway} cannot pause what it bills. Cancel it instead; you can join again.',
  'wallet.not-running': 'A wallet can be chosen only while the subscription runs. Resume it first.',
  'wallet.not-undone':
    'The wallet has stopped billing, and only you can approve it again there. Choose a payment method in your account, then undo the cancellation.',
  'wallet.nothing-to-approve': 'Nothing more is charged, so there is nothing to approve.',

  // What a book refuses
  'refusal.active': 'This can’t be done now. Load the page again to see the current state.',
  'refusal.already': 'This has been done already. Load the page again.',
  'refusal.another-price':
    'What is due has changed since this page was opened. Check the amount, then press the button again.',
  'refusal.cancelling': 'You have cancelled. Undo that in your account first, then switch.',
  'refusal.currency':
    'That offer is in another currency, so you can’t switch to it. Write to us and we will help.',
  'refusal.disputed': 'A payment is disputed. Nothing can be changed until that is decided.',
  'refusal.elsewhere':
    'Another payment of yours is in progress. Finish that one first, or cancel it in your account.',
  'refusal.ended': 'This subscription has ended. You can join again.',
  'refusal.expired': 'This checkout has expired. Load the page again; nothing was charged.',
  'refusal.finished': 'This subscription has ended. You can join again.',
  'refusal.held': 'You already have this tier or another of the same ladder. Your account shows it.',
  'refusal.known': 'This has been done already. Load the page again.',
  'refusal.merge': 'Both accounts have a subscription on the same ladder. End one of them first.',
  'refusal.no-method': 'This offer costs money. Add a payment method first.',
  'refusal.no-offer': 'This offer is no longer available.',
  'refusal.no-payment': 'This payment is no longer available.',
  'refusal.not-cancelled': 'This isn’t cancelled, so there is nothing to undo.',
  'refusal.not-disputed': 'This can’t be done now. Load the page again to see the current state.',
  'refusal.not-now': 'This can’t be done now. Load the page again to see the current state.',
  'refusal.not-paused': 'This isn’t paused.',
  'refusal.not-renewed': 'This can’t be renewed.',
  'refusal.nothing-due': 'This can’t be done now. Load the page again to see the current state.',
  'refusal.nothing-left': 'Nothing is left of this offer: its dates have passed.',
  'refusal.nothing-pending': 'This can’t be done now. Load the page again to see the current state.',
  'refusal.nothing-runs': 'This subscription has ended. You can join again.',
  'refusal.nothing-to-cancel': 'Nothing more will be charged, so there is nothing to cancel.',
  'refusal.nothing-to-pause': 'Nothing more will be charged, so there is nothing to pause.',
  'refusal.nothing-to-take-back': 'This can’t be done now. Load the page again to see the current state.',
  'refusal.nothing-unpaid': 'Everything is paid.',
  'refusal.overdue': 'The last payment failed. Pay it first.',
  'refusal.paused': 'This is paused. Resume it first.',
  'refusal.pending': 'The first payment hasn’t arrived yet.',
  'refusal.quote-void':
    'What this switch costs has changed since the page was opened. Load it again to see it; nothing was charged.',
  'refusal.returned': 'This payment was returned already.',
  'refusal.same': 'You are on this offer already.',
  'refusal.too-early': 'This can’t be renewed yet. Nothing was charged.',
  'refusal.too-much': 'That is more than is left of this payment.',
  'refusal.trial': 'The trial is still running.',
  'refusal.under-way': 'A payment is in progress. Try again in a minute.',
  'refusal.wait': 'You can’t switch up yet. Try again later.',

  // Gateways and bank statements
  'gateway.said': '{words}',

  // Content
  'id.incomplete': 'This link is not complete. Go back, and open it again.',

  // The site
  'thing.gone': 'This no longer exists.',

  // Emails to many
  'letter.link-old': 'This link is too old. Ask for a new one.',
  'letter.no-topic': 'Choose at least one.',

  // What is bought once
  'product.not-on-sale': 'This is no longer for sale.',
  'product.closed': 'This code no longer works: it has expired, or was refunded.',
  'product.devices-full':
    'This code is in use on {count, plural, one {# other device} other {# other devices}}, and can’t be used on more. Its buyer can sign one out in their account.',
  'product.device-gone': 'This device has been signed out already.',
} as const;
