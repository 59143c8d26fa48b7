import type { offers as en } from '../en/offers';

export const offers: Record<keyof typeof en, string> = {
  'length.hour': '{n, plural, one {# Stunde} other {# Stunden}}',
  'length.day': '{n, plural, one {# Tag} other {# Tage}}',
  'length.week': '{n, plural, one {# Woche} other {# Wochen}}',
  'length.month': '{n, plural, one {# Monat} other {# Monate}}',
  'length.year': '{n, plural, one {# Jahr} other {# Jahre}}',
  'length.for-hour': '{n, plural, =1 {eine Stunde} other {# Stunden}}',
  'length.for-day': '{n, plural, =1 {einen Tag} other {# Tage}}',
  'length.for-week': '{n, plural, =1 {eine Woche} other {# Wochen}}',
  'length.for-month': '{n, plural, =1 {einen Monat} other {# Monate}}',
  'length.for-year': '{n, plural, =1 {ein Jahr} other {# Jahre}}',
  'length.every-hour': '{n, plural, =1 {pro Stunde} other {alle # Stunden}}',
  'length.every-day': '{n, plural, =1 {pro Tag} other {alle # Tage}}',
  'length.every-week': '{n, plural, =1 {pro Woche} other {alle # Wochen}}',
  'length.every-month': '{n, plural, =1 {pro Monat} other {alle # Monate}}',
  'length.every-year': '{n, plural, =1 {pro Jahr} other {alle # Jahre}}',

  'offer.free': 'kostenlos',
  'offer.once': '{price} einmalig',
  'offer.each': '{price} {every}',
  'offer.instalments-short': '{times, number} × {price} {every}',
  'offer.trial-free': '{tier, select, none {{length} kostenlos} other {{length} {tier} kostenlos}}',
  'offer.trial-paid': '{tier, select, none {{length} für {price}} other {{length} {tier} für {price}}}',
  'offer.one-period': '{tier, select, none {{price} für {length}} other {{price} für {length} {tier}}}',
  'offer.free-until-you-leave':
    '{tier, select, none {kostenlos, solange Sie Mitglied sind} other {{tier} kostenlos, solange Sie Mitglied sind}}',
  'offer.free-for': '{tier, select, none {{length} kostenlos} other {{length} {tier} kostenlos}}',
  'offer.until-you-cancel':
    '{tier, select, none {{price} {every}, bis Sie kündigen} other {{price} {every} für {tier}, bis Sie kündigen}}',
  'offer.instalments':
    '{tier, select, none {{times, number} Zahlungen zu {price} {every}} other {{times, number} Zahlungen zu {price} {every} für {tier}}}',
  'offer.free-for-good': '{tier, select, none {auf Dauer kostenlos} other {{tier} auf Dauer kostenlos}}',
  'offer.once-for-good':
    '{tier, select, none {{price} einmalig, auf Dauer} other {{price} einmalig für {tier}, auf Dauer}}',
  'offer.free-until': '{tier, select, none {kostenlos bis {date}} other {{tier} kostenlos bis {date}}}',
  'offer.once-until':
    '{tier, select, none {{price} einmalig, bis {date}} other {{price} einmalig für {tier}, bis {date}}}',
  'offer.once-for':
    '{tier, select, none {{price} einmalig, für {length}} other {{price} einmalig für {tier}, für {length}}}',
  'offer.then': '{before}, danach {after}',
  'offer.then-kept': '{before}, und der Zugang bleibt auf Dauer',
  'offer.then-ends': '{before}, dann endet es',
  'offer.renewable-after': 'Nach dem Ende können Sie verlängern.',
  'offer.renewable-before':
    'Sie können ab {days, plural, =1 {einem Tag} other {# Tagen}} vor dem Ende verlängern.',
  'offer.fee-at-start': 'Beim Beitritt ist eine Aufnahmegebühr von {amount} fällig.',
  'offer.fee-with-first': 'Mit der ersten Zahlung wird eine Aufnahmegebühr von {amount} fällig.',
};
