import type { site as en } from '../en/site';

export const site: Record<keyof typeof en, string> = {
  'site.skip': 'Zum Inhalt springen',
  'site.nav': 'Website',
  'site.posts': 'Beiträge',
  'site.closed': 'für Mitglieder',
  'site.desk': 'Desk',
  'site.account': 'Mein Konto',
  'site.sign-in': 'Anmelden',
  'site.sign-out': 'Abmelden',
  'site.join': 'Mitglied werden',
  'site.test-mode': 'Kein echtes Geld: Diese Website ist im Testmodus.',
  'site.looking-as': 'Sie sehen die Website als {viewpoint}. Nichts, was Sie hier tun, wird gespeichert.',
  'site.back-to-desk': 'Zurück zum Desk',
  'site.latest': 'Neueste Beiträge',
  'site.categories': 'Kategorien',
  'site.all': 'Alle',
  'site.no-posts': 'Noch keine Beiträge',
  'site.no-posts-hint': 'Sobald Beiträge veröffentlicht sind, erscheinen sie hier.',
  'site.draft': 'Ein Entwurf: Nur das Team kann ihn sehen.',
  'site.not-found': 'Seite nicht gefunden',
  'site.not-found-hint': 'Vielleicht ist die Seite umgezogen, oder der Link stimmt nicht.',
  'site.to-front': 'Startseite',
  'site.to-posts': 'Alle Beiträge',
  'site.front-title': 'Willkommen bei {site}',
  'site.front-empty': 'Diese Website ist gerade erst entstanden. Schauen Sie bald wieder vorbei.',

  'form.check-marked':
    '{count, plural, one {Bitte prüfen Sie das markierte Feld.} other {Bitte prüfen Sie die markierten Felder.}}',
  'form.lost':
    'Die Website hat nicht geantwortet; wir wissen nicht, ob gespeichert wurde. Prüfen Sie Ihre Verbindung, sehen Sie in einem anderen Tab nach und versuchen Sie es dann noch einmal. Ihre Eingaben sind noch da.',
  'form.lost-payment':
    'Die Website hat nicht geantwortet; wir wissen nicht, ob die Zahlung angekommen ist. Sehen Sie in einem anderen Tab in Ihrem Konto nach, bevor Sie es noch einmal versuchen. Es wird nichts doppelt abgebucht, und Ihre Eingaben sind noch da.',
  'form.optional': '{label} (optional)',
  'form.choose': 'Bitte wählen …',
  'form.saving': 'Wird gespeichert …',
  'form.save': 'Speichern',
  'form.saved': 'Gespeichert.',
  'form.sending': 'Wird gesendet …',
  'form.moment': 'Einen Moment …',
  'form.copy': '{name} kopieren',
  'form.copied': 'Kopiert',

  'signin.title': 'Anmelden',
  'signin.email': 'E-Mail-Adresse',
  'signin.password': 'Passwort',
  'signin.your-password': 'Ihr Passwort',
  'signin.busy': 'Anmeldung läuft …',
  'signin.by-code': 'Stattdessen einen Code per E-Mail erhalten',
  'signin.code-email': 'E-Mail-Adresse für den Code',
  'signin.send-code': 'Code senden',
  'signin.not-member': 'Noch kein Mitglied?',
  'signin.how-to-join': 'So werden Sie Mitglied',
  'signin.check-email': 'Sehen Sie in Ihr Postfach',
  'signin.code-if':
    'Wenn es zu {email} ein Konto gibt, haben wir einen sechsstelligen Code dorthin geschickt. Geben Sie ihn hier ein.',
  'signin.code-sent': 'Wir haben einen sechsstelligen Code an {email} geschickt. Geben Sie ihn hier ein.',
  'signin.code': 'Code',
  'signin.code-hint': 'Sechs Ziffern. Er gilt zehn Minuten.',
  'signin.checking': 'Wird geprüft …',
  'signin.continue': 'Weiter',
  'signin.no-email':
    'Nach einer Minute noch keine E-Mail? Sehen Sie im Spam-Ordner nach oder fordern Sie einen neuen Code an.',
  'signin.new-code': 'Neuen Code senden',
  'signin.other-address': 'Andere Adresse verwenden',
  'signin.code-again': 'Wir haben Ihnen einen neuen Code geschickt. Der alte gilt nicht mehr.',
  'signin.other-browser': 'Dieser Link funktioniert hier nicht',
  'signin.other-browser-hint':
    'Er gilt einmal, zehn Minuten lang, in dem Browser, in dem Sie ihn angefordert haben. Gehen Sie dorthin zurück und geben Sie den sechsstelligen Code aus derselben E-Mail ein, oder fordern Sie hier einen neuen an.',
  'signin.link-title': 'Weiter zur Kasse',
  'signin.link-expired': 'Dieser Link ist abgelaufen',
  'signin.link-expired-hint': 'Er wurde schon benutzt oder ist zu alt. Melden Sie sich an, um fortzufahren.',
  'signin.opening': 'Wird geöffnet …',
  'signin.password-for': 'Passwort für {email}',
  'signin.not-now': 'Jetzt nicht',
  'signin.session-ended':
    'Sie wurden abgemeldet. Melden Sie sich an, um fortzufahren; Ihre Eingaben sind noch da.',

  'doorstep.visitor-notice': 'Der Rest ist für Mitglieder.',
  'doorstep.member-notice': 'Ihre Mitgliedschaft enthält dies nicht.',
  'doorstep.region': 'So lesen Sie weiter',
  'doorstep.later':
    '{type, select, page {Diese Seite öffnet sich für Sie am {date}} other {Dieser Beitrag öffnet sich für Sie am {date}}}',
  'doorstep.ended':
    '{type, select, page {Diese Seite ist nicht mehr zugänglich} other {Dieser Beitrag ist nicht mehr zugänglich}}',
  'doorstep.closed':
    '{type, select, page {Diese Seite ist nicht für alle zugänglich} other {Dieser Beitrag ist nicht für alle zugänglich}}',
  'doorstep.tiers':
    '{type, select, page {Diese Seite ist zugänglich mit: {tiers}} other {Dieser Beitrag ist zugänglich mit: {tiers}}}',
  'doorstep.minutes':
    '{minutes, plural, one {Noch eine Minute Lesezeit.} other {Noch etwa # Minuten Lesezeit.}}',
  'doorstep.sign-in': 'Schon Mitglied? Melden Sie sich hier an und lesen Sie weiter.',
  'doorstep.after-wait': 'Nach einer Wartezeit zugänglich.',

  'section.closed': 'Dieser Teil ist für Mitglieder.',
  'section.not-yours': 'Dieser Teil gehört nicht zu Ihrer Mitgliedschaft.',
};
