import { config } from '@/platform/config';
import type { Instant } from '@/core/instants';
import { mailKind, type MailContent } from '@/mail/catalogue';
import type { MailFrame } from '@/mail/define';
import { renderMail, withoutSecret } from '@/mail/render';
import { seal } from '@/platform/seal';
import type { Transaction } from '@/platform/store/db';
import { isMailOn } from '@/mail/store/mail-choices';
import { queueMail } from '@/mail/store/mails';
import type { Site } from '@/platform/store/site';
import { wordsOf } from '@/words/words';
import { offPath, type MailReader } from './off-link';

export const firstName = (name: string): string => name.trim().split(/\s+/)[0] ?? '';

/** Whom a mail addresses. */
export type Reader = { email: string; name: string };

export const mailFrame = (site: Site, person: Reader): MailFrame => ({
  t: wordsOf(site),
  siteName: site.name,
  siteUrl: config().SITE_URL,
  firstName: firstName(person.name),
  name: person.name.trim(),
  email: person.email,
});

/** What is written, and the key under which it is sent once. `at`: by the site's clock. */
export type Letter = { content: MailContent; key: string; at: Instant };

/**
 * Queues a mail in the caller's transaction, so that it is sent if and only if what it tells of happened. One that the
 * owner switched off, or whose topic its reader turned off, is not written.
 */
export async function writeMail(
  db: Transaction,
  site: Site,
  { to, ...letter }: Letter & { to: Reader & { id: string | null } },
): Promise<void> {
  const { content } = letter;
  const own = site.mails[content.template];
  const kind = mailKind(content.template);
  if (own && !own.isOn && !kind?.isAlwaysSent) return;
  if (kind?.topic && to.id && !(await isMailOn(db, to.id, kind.topic))) return;
  await writeMailTo(db, site, { ...letter, reader: to, to: { id: to.id, address: to.email } });
}

/** What a mail has that is one of many. `seenPath`: of the picture by which it is counted that it was opened. */
type OfMany = { letterId?: string; seenPath?: string };

/** Who a mail goes to. `addressId`: of someone of whom only the address is known. */
type Addressee = { id: string | null; addressId?: string; address: string };

const readerOf = ({ id, addressId }: Addressee): MailReader | null =>
  id ? { kind: 'member', id } : addressId ? { kind: 'address', id: addressId } : null;

/** Queues a mail as it reads for one person, to an address that need not be theirs; whether or not it is switched off. */
export async function writeMailTo(
  db: Transaction,
  site: Site,
  { to, reader, content, key, at, letterId, seenPath }: Letter & OfMany & { to: Addressee; reader: Reader },
): Promise<void> {
  const topic = mailKind(content.template)?.topic ?? null;
  const plain = mailFrame(site, reader);
  const whose = readerOf(to);
  const off =
    topic && whose ? { label: plain.t(`mail-off.link-${topic}`), path: offPath(whose, topic) } : undefined;
  const frame = { ...plain, off, seenPath };
  const written = renderMail(content, frame, site.mails[content.template]);
  const hidden = withoutSecret(content);
  const { subject, text, html } = hidden ? renderMail(hidden, frame, site.mails[content.template]) : written;
  await queueMail(db, {
    dedupeKey: key,
    memberId: to.id,
    addressId: to.addressId,
    letterId,
    toAddress: to.address,
    template: content.template,
    subject,
    textBody: text,
    htmlBody: html,
    sealed: hidden && seal(JSON.stringify({ text: written.text, html: written.html })),
    topic: whose ? topic : null,
    at,
  });
}
