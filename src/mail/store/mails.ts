import type { MailTopic } from '@/core/mail-topics';
import type { Instant } from '@/core/instants';
import { containing, where } from '@/platform/store/conditions';
import { many, maybeOne, one, run, type Db, prepared } from '@/platform/store/db';
import { sealedColumn } from '@/platform/store/sealed';
import type { MemberId } from '@/core/ids';

export type NewMail = {
  dedupeKey: string;
  memberId: MemberId | null;
  /** Whom a mail to staff is about. */
  aboutId?: MemberId;
  /** Of someone of whom only the address is known. */
  addressId?: string | null;
  /** The letter to many that it is one of. */
  letterId?: string | null;
  toAddress: string;
  template: string;
  subject: string;
  textBody: string;
  htmlBody: string;
  /** The bodies as they are sent, sealed, where they hold a secret that grants access; deleted once sent. */
  sealed: string | null;
  /** What its reader can turn off; null for what they cannot. */
  topic: MailTopic | null;
  /** The site's clock. */
  at: Instant;
};
export type QueuedMail = NewMail & { id: string; attempts: number };
export type MailRow = { id: string; template: string; subject: string; state: string; at: Instant };

const QUEUE_MAIL = prepared(
  'queue-mail',
  `INSERT INTO mails (dedupe_key, member_id, to_address, template, subject, text_body, html_body, sealed, at, about_member_id, topic, address_id, letter_id)
     VALUES ($1, $2, $3, $4, $5, $6, $7, $8, $9, $10, $11, $12, $13) ON CONFLICT (dedupe_key) DO NOTHING`,
);

/** Queues a mail; a second one with the same dedupe key is dropped. */
export async function queueMail(db: Db, mail: NewMail): Promise<void> {
  await run(db, QUEUE_MAIL, [
    mail.dedupeKey,
    mail.memberId,
    mail.toAddress,
    mail.template,
    mail.subject,
    mail.textBody,
    mail.htmlBody,
    mail.sealed,
    mail.at,
    mail.aboutId ?? null,
    mail.topic,
    mail.addressId ?? null,
    mail.letterId ?? null,
  ]);
}

/** Whether a mail with this dedupe key was ever queued. */
export async function isMailKnown(db: Db, dedupeKey: string): Promise<boolean> {
  return (await maybeOne(db, 'SELECT id FROM mails WHERE dedupe_key = $1', [dedupeKey])) !== undefined;
}

/** How many were written from one instant of the site's clock to another. */
export async function countMails(db: Db, from: Instant, to: Instant): Promise<number> {
  return Number(
    (await one<{ n: bigint }>(db, 'SELECT count(*) AS n FROM mails WHERE at >= $1 AND at < $2', [from, to]))
      .n,
  );
}

/**
 * Gives up the mails of letters that were handed to the mail server by a worker which died before it noted the answer: they may
 * have arrived, and nobody is to get a letter twice. `error`: what the log says of them.
 */
export async function giveUpUnsure(db: Db, error: string): Promise<void> {
  await run(
    db,
    `UPDATE mails SET state = 'failed', last_error = $1, sealed = NULL
     WHERE state = 'queued' AND handed_at IS NOT NULL AND next_attempt_at <= now()`,
    [error],
  );
}

/**
 * Notes that a claimed mail is being handed to the mail server, and begins its lease anew. False where it is no longer this
 * claim's: its lease was over, and another worker has it.
 */
export async function handMail(db: Db, { id, attempts }: QueuedMail, leaseSeconds: number): Promise<boolean> {
  const handed = await run(
    db,
    `UPDATE mails SET handed_at = now(), next_attempt_at = now() + make_interval(secs => $3)
     WHERE id = $1 AND attempts = $2 AND state = 'queued' AND handed_at IS NULL`,
    [id, attempts, leaseSeconds],
  );
  return handed === 1;
}

/** Takes up to `limit` mails for sending; each comes again after the lease unless it is marked by then. */
export async function claimMails(db: Db, limit: number, leaseSeconds: number): Promise<QueuedMail[]> {
  return many(
    db,
    `UPDATE mails SET attempts = attempts + 1, next_attempt_at = now() + make_interval(secs => $2)
     WHERE id IN (
       SELECT id FROM mails WHERE state = 'queued' AND next_attempt_at <= now() AND handed_at IS NULL
       ORDER BY next_attempt_at LIMIT $1 FOR UPDATE SKIP LOCKED
     ) RETURNING *`,
    [limit, leaseSeconds],
  );
}

export async function markMailSent(db: Db, id: string): Promise<void> {
  await run(
    db,
    `UPDATE mails SET state = 'sent', sent_at = now(), last_error = NULL, sealed = NULL WHERE id = $1`,
    [id],
  );
}

/** Notes why sending failed; tried again after `retrySeconds`, or given up where that is null. */
export async function markMailFailed(
  db: Db,
  id: string,
  error: string,
  retrySeconds: number | null,
): Promise<void> {
  await run(
    db,
    `UPDATE mails SET last_error = $2, handed_at = NULL, state = CASE WHEN $3::int IS NULL THEN 'failed' ELSE 'queued' END,
       sealed = CASE WHEN $3::int IS NULL THEN NULL ELSE sealed END,
       next_attempt_at = now() + make_interval(secs => coalesce($3::int, 0)) WHERE id = $1`,
    [id, error, retrySeconds],
  );
}

export async function listMailsTo(db: Db, memberId: MemberId): Promise<MailRow[]> {
  return many(
    db,
    'SELECT id, template, subject, state, at FROM mails WHERE member_id = $1 ORDER BY at DESC, created_at DESC',
    [memberId],
  );
}

/** When the mail server last took a mail; real time. */
export async function lastSent(db: Db): Promise<Instant | null> {
  const { at } = await one<{ at: Instant | null }>(
    db,
    `SELECT max(sent_at) AS at FROM mails WHERE state = 'sent'`,
  );
  return at;
}

export const MAIL_STATES = ['queued', 'sent', 'failed'] as const;
export type MailState = (typeof MAIL_STATES)[number];
export type LoggedMail = {
  id: string;
  memberId: MemberId | null;
  /** Whom a mail to staff is about. */
  aboutId?: MemberId;
  toAddress: string;
  template: string;
  subject: string;
  textBody: string;
  state: MailState;
  attempts: number;
  lastError: string | null;
  /** The site's clock when it was written; real time when the mail server took it. */
  at: Instant;
  sentAt: Instant | null;
};
/** `letter`: the id of the letter to many that they are of; '' for any. */
export type MailFilter = {
  state: '' | MailState;
  search: string;
  letter: string;
  offset: number;
  limit: number;
};

/** Mails that fit a filter, newest first, and how many there are in all. */
export async function listMails(db: Db, f: MailFilter): Promise<{ rows: LoggedMail[]; total: number }> {
  const narrowed = where([
    f.state && ['state = ?', f.state],
    f.search && ['search_text LIKE ?', containing(f.search)],
    f.letter && ['letter_id = ?', f.letter],
  ]);
  const { total } = await one<{ total: bigint }>(db, `SELECT count(*) AS total FROM mails ${narrowed.sql}`, [
    ...narrowed.values,
  ]);
  const rows = await many<LoggedMail>(
    db,
    `SELECT id, member_id, to_address, template, subject, text_body, state, attempts, last_error, at, sent_at FROM mails ${narrowed.sql}
     ORDER BY at DESC, created_at DESC OFFSET ${narrowed.add(f.offset)} LIMIT ${narrowed.add(f.limit)}`,
    narrowed.values,
  );
  return { rows, total: Number(total) };
}

export async function findMail(db: Db, id: string): Promise<LoggedMail | undefined> {
  return maybeOne(
    db,
    'SELECT id, member_id, to_address, template, subject, text_body, state, attempts, last_error, at, sent_at FROM mails WHERE id = $1',
    [id],
  );
}

/** Has a mail that was given up be sent again, from the first try on. False where it was not given up, or is of an excepted kind. */
export async function requeueMail(db: Db, id: string, exceptTemplates: string[]): Promise<boolean> {
  return (
    (await run(
      db,
      `UPDATE mails SET state = 'queued', attempts = 0, handed_at = NULL, next_attempt_at = now() WHERE id = $1 AND state = 'failed' AND text_body <> '' AND template <> ALL ($2::text[])`,
      [id, exceptTemplates],
    )) === 1
  );
}

/** Empties every mail to a member or an address, or about the member, and forgets what they chose; those that still wait are not sent. */
export async function forgetMails(db: Db, memberId: MemberId, address: string): Promise<void> {
  await run(
    db,
    `UPDATE mails SET to_address = 'left@left.invalid', subject = '', text_body = '', html_body = '', sealed = NULL, state = CASE state WHEN 'queued' THEN 'failed' ELSE state END
     WHERE member_id = $1 OR to_address = $2 OR about_member_id = $1`,
    [memberId, address],
  );
  await run(db, 'DELETE FROM mail_choices WHERE member_id = $1', [memberId]);
}

export const SEALED_MAILS = sealedColumn('unsent emails', 'mails', 'sealed');

/** Makes the mails to one member, and about them, another's. */
export async function moveMails(db: Db, from: MemberId, to: MemberId): Promise<void> {
  await run(db, 'UPDATE mails SET member_id = $2 WHERE member_id = $1', [from, to]);
  await run(db, 'UPDATE mails SET about_member_id = $2 WHERE about_member_id = $1', [from, to]);
}
