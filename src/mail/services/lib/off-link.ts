import { MAIL_TOPICS, type MailTopic } from '@/core/mail-topics';
import { readSigned, sign } from '@/platform/tokens';

const PURPOSE = 'mail-off';

/** What the link in a mail carries: whose mails of which topic it turns off, signed, and good for nothing else. */
export const offToken = (memberId: string, topic: MailTopic): string =>
  Buffer.from(sign(`${PURPOSE}:${topic}:${memberId}`)).toString('base64url');

/** Null where it was not made here. */
export function readOffToken(token: string): { memberId: string; topic: MailTopic } | null {
  const [purpose, given, memberId] =
    readSigned(Buffer.from(token, 'base64url').toString('utf8'))?.split(':') ?? [];
  const topic = MAIL_TOPICS.find((one) => one === given);
  return purpose === PURPOSE && topic && memberId ? { memberId, topic } : null;
}

/** Where a reader turns the mails of a topic off, asked once more. */
export const offPath = (memberId: string, topic: MailTopic): string =>
  `/mail-off/${offToken(memberId, topic)}`;
/** Where a mail program does so by itself (RFC 8058). */
export const oneClickPath = (memberId: string, topic: MailTopic): string =>
  `/api/mail-off/${offToken(memberId, topic)}`;
