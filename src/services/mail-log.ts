import { HAS_SECRET_LINK, mailKind } from '@/mail/catalogue';
import { pool } from '@/store/db';
import { findMail, listMails, type LoggedMail, type MailFilter } from '@/store/mails';
import { requireRight, type Actor } from './actor';
import { currentSite } from './site';

export type MailLine = LoggedMail & { name: string };

/** What was sent to whom, newest first. Links that let somebody in are not shown. */
export async function mailLog(
  actor: Actor,
  filter: MailFilter,
): Promise<{ rows: MailLine[]; total: number; zone: string }> {
  requireRight(actor, 'manage members');
  const { zone } = await currentSite();
  const { rows, total } = await listMails(pool(), filter);
  return { rows: rows.map(toLine), total, zone };
}

export async function loggedMail(actor: Actor, id: string): Promise<MailLine | null> {
  requireRight(actor, 'manage members');
  const mail = await findMail(pool(), id);
  return mail ? toLine(mail) : null;
}

function toLine(mail: LoggedMail): MailLine {
  const isSecret = HAS_SECRET_LINK.some((template) => template === mail.template);
  return {
    ...mail,
    name: mailKind(mail.template)?.name ?? mail.template,
    textBody: isSecret
      ? mail.textBody.replace(/https?:\/\/\S+/g, '(a link that only its reader has)')
      : mail.textBody,
  };
}
