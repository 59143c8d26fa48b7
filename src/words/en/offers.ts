/** What an offer costs, in a sentence: "14 days free, then £6 a month until you cancel." */
export const offers = {
  'length.hour': '{n, plural, one {# hour} other {# hours}}',
  'length.day': '{n, plural, one {# day} other {# days}}',
  'length.week': '{n, plural, one {# week} other {# weeks}}',
  'length.month': '{n, plural, one {# month} other {# months}}',
  'length.year': '{n, plural, one {# year} other {# years}}',
  'length.for-hour': '{n, plural, =1 {an hour} other {# hours}}',
  'length.for-day': '{n, plural, =1 {a day} other {# days}}',
  'length.for-week': '{n, plural, =1 {a week} other {# weeks}}',
  'length.for-month': '{n, plural, =1 {a month} other {# months}}',
  'length.for-year': '{n, plural, =1 {a year} other {# years}}',
  'length.every-hour': '{n, plural, =1 {an hour} other {every # hours}}',
  'length.every-day': '{n, plural, =1 {a day} other {every # days}}',
  'length.every-week': '{n, plural, =1 {a week} other {every # weeks}}',
  'length.every-month': '{n, plural, =1 {a month} other {every # months}}',
  'length.every-year': '{n, plural, =1 {a year} other {every # years}}',

  'offer.free': 'free',
  'offer.once': '{price} once',
  'offer.each': '{price} {every}',
  'offer.instalments-short': '{times, number} × {price} {every}',
  'offer.trial-free': '{tier, select, none {{length} free} other {{length} of {tier} free}}',
  'offer.trial-paid': '{tier, select, none {{length} for {price}} other {{length} of {tier} for {price}}}',
  'offer.one-period': '{tier, select, none {{price} for {length}} other {{price} for {tier} for {length}}}',
  'offer.free-until-you-leave':
    '{tier, select, none {free until you leave} other {free for {tier} until you leave}}',
  'offer.free-for': '{tier, select, none {free for {length}} other {free for {tier} for {length}}}',
  'offer.until-you-cancel':
    '{tier, select, none {{price} {every} until you cancel} other {{price} {every} for {tier} until you cancel}}',
  'offer.instalments':
    '{tier, select, none {{times, number} payments of {price} {every}} other {{times, number} payments of {price} {every} for {tier}}}',
  'offer.free-for-good': '{tier, select, none {free for good} other {free for {tier} for good}}',
  'offer.once-for-good':
    '{tier, select, none {{price} once, for good} other {{price} once for {tier}, for good}}',
  'offer.free-until': '{tier, select, none {free, until {date}} other {free for {tier}, until {date}}}',
  'offer.once-until':
    '{tier, select, none {{price} once, until {date}} other {{price} once for {tier}, until {date}}}',
  'offer.once-for':
    '{tier, select, none {{price} once, for {length}} other {{price} once for {tier}, for {length}}}',
  'offer.then': '{before}, then {after}',
  'offer.then-kept': '{before}, and it’s yours for good',
  'offer.then-ends': '{before}, then it ends',
  'offer.renewable-after': 'You can renew it when it has ended.',
  'offer.renewable-before': 'You can renew it from {days, plural, =1 {a day} other {# days}} before it ends.',
  'offer.fee-at-start': 'A joining fee of {amount} is due when you join.',
  'offer.fee-with-first': 'A joining fee of {amount} is charged with the first payment.',
} as const;
