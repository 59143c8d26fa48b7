import { mailKind } from '@/mail/catalogue';
import { desk } from '@/words/desk';

/** What the Desk calls a sent mail by its template; one that is no longer sent keeps the name of its template. */
export function mailName(template: string): string {
  if (template === 'staff') return desk('desk-mails.staff');
  const kind = mailKind(template);
  return kind ? desk(`desk-mails.${kind.template}`) : template;
}
