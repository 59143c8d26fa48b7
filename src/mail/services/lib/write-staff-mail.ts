import type { MemberId } from '@/core/ids';
import type { Instant } from '@/core/instants';
import { renderWords } from '@/mail/render';
import { queueMail } from '@/mail/store/mails';
import type { Transaction } from '@/platform/store/db';
import type { Site } from '@/platform/store/site';
import { deskWordsOf } from '@/words/desk';
import { mailFrame, type Reader } from './write-mail';

export type StaffLetter = {
  subject: string;
  lines: string[];
  link: { label: string; path: string };
  /** The member it is about. */
  aboutId?: MemberId;
  /** What makes it one letter: the same is sent once to each. */
  key: string;
  at: Instant;
};

/** The key under which a mail to one of the staff is sent once. */
export const staffMailKey = (key: string, memberId: string): string => `staff:${key}:${memberId}`;

/** Queues a mail to one of the staff, in the language of the Desk; one with the same key is sent once. */
export async function writeStaffMail(
  db: Transaction,
  site: Site,
  to: Reader & { id: string },
  letter: StaffLetter,
): Promise<void> {
  const frame = { ...mailFrame(site, to), t: deskWordsOf(site) };
  const { subject, text, html } = renderWords(letter, frame);
  await queueMail(db, {
    dedupeKey: staffMailKey(letter.key, to.id),
    memberId: to.id,
    aboutId: letter.aboutId,
    toAddress: to.email,
    template: 'staff',
    subject,
    textBody: text,
    htmlBody: html,
    sealed: null,
    topic: null,
    at: letter.at,
  });
}
