import type { mails as en } from '../en/mails';

export const mails: Record<keyof typeof en, string> = {
  'mails.hello': 'Guten Tag{name, select, none {} other { {name}}},',
  'mails.there': '',
  'mails.account': 'Mein Konto',
  'mails.join-again': 'Wieder beitreten',
  'mails.later': 'später',
  'mails.next': 'Die nächste Zahlung: {amount} am {date}.',
  'mails.next-and-credit':
    'Die nächste Zahlung: {amount} am {date}; weitere {credit} werden Ihrem Guthaben entnommen.',
  'mails.next-by-credit': 'Die nächste Zahlung übernimmt Ihr Guthaben: {credit} am {date}.',
  'mails.cancel-before': '{next} Bis dahin können Sie in Ihrem Konto mit einem Klick kündigen.',
  'mails.nothing-more': 'Es wird nichts mehr abgebucht.',
  'mails.taken': '{amount} werden abgebucht{method, select, none {} other { ({method})}}',
  'mails.taken-credit': '{credit} werden Ihrem Guthaben entnommen',
  'mails.taken-both':
    '{amount} werden abgebucht{method, select, none {} other { ({method})}} und {credit} Ihrem Guthaben entnommen',

  'mail-code.subject':
    '{why, select, join {Ihr Code für den Beitritt zu {site}} address {Ihr Code für diese E-Mail-Adresse bei {site}} other {Ihr Code für die Anmeldung bei {site}}}',
  'mail-code.words':
    '{why, select, join {Mit diesem Code treten Sie {site} bei.} address {Mit diesem Code verwenden Sie diese E-Mail-Adresse bei {site}.} other {Mit diesem Code melden Sie sich bei {site} an.}} Er gilt einmal, {minutes, plural, one {# Minute} other {# Minuten}} lang, in dem Browser, in dem Sie ihn angefordert haben.',
  'mail-code.not-you':
    'Sie haben keinen Code angefordert? Dann können Sie diese E-Mail ignorieren: Ohne den Code passiert nichts.',
  'mail-code.link': 'Oder öffnen Sie diesen Link im selben Browser',

  'mail-read-link.subject': 'Ihr Link zum Weiterlesen bei {site}',
  'mail-read-link.words':
    'Mit diesem Link lesen Sie bei {site} weiter, mit dem Pass „{name}“. Er gilt einmal, {hours, plural, one {# Stunde} other {# Stunden}} lang.',
  'mail-read-link.not-you':
    'Sie haben keinen Link angefordert? Dann können Sie diese E-Mail ignorieren: Ohne den Link passiert nichts.',
  'mail-read-link.link': 'Weiterlesen',

  'mail-sign-in-link.subject': 'Ihr Link zum Anmelden bei {site}',
  'mail-sign-in-link.words':
    'Mit diesem Link melden Sie sich bei {site} an. Er gilt einmal und {days, plural, one {# Tag} other {# Tage}} lang. Das Team von {site} hat ihn Ihnen geschickt.',
  'mail-sign-in-link.not-you':
    'Bitte geben Sie ihn nicht weiter: Wer ihn öffnet, ist mit Ihrem Konto angemeldet.',
  'mail-sign-in-link.link': 'Anmelden',

  'mail-staff-invite.subject': 'Einladung: {site} mitgestalten',
  'mail-staff-invite.words':
    'Sie sind eingeladen, im Team von {site} mitzuarbeiten, und zwar {role, select, owner {als Inhaberin oder Inhaber} editor {in der Redaktion} helper {in der Betreuung der Mitglieder} other {mit Leserechten}}. Mit diesem Link nehmen Sie an. Er gilt einmal und {days, plural, one {# Tag} other {# Tage}} lang.',
  'mail-staff-invite.not-you':
    'Haben Sie das nicht erwartet? Dann können Sie diese E-Mail ignorieren: Ohne den Link geschieht nichts.',
  'mail-staff-invite.link': 'Einladung ansehen',

  'mail-gift.subject': 'Sie haben bei {site} ein Geschenk: {name}',
  'mail-gift.words': 'Sie haben jetzt {name} bei {site}, auf Dauer.',
  'mail-gift.words-until': 'Sie haben jetzt {name} bei {site}, bis einschließlich {date}.',
  'mail-gift.free': 'Es ist ein Geschenk: Dafür wird nichts berechnet.',

  'mail-no-account.subject': 'Anmeldung bei {site}',
  'mail-no-account.words':
    'Jemand wollte sich mit dieser E-Mail-Adresse bei {site} anmelden, aber zu ihr gibt es dort kein Konto.',
  'mail-no-account.not-you':
    'Falls Sie das waren: Vielleicht sind Sie mit einer anderen Adresse beigetreten. Falls nicht, ignorieren Sie diese E-Mail.',
  'mail-no-account.link': 'So werden Sie Mitglied',

  'mail-unfinished.subject': 'Ihr Beitritt zu {tier}',
  'mail-unfinished.words':
    'Sie haben begonnen, {site} beizutreten ({tier}), sind aber nicht fertig geworden. Es wurde nichts abgebucht. Dieser Link führt Sie zurück zur Kasse. Er gilt einmal, {days, plural, one {# Tag} other {# Tage}} lang.',
  'mail-unfinished.changed-mind':
    'Sie haben es sich anders überlegt? Dann brauchen Sie nichts zu tun. Dies ist die einzige Erinnerung.',
  'mail-unfinished.link': 'Weiter zur Kasse',

  'mail-welcome.subject': 'Willkommen bei {site}{name, select, none {} other {, {name}}}',
  'mail-joined.words': 'Sie haben jetzt {tier}. {sentence}',
  'mail-switched.subject': 'Sie haben jetzt {tier}',

  'mail-receipt.subject': 'Beleg: {amount} für {tier}',
  'mail-receipt.words':
    'Wir haben am {date} {amount} für {tier} erhalten{method, select, none {} other { ({method})}}.',
  'mail-receipt.fee': 'Darin ist die Aufnahmegebühr von {amount} enthalten.',
  'mail-receipt.credit': 'Ihr Guthaben von {credit} hat den Rest von {total} bezahlt.',
  'mail-receipt.link': 'Beleg ansehen',

  'mail-transfer.subject': 'Bitte überweisen Sie {amount} für {tier}',
  'mail-transfer.words':
    'Überweisen Sie {amount} an {payee}, Konto {account}{bank, select, none {} other {, {bank}}}.',
  'mail-transfer.reference':
    'Verwendungszweck, sonst nichts: {reference}. Daran erkennen wir, dass das Geld von Ihnen ist.',
  'mail-transfer.by': 'Bitte sorgen Sie dafür, dass es bis {date} da ist.',
  'mail-transfer.link': 'Zahlungsdaten ansehen',

  'mail-trial.subject': 'Ihre Probezeit für {tier} endet am {date}',
  'mail-trial.words':
    'Ihre Probezeit für {tier} endet am {date}. Dann gilt: {taken}. So geht es weiter: {sentence}',
  'mail-trial.cancel':
    'Wenn es nichts für Sie ist, kündigen Sie bis dahin in Ihrem Konto mit einem Klick; dann wird nichts abgebucht.',

  'mail-renewal.subject': '{tier} verlängert sich am {date}',
  'mail-renewal.words': '{tier} verlängert sich am {date}: {taken}. Sie brauchen nichts zu tun.',
  'mail-renewal.cancel':
    'Wenn Sie lieber aufhören möchten, kündigen Sie vorher in Ihrem Konto: Bis zu diesem Tag haben Sie Zugang.',

  'mail-card.subject': 'Die Karte für {tier} läuft bald ab',
  'mail-card.words':
    'Die Zahlungsart für {tier} ({method}) gilt nur bis Ende {month}. Die nächste Zahlung ist am {date}.',
  'mail-card.card': 'Karte',
  'mail-card.change':
    'Hinterlegen Sie vorher eine andere Karte; dann läuft Ihre Mitgliedschaft ohne Unterbrechung weiter.',
  'mail-card.link': 'Zahlungsart ändern',

  'mail-failed.subject': 'Eine Zahlung für {tier} ist fehlgeschlagen',
  'mail-failed.words': 'Wir konnten die Zahlung für {tier} nicht einziehen: Die Karte wurde abgelehnt.',
  'mail-failed.again':
    'Am {date} versuchen wir es noch einmal. Bis dahin ändert sich für Sie nichts. Bitte prüfen Sie, ob die Karte belastet werden kann, oder ändern Sie die Zahlungsart.',

  'mail-moved.words': 'Ab heute haben Sie {tier}. {sentence}',

  'mail-price.subject': 'Der Preis von {tier} ab {date}',
  'mail-price.before': 'Bisher: {sentence}',
  'mail-price.after': 'Ab Ihrem nächsten Zeitraum, am {date}: {sentence}',
  'mail-price.approve':
    'Ihr Zahlungsdienst bucht nur ab, was Sie bestätigt haben: Bitte bestätigen Sie dies vor diesem Tag.',
  'mail-price.cancel':
    'Vor diesem Tag ändert sich nichts. Wenn es nichts für Sie ist, können Sie bis dahin in Ihrem Konto kündigen.',
  'mail-price.link': 'Neuen Preis bestätigen',

  'mail-paused.subject': '{tier} ist pausiert',
  'mail-paused.words':
    '{tier} ist pausiert. Es wird nichts abgebucht, und Sie haben keinen Zugang, bis Sie fortsetzen; der nächste Zeitraum beginnt dann an diesem Tag.',

  'mail-resumed.subject': '{tier} läuft weiter',
  'mail-resumed.words': '{tier} läuft weiter, und Sie haben wieder Zugang zu allem, was dazugehört.',

  'mail-cancelled.subject': '{tier} ist gekündigt',
  'mail-cancelled.words':
    'Wie gewünscht endet {tier} am {date}. Es wird nichts mehr abgebucht. Bis dahin haben Sie Zugang, und Sie können die Kündigung in Ihrem Konto zurücknehmen.',

  'mail-ended.subject': '{tier} ist beendet',
  'mail-ended.words':
    '{tier} ist beendet. Danke, dass Sie Mitglied waren. Sie können jederzeit wieder beitreten.',

  'mail-unpaid.subject': '{tier} ist beendet: Die Zahlung ist fehlgeschlagen',
  'mail-unpaid.words':
    'Wir haben mehrmals versucht, die Zahlung für {tier} einzuziehen, und sie wurde jedes Mal abgelehnt. {tier} ist beendet, und wir versuchen es nicht noch einmal. Mit einer anderen Karte können Sie wieder beitreten.',

  'mail-refunded.subject': 'Ihre Erstattung von {amount} für {tier}',
  'mail-refunded.words':
    'Wir haben {amount} von dem, was Sie für {tier} bezahlt haben, auf die Zahlungsart erstattet, mit der Sie bezahlt haben. Bei Ihrer Bank kann es einige Tage dauern.',
  'mail-refunded.by-hand':
    'Wir erstatten {amount} von dem, was Sie für {tier} bezahlt haben. Wir überweisen es Ihnen selbst; das dauert einige Tage.',
  'mail-refunded.ended': '{tier} ist damit beendet.',
  'mail-refunded.open': 'Sie haben weiterhin Zugang zu allem, was zu {tier} gehört.',

  'mail-dispute.subject': '{tier} ist beendet',
  'mail-dispute.words':
    'Ihre Bank hat eine Zahlung für {tier} zurückgeholt; damit ist {tier} beendet. Wenn das ein Irrtum war, schreiben Sie uns.',

  'mail-address.subject': 'Ihre E-Mail-Adresse bei {site} hat sich geändert',
  'mail-address.words':
    'Ihr Konto hat jetzt die Adresse {email}. Ab jetzt schreiben wir Ihnen dorthin, und Sie melden sich damit an.',
  'mail-address.not-you': 'Wenn Sie das nicht waren, schreiben Sie uns sofort.',

  'mail-passkey.subject': 'Ihr Konto bei {site} hat einen neuen Passkey',
  'mail-passkey.words':
    'Mit dem Passkey „{name}“ kann man sich ab jetzt ohne Passwort in Ihrem Konto anmelden.',
  'mail-passkey.not-you':
    'Wenn Sie das nicht waren, melden Sie sich an, entfernen Sie ihn in Ihrem Konto und ändern Sie Ihr Passwort.',

  'mail-post.words':
    '{name, select, none {Neu auf der Website: „{title}“.} other {Neu auf der Website, von {name}: „{title}“.}}',
  'mail-post.link-none': 'Auf der Website lesen',
  'mail-post.link-closed': 'Weiterlesen',
  'mail-post.link-sections': 'Auf der Website sehen, was noch dazugehört',
  'mail-letter.link': '{site} besuchen',
  'mail-confirm.subject': 'Bestätigen Sie, dass Sie E-Mails von {site} möchten',
  'mail-confirm.words':
    'Jemand hat für diese Adresse E-Mails von {site} bestellt. Wenn Sie es waren, bestätigen Sie es mit diesem Link. Er gilt {hours, plural, one {# Stunde} other {# Stunden}}.',
  'mail-confirm.not-you':
    'Wenn Sie es nicht waren, ignorieren Sie diese E-Mail. Ohne den Link wird nichts gesendet.',
  'mail-confirm.link': 'Ja, ich möchte E-Mails',

  'mail-bought.subject': 'Ihr Code für {name}',
  'mail-bought.code-subject': 'Ihr Code für {name}, noch einmal gesendet',
  'mail-bought.paid': 'Vielen Dank. Wir haben am {date} {amount} für {name} erhalten.',
  'mail-bought.by-credit': 'Vielen Dank. Ihr Guthaben hat {name} bezahlt.',
  'mail-bought.pass':
    'Überall, wo Sie angemeldet sind, haben Sie ab jetzt Zugang. Auf einem anderen Gerät melden Sie sich an oder geben den Code oben ein.',
  'mail-bought.gift-card':
    'Geben Sie den Code oben an die Person weiter, für die er ist. Sie gibt ihn auf unserer Website ein oder folgt dem Link unten und erhält das Geschenk von diesem Tag an.',
  'mail-bought.until': 'Sie haben Zugang bis {date}.',
  'mail-bought.receipt': 'Ihre Quittung: {url}',
  'mail-bought.link': 'Code verwenden',

  'mail-join-invite.subject': 'Einladung zu {site}',
  'mail-join-invite.words': '{site} lädt Sie ein, Mitglied zu werden: {tier}.',
  'mail-join-invite.yours-alone': 'Der Link ist nur für Sie und gilt 30 Tage.',
  'mail-join-invite.link': 'Beitreten: {tier}',
};
