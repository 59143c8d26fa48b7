import { config } from '@/platform/config';
import type { Instant } from '@/core/calendar';
import { mailKind } from '@/mail/catalogue';
import type { MailContent, MailFrame } from '@/mail/content';
import { renderMail, withoutSecret } from '@/mail/render';
import { seal } from '@/platform/seal';
import type { Transaction } from '@/platform/store/db';
import { queueMail } from '@/mail/store/mails';
import type { Site } from '@/platform/store/site';

export const firstName = (name: string): string => name.trim().split(/\s+/)[0] ?? '';

/** Whom a mail addresses. */
export type Reader = { email: string; name: string };

export const mailFrame = (site: Site, person: Reader): MailFrame => ({
  siteName: site.name,
  siteUrl: config().SITE_URL,
  zone: site.zone,
  firstName: firstName(person.name),
  name: person.name.trim(),
  email: person.email,
});

/**
 * Queues a mail in the caller's transaction, so that it is sent if and only if what it tells of happened. One that the
 * owner switched off is not written.
 */
export async function writeMail(
  db: Transaction,
  site: Site,
  member: Reader & { id: string | null },
  content: MailContent,
  dedupeKey: string,
  at: Instant,
): Promise<void> {
  const own = site.mails[content.template];
  if (own && !own.isOn && mailKind(content.template)?.canBeOff) return;
  await writeMailTo(db, site, { id: member.id, address: member.email }, member, content, dedupeKey, at);
}

/** Queues a mail as it reads for one person, to an address that need not be theirs; whether or not it is switched off. */
export async function writeMailTo(
  db: Transaction,
  site: Site,
  to: { id: string | null; address: string },
  reader: Reader,
  content: MailContent,
  dedupeKey: string,
  at: Instant,
): Promise<void> {
  const frame = mailFrame(site, reader);
  const written = renderMail(content, frame, site.mails[content.template]);
  const hidden = withoutSecret(content);
  const { subject, text, html } = hidden ? renderMail(hidden, frame, site.mails[content.template]) : written;
  await queueMail(db, {
    dedupeKey,
    memberId: to.id,
    toAddress: to.address,
    template: content.template,
    subject,
    textBody: text,
    htmlBody: html,
    sealed: hidden && seal(JSON.stringify({ text: written.text, html: written.html })),
    at,
  });
}
