import { config } from '@/config';
import type { Instant } from '@/core/calendar';
import { renderMail, type MailContent } from '@/mail/templates';
import type { Transaction } from '@/store/db';
import { queueMail } from '@/store/mails';
import type { Member } from '@/store/members';
import type { Site } from '@/store/site';

export const firstName = (name: string): string => name.trim().split(/\s+/)[0] || 'there';

/** Queues a mail in the caller's transaction, so that it is sent if and only if what it tells of happened. */
export async function writeMail(
  db: Transaction,
  site: Site,
  member: Pick<Member, 'email' | 'name'> & { id: string | null },
  content: MailContent,
  dedupeKey: string,
  at: Instant,
): Promise<void> {
  const frame = {
    siteName: site.name,
    siteUrl: config().SITE_URL,
    zone: site.zone,
    firstName: firstName(member.name),
  };
  const { subject, text, html } = renderMail(content, frame);
  await queueMail(db, {
    dedupeKey,
    memberId: member.id,
    toAddress: member.email,
    template: content.template,
    subject,
    textBody: text,
    htmlBody: html,
    at,
  });
}
