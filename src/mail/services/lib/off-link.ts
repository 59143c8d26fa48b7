import { MAIL_TOPICS, type MailTopic } from '@/core/mail-topics';
import { readSigned, sign } from '@/platform/tokens';

const PURPOSE = 'mail-off';

/** Whose mails: a member's, or those of someone of whom only the address is known. */
export type MailReader = { kind: 'member' | 'address'; id: string };

/** What the link in a mail carries: whose mails of which topic it turns off, signed, and good for nothing else. */
export const offToken = ({ kind, id }: MailReader, topic: MailTopic): string =>
  Buffer.from(sign([PURPOSE, topic, id, ...(kind === 'address' ? [kind] : [])].join(':'))).toString(
    'base64url',
  );

/** Null where it was not made here. */
export function readOffToken(token: string): { reader: MailReader; topic: MailTopic } | null {
  const [purpose, given, id, kind] =
    readSigned(Buffer.from(token, 'base64url').toString('utf8'))?.split(':') ?? [];
  const topic = MAIL_TOPICS.find((one) => one === given);
  if (purpose !== PURPOSE || !topic || !id) return null;
  return { reader: { kind: kind === 'address' ? kind : 'member', id }, topic };
}

/** Where a reader turns the mails of a topic off, asked once more. */
export const offPath = (reader: MailReader, topic: MailTopic): string =>
  `/mail-off/${offToken(reader, topic)}`;
/** Where a mail program does so by itself (RFC 8058). */
export const oneClickPath = (reader: MailReader, topic: MailTopic): string =>
  `/api/mail-off/${offToken(reader, topic)}`;
