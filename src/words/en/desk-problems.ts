/** The same, where only staff can be refused. */
export const deskProblems = {
  // Any form
  'address.no-slash': 'An address begins with a slash.',
  'currency.missing': 'Choose a currency.',
  'length.too-long': 'That is longer than ten years.',
  'link.unsafe': 'A link begins with https://, / or mailto:.',
  'number.days': 'Type a number of days.',
  'number.hours': 'Enter a number of hours.',

  // Money that is typed
  'amount.below-zero': 'An amount cannot be below zero.',
  'amount.decimals': '{currency} has at most {decimals} decimals. Write it like {example}.',
  'amount.missing': 'Type an amount, or 0 for free.',
  'amount.no-decimals': '{currency} has no decimals. Write it like {example}.',
  'amount.too-large': 'That amount is too large.',
  'amount.two-ways': '“{typed}” could mean {one} or {other}. Type {first} or {second}.',
  'amount.unreadable': '“{typed}” is not an amount. Write it like {example}.',
  'tax.rate': 'A rate is a number from 0 to 100, like 20 or 8.875.',

  // A member’s account
  'member.gone': 'This member no longer exists.',
  'note.gone': 'This note no longer exists.',
  'note.missing': 'Write the note.',

  // What joining asks for
  'join-field.address': 'An address begins with / or https://.',
  'join-field.no-label': 'Say what is asked for.',
  'join-field.same-options': 'Two of these are the same.',
  'join-field.too-few-options': 'A choice needs at least two to choose from.',

  // Payments and subscriptions
  'move.count': 'By now it would be {now}, not {shown}. Look again, then decide.',
  'move.currency': 'The newest version is in another currency. Nobody can be moved to it.',
  'refund.not-asked': '{reason}. Nothing was refunded.',
  'refund.fully': 'This payment has been refunded in full.',
  'refund.missing': 'Enter an amount to refund.',
  'refund.not-received': 'Only a received payment can be refunded.',
  'refund.outside': 'Between the smallest amount and {left}: that is what is left of this payment.',
  'refund.sent': 'This was marked as sent already.',
  'refund.unknown':
    '{reason}, so we don’t know yet whether the refund went through. It is retried automatically, and never refunded twice.',
  'switch.by-member': 'Only the member can approve this at their wallet: they switch in their account.',

  // Gateways and bank statements
  'consent.expired': 'This consent has expired, or someone else started it. Connect again.',
  'consent.mode': 'Consent was given for the other mode, test or live. Nothing was saved; connect again.',
  'consent.not-given': 'You did not give consent. Nothing has changed.',
  'consent.not-this-way': 'This gateway is connected by keys, not by consent.',
  'consent.not-traded': 'The gateway did not hand over its keys. Nothing was saved; connect again.',
  'gateway.key-too-long': 'A key has at most {most} characters.',
  'gateway.no-ping': 'Saved, but no test message could be asked for: {reason}.',
  'gateway.no-ping-registered':
    'The address is registered, but no test message could be asked for: {reason}.',
  'gateway.in-use':
    'Still running on this gateway: {subscriptions, plural, one {# subscription} other {# subscriptions}}, {payments, plural, one {# payment in progress} other {# payments in progress}}, {refunds, plural, one {# refund in progress} other {# refunds in progress}}. Take it off checkout; you can disconnect it when members have changed their payment method or ended.',
  'gateway.not-connected': 'This gateway is no longer connected.',
  'gateway.silent': '{reason}. Nothing was saved; try again in a moment.',
  'gateway.not-registered': 'The webhook address could not be registered: {reason}. Try again.',
  'key.another-account':
    'This site key belongs to another account than the secret key. Copy both from one account.',
  'key.cut-off':
    'This key is cut off: {missing, plural, one {# character is} other {# characters are}} missing at the end. Copy all of it.',
  'key.live':
    'This is a live-mode key: with it, real cards would be charged. The site is in test mode; paste the key that begins with {start}',
  'key.missing': 'Paste the {name, select, siteKey {site key} other {secret key}}. It begins with {start}',
  'key.not-ours':
    'This is not a key of {gateway}: a {name, select, siteKey {site key} other {secret key}} begins with {start}',
  'key.other-kind':
    'This is the {pasted, select, siteKey {site key} other {secret key}}. The {name, select, siteKey {site key} other {secret key}} belongs here; it begins with {start}',
  'key.test':
    'This is a test-mode key: with it, no real money moves. The site is live; paste the key that begins with {start}',
  'key.too-long': 'This key is {extra} characters too long. Copy the key alone, with nothing after it.',
  'key.unknown':
    '{gateway} does not know this secret key. It may have been withdrawn there; make a new one and paste it.',
  'key.wrong': 'One character or more of this key is wrong. Copy it again instead of typing it.',
  'message.unsigned': 'This message failed its signature check, so it is not processed.',
  'method.no-label': 'Type what people read at checkout.',
  'retry-days.unreadable':
    'Up to ten whole numbers of days, each above the one before and at most {most}, like 1, 3, 5, 7.',
  'statement.amounts-differ': 'The line is of {line}, and {awaited} is awaited: they do not match.',
  'statement.line-amount': '“{typed}” is not an amount',
  'statement.line-date': '“{typed}” is not a date',
  'statement.matched': 'This line is matched already. Load the page again.',
  'statement.missing': 'Choose a file, or paste the statement.',
  'statement.no-account': 'Choose the account that the statement is of.',
  'statement.no-columns': 'The first line must name the columns. Missing: {missing}.',
  'statement.no-csv': 'This is no CSV file.',
  'statement.no-transfer': 'Choose what it pays.',
  'statement.no-why': 'Say in a word or two what became of it.',
  'statement.not-awaited': 'This transfer is no longer awaited. Load the page again.',
  'statement.too-large': 'A statement has at most 2 MB.',
  'transfer.account': 'Type the account that is paid to.',
  'transfer.at-least-a-day': 'Give people a day at least.',
  'transfer.no-number': 'Type the number of the account, as people write it on a transfer.',
  'transfer.no-payee': 'Type the name on the account.',
  'wallet.consent-gone': '{gateway} no longer knows this consent. Connect it again.',
  'wallet.consent-mode': 'This is not a {mode}-mode consent of {gateway}.',
  'wallet.consent-of-another': 'This consent was given by another account.',
  'webhook.no-secret':
    'A signing secret begins with whsec_ and is copied whole. Copy it from the gateway’s page.',

  // Tiers and offers
  'key.no-notch': 'A key has at least one notch.',
  'key.too-many-notches': 'A key has at most {most} notches.',
  'offer.after-endless': 'Nothing can follow a step that never ends.',
  'offer.last-day': 'Choose the last day.',
  'offer.minor-units': 'An amount is a whole number of minor units.',
  'offer.no-step': 'An offer needs at least one step.',
  'offer.not-renewable': 'Only a single payment that lasts for a time, and then ends, can be renewed.',
  'offer.step-over': 'This day has passed: nobody who joins would get anything from this step.',
  'offer.too-many-steps': 'An offer has at most 12 steps.',
  'offer.trial-alone': 'After the trial, say what comes next: an offer cannot be a trial alone.',
  'join-code.letters': 'Letters, figures and hyphens only.',
  'join-code.taken': 'This tier has that code already.',
  'join-code.too-short': 'A code has at least 4 characters, so that it is not guessed.',
  'join-code.uses': 'At least once.',
  'join-field.no-name': 'The name is always one of the fields; switch it off to do without.',
  'join-field.same-id': 'Two fields have the same id.',
  'join-field.too-many': 'At most 40 fields.',
  'join-field.too-many-options': 'At most 40 to choose from.',
  'ladder.changed': 'These tiers have changed in the meantime. Load the page again, then drag.',
  'ladder.gone': 'This ladder no longer exists.',
  'ladder.no-name': 'Name the ladder.',
  'ladder.no-new-name': 'Name the new ladder.',
  'ladder.taken': 'Another ladder has this name.',
  'offer.gone': 'This offer no longer exists.',
  'offer.no-name': 'Name the offer: “Monthly”, “Yearly”.',
  'offer.over': 'Every date of this offer has passed: nobody who joins would get anything.',
  'offer.step-tier-gone': 'That tier no longer exists.',
  'offer.taken': 'This tier has an offer called “{name}” already.',
  'offer.tier-gone': 'The tier of this offer no longer exists.',
  'tier.gone': 'This tier no longer exists.',
  'tier.double-held':
    '{count, plural, one {One member holds} other {# members hold}} this tier beside another of that ladder, where only one can be held. Switch or end one of the two first.',
  'tier.key-taken': 'This is the key of {tier}. Change a notch: two tiers are never cut alike.',
  'tier.no-name': 'Name the tier.',
  'tier.path': 'An address on this site begins with /.',
  'tier.places': 'At least one place; to stop joining, close it.',
  'tier.reference-taken': 'Another tier has this reference. In an export the two could not be told apart.',
  'tier.sale-dates': 'This is before the first day of sale.',
  'tier.several': 'Of a ladder one tier is held at a time. Take it off the ladder, or untick this.',
  'tier.taken': 'There is a tier called “{tier}” already. Give this one another name.',

  // Content
  'category.missing': 'Name the category.',
  'category.taken': 'There is a category of this name already.',
  'item.front-taken': 'The front page is “{title}”. Open that page and untick “Front page” first.',
  'item.no-title': 'Give it a title.',
  'item.own-parent': 'A page can’t be its own parent.',
  'item.parent-gone': 'The page above no longer exists.',
  'item.reserved': 'This address is reserved for the site. Choose another.',
  'item.saved-elsewhere':
    'Someone else saved this in the meantime. Open it in another window, copy over what you need, and save again.',
  'item.taken': 'Another page or post has this address already. Choose another.',
  'import.section-unreadable':
    'A section is not written as it should be: its text would be open to everyone. Nothing was imported.',
  'import.no-head': 'has no head between two lines of ---',
  'picture.too-large': 'This picture is larger than 8 MB. Save it smaller, then choose it again.',
  'picture.unreadable': 'This cannot be read as a picture. Choose a JPEG, PNG, WebP or AVIF file.',

  // Access
  'rule.changed-elsewhere': 'Someone else changed this rule in the meantime. Reload the page to see it.',
  'prose.no-sections': 'Only pages and posts can have sections.',
  'rule.covers-nothing': 'Say what the rule covers.',
  'rule.in-sections':
    'A section of “{title}” opens to the same people as this rule. Change the section first.',
  'rule.gone': 'This rule is gone already.',
  'rule.no-name': 'Name the rule.',
  'teaser.at-least-a-word': 'At least one word.',
  'teaser.no-number': 'Type how many words.',
  'teaser.too-many-words': 'At most 2,000 words.',
  'teaser.whole-words': 'Whole words only.',
  'viewpoint.unknown': 'There is no such viewpoint.',

  // Taxes
  'tax.choose': 'Choose one of the three.',
  'tax.no-country': 'Choose the country you sell from.',
  'tax.no-kind': 'Name the kind.',
  'tax.no-name': 'Name the tax, like VAT.',
  'tax.no-rate': 'Write down at least one rate, or choose that nothing is taxed.',
  'tax.number-prefix': 'At most 12 letters, digits, dashes and strokes.',
  'tax.rate-twice': 'There is a rate for this already.',

  // Mail
  'mail.address': 'Type the address mail comes from, like post@site.example.',
  'mail.always-on': 'This mail cannot be switched off: something hangs on it.',
  'mail.gone': 'This mail or member no longer exists. Load the page again.',
  'mail.no-sender': 'Name the sender: members see it beside the subject.',
  'mail.not-failed': 'This email is being sent, was sent, or is no longer stored.',
  'mail.one-line': 'A subject is one line.',
  'mail.sender-plain': 'Without quotes, angle brackets and line ends.',
  'mail.unknown': 'There is no such mail.',
  'mail.unknown-field': 'This mail has nothing to put in for {field}. It knows {known}.',

  // The site
  'clock.backwards': 'The rehearsal clock only goes forward.',
  'clock.too-far': 'At most 400 days at once.',
  'clock.test-only': 'The clock can be moved in test mode only.',
  'days.below-zero': 'Not below zero.',
  'days.missing': 'Type a whole number of days.',
  'days.too-many': 'At most {most} days.',
  'live.already': 'The site is live already.',
  'live.blocked': '{why} Connect one first.',
  'live.name': 'Type the name of the site as it is: {name}.',
  'live.no-gateway': 'No gateway is connected in live mode: nobody could pay.',
  'live.webhook-not-heard': 'The webhook of {gateway} has not been heard in live mode yet.',
  'live.offer-not-carried':
    'No live gateway can charge for “{offer}” of {tier}, so nobody could join with it.',
  'live.not-yet': 'Test data is cleared when the site goes live, or afterwards.',
  'site.exists': 'This database holds a site already.',
  'site.no-name': 'Name the site.',
  'site.no-owner': 'Name the owner.',
  'staff.no-amount': 'Enter an amount. 0 asks every time.',
  'staff.one-hour': 'One hour at least.',
  'staff.too-long-idle': 'At most {most} hours, which is 30 days.',
  'tier.bought': 'People have joined by “{offer}” or started to, so it has a history. Retire it instead.',
  'tier.held': 'People have joined {tier} or started to, so it has a history. Retire it instead.',
  'tier.led-to': 'The offer “{offer}” leads to {tier}. Change or delete that offer first.',
  'tier.opened-by-rule': 'The rule “{rule}” opens to {tier}. Take the tier out of it first.',

  // Wording
  'words.no-fields':
    'This sentence has nothing to fill in for {field}. Take it out, or write it without braces.',
  'words.unknown-field': 'This sentence has nothing to fill in for {field}. It has {known}.',
  'words.unreadable': 'A brace is missing, or one too many. Copy what is in braces from the original.',
} as const;
