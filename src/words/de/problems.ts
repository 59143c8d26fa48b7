import type { problems as en } from '../en/problems';

export const problems: Record<keyof typeof en, string> = {
  'country.missing': 'Bitte wählen Sie ein Land.',
  'date.unreal': 'Dieses Datum gibt es nicht.',
  'email.missing': 'Bitte geben Sie Ihre E-Mail-Adresse ein.',
  'email.unreadable': 'Bitte geben Sie eine E-Mail-Adresse ein, zum Beispiel name@site.example.',
  'form.nested': 'Das ist zu tief verschachtelt und kann nicht gelesen werden.',
  'form.old': 'Diese Seite war zu lange geöffnet. Laden Sie sie neu; es wurde nichts abgebucht.',
  'form.quick': 'Das ging schnell. Warten Sie eine Sekunde und drücken Sie die Schaltfläche noch einmal.',
  'form.site-only': 'Das kann nur die Website selbst.',
  'form.too-large':
    'Das ist mehr, als auf einmal gesendet werden kann. Kürzen Sie es und versuchen Sie es noch einmal.',
  'form.unknown': 'Das geht hier nicht.',
  'form.unloaded':
    'Diese Seite ist noch nicht fertig geladen. Warten Sie eine Sekunde und drücken Sie die Schaltfläche noch einmal. JavaScript wird dafür gebraucht.',
  'form.unreadable':
    'Das enthält Zeichen, die nicht gespeichert werden können. Entfernen Sie sie und versuchen Sie es noch einmal.',
  'list.at-least': 'Mindestens {least}.',
  'list.at-most': 'Höchstens {most}.',
  'name.missing': 'Bitte geben Sie Ihren Namen ein.',
  'name.one-line': 'Ein Name hat eine Zeile.',
  'name.address': 'Ein Name enthält keine Adresse. Geben Sie nur Ihren Namen ein.',
  'name.full-stop': 'Ein Name enthält keine Adresse. Setzen Sie nach einem Punkt ein Leerzeichen.',
  'number.at-least': 'Bitte geben Sie eine ganze Zahl ein, mindestens {least}.',
  'number.at-most': 'Höchstens {most}.',
  'number.optional': 'Geben Sie eine ganze Zahl ein, oder lassen Sie das Feld leer.',
  'number.too-many': 'Das ist zu viel.',
  'number.whole': 'Nur ganze Zahlen.',
  'number.whole-days': 'Nur ganze Tage.',
  'number.whole-hours': 'Nur ganze Stunden.',
  'record.missing': 'Diese Seite oder dieser Eintrag ist nicht mehr verfügbar.',
  'record.saved-elsewhere':
    'Das wurde inzwischen in einem anderen Fenster gespeichert. Öffnen Sie es dort oder in einem neuen, übertragen Sie, was Sie brauchen, und speichern Sie noch einmal.',
  'staff.may-not':
    '{role, select, none {Wer nicht zum Team gehört, darf das nicht} other {Ihre Rolle ({role}) darf das nicht}} ({right}). Fragen Sie den Eigentümer der Website.',
  'staff.not-signed-in': 'Melden Sie sich zuerst an.',
  'staff.test-checkout': 'Die Testkasse ist nur für das Team.',
  'text.too-long': 'Höchstens {most, plural, one {# Zeichen} other {# Zeichen}}.',
  'text.too-short': 'Mindestens {least, plural, one {# Zeichen} other {# Zeichen}}.',
  'use.signed-out':
    'Sie sind nicht angemeldet. Melden Sie sich in einem anderen Tab an und versuchen Sie es hier noch einmal.',
  'value.choose': 'Bitte wählen Sie etwas davon aus.',
  'value.invalid': 'Das kann nicht gelesen werden. Prüfen Sie es und versuchen Sie es noch einmal.',
  'value.missing': 'Das ist eine Pflichtangabe.',

  'code.expired':
    'Dieser Code ist abgelaufen oder wurde schon benutzt. Fordern Sie einen neuen an; er gilt {minutes} Minuten.',
  'code.six-digits': 'Der Code hat sechs Ziffern. Übernehmen Sie ihn aus unserer E-Mail.',
  'code.too-many':
    'Es wurden zu viele Codes angefordert. Warten Sie {minutes, plural, one {eine Minute} other {# Minuten}} und versuchen Sie es dann noch einmal.',
  'code.used-up':
    'Das ist nicht der Code aus unserer E-Mail, und er ist jetzt abgelaufen. Fordern Sie einen neuen an.',
  'code.wrong':
    'Das ist nicht der Code aus unserer E-Mail. Sie haben noch {left, plural, one {einen Versuch} other {# Versuche}}.',
  'email.is-yours': 'Diese Adresse haben Sie schon.',
  'email.taken':
    'Zu dieser E-Mail-Adresse gibt es schon ein eigenes Konto. Melden Sie sich damit an, oder nehmen Sie eine andere Adresse.',
  'link.used': 'Dieser Link ist abgelaufen oder wurde schon benutzt. Melden Sie sich an, um fortzufahren.',
  'password.confirm': 'Geben Sie zur Bestätigung Ihr Passwort ein.',
  'password.missing': 'Bitte geben Sie Ihr Passwort ein.',
  'password.none':
    'Sie haben noch kein Passwort. Legen Sie in Ihrem Konto eines fest und versuchen Sie es dann noch einmal.',
  'password.weak':
    'Dieses Passwort ist leicht zu erraten. Nehmen Sie ein paar Wörter, die weder miteinander noch mit Ihnen zu tun haben.',
  'password.weak-because':
    'Dieses Passwort ist leicht zu erraten. Nehmen Sie ein paar Wörter, die weder miteinander noch mit Ihnen zu tun haben. (Hinweis: {why})',
  'password.wrong': 'Das ist nicht Ihr Passwort. Es wurde nichts geändert.',
  'session.over': 'Diese Anmeldung ist bereits beendet.',
  'sign-in.code-after-session': 'Melden Sie sich zuerst an und geben Sie den Code dann noch einmal ein.',
  'sign-in.old-page':
    'Diese Seite ist zu alt. Gehen Sie zurück und geben Sie Ihre E-Mail-Adresse noch einmal ein.',
  'sign-in.too-many':
    'Zu viele Versuche. Warten Sie {minutes, plural, one {eine Minute} other {# Minuten}}, oder melden Sie sich mit einem Code an, den wir Ihnen schicken.',
  'sign-in.blocked': 'Dieses Konto ist gesperrt. Bitte schreiben Sie denen, die die Website betreiben.',
  'one-time.wrong':
    'Dieser Code ist falsch, zu alt oder wurde schon benutzt. Geben Sie den ein, den Ihre App gerade zeigt.',
  'one-time.on-already': 'Die Einmalcodes sind schon eingeschaltet.',
  'one-time.off-already': 'Die Einmalcodes sind ausgeschaltet.',
  'one-time.not-begun': 'Richten Sie zuerst die Einmalcodes ein.',
  'passkey.gone': 'Dieser Passkey wurde bereits entfernt.',
  'passkey.known': 'Dieses Gerät hat schon einen Passkey für die Website.',
  'passkey.long-name': 'Ein Name kann bis zu 80 Zeichen lang sein.',
  'passkey.no-answer': 'Ihr Browser braucht JavaScript für Passkeys. Es wurde nichts geändert.',
  'passkey.no-name': 'Geben Sie dem Passkey einen Namen, damit Sie ihn wiedererkennen.',
  'passkey.too-many': 'Sie haben {most} Passkeys, mehr sind nicht möglich. Entfernen Sie zuerst einen.',
  'passkey.unknown':
    'Mit diesem Passkey können Sie sich hier nicht anmelden: Vielleicht wurde er entfernt, oder es hat zu lange gedauert. Versuchen Sie es noch einmal, oder nehmen Sie Ihr Passwort.',
  'passkey.wrong':
    'Die Antwort Ihres Geräts ist nicht zu gebrauchen; vielleicht hat es zu lange gedauert. Versuchen Sie es noch einmal.',
  'proof.last':
    'Wer die Website betreut, braucht einen Einmalcode oder einen Passkey, und Sie haben nur diesen. Richten Sie zuerst einen weiteren ein.',
  'proof.none': 'Es gibt hier weder Einmalcodes noch Passkeys.',
  'proof.own-first':
    'Richten Sie zuerst für sich selbst Einmalcodes oder einen Passkey ein, und melden Sie sich damit an.',
  'proof.show-yours':
    'Melden Sie sich ab und dann mit Ihrem Passkey an. Haben Sie ihn verloren, bitten Sie jemanden, dem die Website gehört, Ihre Anmeldung zurückzusetzen.',
  'sign-in.wrong':
    'E-Mail-Adresse und Passwort passen nicht zusammen. Prüfen Sie beide, oder melden Sie sich mit einem Code an, den wir Ihnen schicken.',
  'comment.empty': 'Schreiben Sie zuerst etwas.',
  'comment.too-long': 'Ein Kommentar kann bis zu {most} Zeichen lang sein.',
  'comment.looking':
    'Sie sehen die Website mit fremden Augen. Kehren Sie zum Desk zurück, um selbst zu kommentieren.',
  'frame.too-old':
    'Der Rahmen wurde vor zu langer Zeit geöffnet. Laden Sie die Seite neu, die ihn zeigt, und versuchen Sie es noch einmal.',
  'frame.closed': 'Ihre Mitgliedschaft enthält dies nicht.',
  'pass.looking':
    'Sie sehen die Website mit fremden Augen. Kehren Sie zum Desk zurück, um das selbst zu tun.',
  'pass.wrong-password':
    'Das ist nicht das Passwort. Prüfen Sie es oder fragen Sie, wer es Ihnen gegeben hat.',
  'pass.link-used':
    'Dieser Link wurde schon benutzt oder ist zu alt. Fordern Sie dort, wo Sie lesen wollten, einen neuen an.',
  'pass.revoked': 'Die Betreiber dieser Website haben den Zugang für diese E-Mail-Adresse beendet.',
  'pass.had': 'Die Zeit für diese E-Mail-Adresse ist abgelaufen.',
  'comment.not-you': 'Mit Ihrer Mitgliedschaft können Sie hier nicht kommentieren.',
  'comment.too-many':
    'Sie haben in kurzer Zeit viel geschrieben. Warten Sie {minutes, plural, one {eine Minute} other {# Minuten}}, bevor Sie diesen Kommentar senden.',
  'comment.gone': 'Der Kommentar, auf den Sie antworten, wurde entfernt. Ihre Worte sind noch da.',
  'tries.too-many':
    'Zu viele Versuche. Warten Sie {minutes, plural, one {eine Minute} other {# Minuten}} und versuchen Sie es dann noch einmal.',

  'account.by-staff': 'Konten löschen hier die Betreiber der Website. Bitte schreiben Sie ihnen.',
  'account.confirm-delete': 'Bitte bestätigen Sie hier, dass Sie sicher sind.',
  'account.not-deleted': '{why} Es wurde nichts gelöscht.',
  'account.of-staff': 'Sie gehören hier zum Team. Der Eigentümer muss zuerst Ihre Rolle entfernen.',
  'account.wrong-password': 'Das ist nicht Ihr Passwort. Es wurde nichts gelöscht.',

  'answer.date': 'Bitte wählen Sie ein Datum.',
  'answer.missing': 'Das ist eine Pflichtangabe.',
  'answer.none-of-these': 'Bitte wählen Sie etwas davon aus.',
  'answer.not-agreed': 'Zum Beitritt müssen Sie dem zustimmen.',
  'answer.not-chosen': 'Bitte wählen Sie aus.',
  'answer.not-ticked': 'Zum Beitritt müssen Sie dies ankreuzen.',

  'checkout.closed': 'Der Beitritt zu {tier} ist nicht möglich. Es wurde nichts abgebucht.',
  'checkout.code-invalid':
    'Dieser Code gilt nicht oder ist abgelaufen. Prüfen Sie ihn, oder bitten Sie um einen anderen.',
  'code.over': 'Dieser Code ist abgelaufen.',
  'code.not-yet': 'Dieser Code gilt noch nicht.',
  'code.used-up-all': 'Dieser Code ist aufgebraucht.',
  'code.used-by-you': 'Sie haben diesen Code schon verwendet.',
  'code.new-only': 'Dieser Code ist für Menschen, die neu hier sind.',
  'code.of-another': 'Diese Einladung ging an eine andere E-Mail-Adresse. Melden Sie sich mit dieser an.',
  'code.not-for-this': 'Der Code ist gültig, aber nicht für dieses Angebot.',
  'code.lower-already': 'Sie zahlen durch Ihre Stufe schon weniger und brauchen diesen Code nicht.',
  'code.gives-nothing': 'Dieser Code gibt allein nichts. Verwenden Sie ihn beim Beitritt.',
  'code.changes-price':
    'Dieser Code ändert den Preis. Wählen Sie zuerst „Code verwenden“, um zu sehen, was Sie bezahlen würden.',
  'checkout.code-needed': 'Für {tier} brauchen Sie einen Code. Geben Sie den ein, den Sie erhalten haben.',
  'checkout.full': 'Der letzte Platz für {tier} wurde gerade vergeben. Es wurde nichts abgebucht.',
  'checkout.lost':
    'Wir konnten das nicht abschließen. Sehen Sie in Ihrem Konto nach, ob Sie beigetreten sind.',
  'checkout.method-gone':
    'Diese Zahlungsart ist nicht mehr verfügbar. Wählen Sie eine andere. Es wurde nichts abgebucht.',
  'checkout.not-on-sale': '{tier} ist heute nicht erhältlich. Es wurde nichts abgebucht.',
  'checkout.of-another':
    'Diese Seite wurde von jemand anderem geöffnet. Laden Sie sie neu; es wurde nichts abgebucht.',
  'checkout.of-another-offer':
    'Diese Seite gehört zu einem anderen Angebot. Laden Sie sie neu; es wurde nichts abgebucht.',
  'checkout.of-test':
    'Diese Seite wurde geöffnet, bevor die Website in Betrieb ging. Laden Sie sie neu; es wurde nichts abgebucht.',
  'checkout.offer-gone':
    'Dieses Angebot ist nicht mehr erhältlich. Wählen Sie auf der Beitrittsseite ein anderes.',
  'checkout.offer-left':
    'Dieses Angebot ist nicht mehr erhältlich. Gehen Sie zurück zur Beitrittsseite und wählen Sie ein anderes.',
  'checkout.no-payments':
    'Diese Website kann noch keine Zahlungen annehmen. Es wurde nichts abgebucht; versuchen Sie es später noch einmal.',
  'checkout.price-changed':
    'Der Preis hat sich geändert, seit diese Seite geöffnet wurde. Laden Sie sie neu, um ihn zu sehen; es wurde nichts abgebucht.',
  'checkout.saved-card-gone': 'Diese Karte ist nicht mehr hinterlegt. Geben Sie eine Karte ein.',
  'checkout.too-many':
    'Zu viele Versuche. Warten Sie {minutes, plural, one {eine Minute} other {# Minuten}} und versuchen Sie es dann noch einmal; Ihre Eingaben bleiben.',

  'card.missing': 'Bitte geben Sie Ihre Karte ein.',
  'card.not-saved': '{reason}. Es wurde nichts abgebucht; versuchen Sie es gleich noch einmal.',
  'declined.bad-request': 'Diese Karte kann nicht belastet werden. Nehmen Sie eine andere Karte.',
  'declined.bad-token': 'Die Kartendaten konnten nicht verwendet werden. Geben Sie sie noch einmal ein.',
  'declined.expired': 'Diese Karte ist abgelaufen. Nehmen Sie eine andere Karte.',
  'declined.needs-confirmation':
    'Ihre Bank möchte, dass Sie diese Zahlung bestätigen. Geben Sie die Karte noch einmal ein und bestätigen Sie.',
  'declined.no-funds':
    'Auf dieser Karte ist nicht genug Geld. Nehmen Sie eine andere Karte, oder versuchen Sie es später noch einmal.',
  'declined.no-method': 'Es ist keine Zahlungsart hinterlegt. Geben Sie eine Karte ein.',
  'declined.not-paid': 'Die Überweisung ist nicht rechtzeitig angekommen.',
  'declined.other':
    'Ihre Karte wurde abgelehnt. Versuchen Sie es mit einer anderen Karte, oder wenden Sie sich an Ihre Bank.',
  'method.not-here': 'Diese Zahlungsart geht hier nicht. Wählen Sie eine andere.',
  'payment.unknown':
    '{reason}; wir wissen deshalb noch nicht, ob die Zahlung geklappt hat. Drücken Sie die Schaltfläche in einer Minute noch einmal: Es wird nichts doppelt abgebucht.',
  'quote.gone': 'Dieses Angebot ist nicht mehr gültig. Laden Sie die Seite neu.',
  'renewal.awaited':
    'Ihre Überweisung wird erwartet; den Verwendungszweck finden Sie in Ihrem Konto. Verlängert wird, sobald das Geld da ist.',
  'switch.at-once': 'Dieser Wechsel beginnt sofort. Laden Sie die Seite neu, um ihn zu sehen.',
  'wallet.cannot-pause':
    '{gateway} kann Abbuchungen nicht pausieren. Kündigen Sie stattdessen; Sie können wieder beitreten.',
  'wallet.not-running':
    'Dieser Zahlungsdienst kann nur gewählt werden, solange die Mitgliedschaft läuft. Setzen Sie sie zuerst fort.',
  'wallet.not-undone':
    'Der Zahlungsdienst bucht nicht mehr ab, und nur Sie können es dort wieder bestätigen. Wählen Sie in Ihrem Konto eine Zahlungsart und nehmen Sie die Kündigung dann zurück.',
  'wallet.nothing-to-approve': 'Es wird nichts mehr abgebucht; es gibt also nichts zu bestätigen.',

  'refusal.active': 'Das geht gerade nicht. Laden Sie die Seite neu, um den aktuellen Stand zu sehen.',
  'refusal.already': 'Das ist schon erledigt. Laden Sie die Seite neu.',
  'refusal.another-price':
    'Der fällige Betrag hat sich geändert, seit diese Seite geöffnet wurde. Prüfen Sie den Betrag und drücken Sie die Schaltfläche noch einmal.',
  'refusal.cancelling':
    'Sie haben gekündigt. Nehmen Sie das zuerst in Ihrem Konto zurück und wechseln Sie dann.',
  'refusal.currency':
    'Dieses Angebot hat eine andere Währung; dorthin können Sie nicht wechseln. Schreiben Sie uns, wir helfen Ihnen.',
  'refusal.disputed': 'Eine Zahlung ist angefochten. Bis das entschieden ist, kann nichts geändert werden.',
  'refusal.elsewhere':
    'Eine andere Zahlung von Ihnen läuft noch. Schließen Sie die zuerst ab, oder brechen Sie sie in Ihrem Konto ab.',
  'refusal.ended': 'Diese Mitgliedschaft ist beendet. Sie können wieder beitreten.',
  'refusal.expired': 'Diese Kasse ist abgelaufen. Laden Sie die Seite neu; es wurde nichts abgebucht.',
  'refusal.finished': 'Diese Mitgliedschaft ist beendet. Sie können wieder beitreten.',
  'refusal.held': 'Sie haben dies oder eine andere Stufe davon schon. In Ihrem Konto sehen Sie es.',
  'refusal.known': 'Das ist schon erledigt. Laden Sie die Seite neu.',
  'refusal.merge':
    'Beide Konten haben eine Mitgliedschaft auf derselben Leiter. Beenden Sie zuerst eine davon.',
  'refusal.no-method': 'Dieses Angebot kostet Geld. Hinterlegen Sie zuerst eine Zahlungsart.',
  'refusal.no-offer': 'Dieses Angebot ist nicht mehr verfügbar.',
  'refusal.no-payment': 'Diese Zahlung ist nicht mehr verfügbar.',
  'refusal.not-cancelled': 'Es ist nicht gekündigt; es gibt nichts zurückzunehmen.',
  'refusal.not-disputed': 'Das geht gerade nicht. Laden Sie die Seite neu, um den aktuellen Stand zu sehen.',
  'refusal.not-now': 'Das geht gerade nicht. Laden Sie die Seite neu, um den aktuellen Stand zu sehen.',
  'refusal.not-paused': 'Es ist nicht pausiert.',
  'refusal.not-renewed': 'Das kann nicht verlängert werden.',
  'refusal.nothing-due': 'Das geht gerade nicht. Laden Sie die Seite neu, um den aktuellen Stand zu sehen.',
  'refusal.nothing-left': 'Von diesem Angebot ist nichts mehr übrig: Seine Termine sind vorbei.',
  'refusal.nothing-pending':
    'Das geht gerade nicht. Laden Sie die Seite neu, um den aktuellen Stand zu sehen.',
  'refusal.nothing-runs': 'Diese Mitgliedschaft ist beendet. Sie können wieder beitreten.',
  'refusal.nothing-to-cancel': 'Es wird nichts mehr abgebucht; es gibt also nichts zu kündigen.',
  'refusal.nothing-to-pause': 'Es wird nichts mehr abgebucht; es gibt also nichts zu pausieren.',
  'refusal.nothing-to-take-back':
    'Das geht gerade nicht. Laden Sie die Seite neu, um den aktuellen Stand zu sehen.',
  'refusal.nothing-unpaid': 'Alles ist bezahlt.',
  'refusal.overdue': 'Die letzte Zahlung ist fehlgeschlagen. Bezahlen Sie sie zuerst.',
  'refusal.paused': 'Es ist pausiert. Setzen Sie es zuerst fort.',
  'refusal.pending': 'Die erste Zahlung ist noch nicht angekommen.',
  'refusal.quote-void':
    'Was dieser Wechsel kostet, hat sich geändert, seit die Seite geöffnet wurde. Laden Sie sie neu, um es zu sehen; es wurde nichts abgebucht.',
  'refusal.returned': 'Diese Zahlung wurde bereits zurückgegeben.',
  'refusal.same': 'Sie haben dieses Angebot schon.',
  'refusal.too-early': 'Das kann noch nicht verlängert werden. Es wurde nichts abgebucht.',
  'refusal.too-much': 'Das ist mehr, als von dieser Zahlung übrig ist.',
  'refusal.trial': 'Die Probezeit läuft noch.',
  'refusal.under-way': 'Eine Zahlung läuft gerade. Versuchen Sie es in einer Minute noch einmal.',
  'refusal.wait': 'Sie können noch nicht höher wechseln. Versuchen Sie es später noch einmal.',

  'gateway.said': '{words}',
  'id.incomplete': 'Dieser Link ist unvollständig. Gehen Sie zurück und öffnen Sie ihn noch einmal.',
  'thing.gone': 'Das gibt es nicht mehr.',

  // E-Mails an viele
  'letter.link-old': 'Dieser Link ist zu alt. Lassen Sie sich einen neuen zusenden.',
  'letter.no-topic': 'Wählen Sie mindestens eines.',

  // Was einmal gekauft wird
  'product.not-on-sale': 'Dies wird nicht mehr verkauft.',
  'product.closed': 'Dieser Code gilt nicht mehr: Seine Zeit ist abgelaufen, oder er wurde erstattet.',
  'product.devices-full':
    'Dieser Code wird bereits auf {count, plural, one {# anderen Gerät} other {# anderen Geräten}} verwendet; mehr sind nicht möglich. Wer ihn gekauft hat, kann in seinem Konto ein Gerät abmelden.',
  'product.device-gone': 'Dieses Gerät ist bereits abgemeldet.',
};
