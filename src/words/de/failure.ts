import type { failure as english } from '../en/failure';

export const failure: Record<keyof typeof english, string> = {
  'failure.title': 'Da ist etwas schiefgegangen',
  'failure.words':
    'Der Fehler liegt bei uns. Wenn Sie nur gelesen haben, hat sich nichts geändert. Wenn Sie gerade bezahlt oder etwas gespeichert haben, können wir hier nicht sagen, ob es geklappt hat: Sehen Sie in Ihrem Konto nach, bevor Sie es noch einmal versuchen. Dieselbe Sache wird nie zweimal abgebucht.',
  'failure.back': 'Mit der Zurück-Taste Ihres Browsers kommen Sie zu Ihren Eingaben zurück.',
  'failure.again': 'Noch einmal versuchen',
  'failure.account': 'Ihr Konto',
  'failure.number': 'Wenn es wieder passiert, nennen Sie den Betreibern der Website diese Nummer: {number}',
};
