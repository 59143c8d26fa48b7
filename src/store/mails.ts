import type { Instant } from '@/core/calendar';
import { many, run, type Db } from './db';

export type NewMail = {
  dedupeKey: string;
  memberId: string | null;
  toAddress: string;
  template: string;
  subject: string;
  textBody: string;
  htmlBody: string;
  /** The site's clock. */
  at: Instant;
};
export type QueuedMail = NewMail & { id: string; attempts: number };
export type MailRow = { id: string; template: string; subject: string; state: string; at: Instant };

/** Queues a mail; a second one with the same dedupe key is dropped. */
export async function queueMail(db: Db, mail: NewMail): Promise<void> {
  await run(
    db,
    `INSERT INTO mails (dedupe_key, member_id, to_address, template, subject, text_body, html_body, at)
     VALUES ($1, $2, $3, $4, $5, $6, $7, $8) ON CONFLICT (dedupe_key) DO NOTHING`,
    [
      mail.dedupeKey,
      mail.memberId,
      mail.toAddress,
      mail.template,
      mail.subject,
      mail.textBody,
      mail.htmlBody,
      mail.at,
    ],
  );
}

/** Takes up to `limit` mails for sending; each comes again after the lease unless it is marked by then. */
export async function claimMails(db: Db, limit: number, leaseSeconds: number): Promise<QueuedMail[]> {
  return many(
    db,
    `UPDATE mails SET attempts = attempts + 1, next_attempt_at = now() + make_interval(secs => $2)
     WHERE id IN (
       SELECT id FROM mails WHERE state = 'queued' AND next_attempt_at <= now()
       ORDER BY next_attempt_at LIMIT $1 FOR UPDATE SKIP LOCKED
     ) RETURNING *`,
    [limit, leaseSeconds],
  );
}

export async function markMailSent(db: Db, id: string): Promise<void> {
  await run(db, `UPDATE mails SET state = 'sent', sent_at = now(), last_error = NULL WHERE id = $1`, [id]);
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
    `UPDATE mails SET last_error = $2, state = CASE WHEN $3::int IS NULL THEN 'failed' ELSE 'queued' END,
       next_attempt_at = now() + make_interval(secs => coalesce($3::int, 0)) WHERE id = $1`,
    [id, error, retrySeconds],
  );
}

export async function listMailsTo(db: Db, memberId: string): Promise<MailRow[]> {
  return many(
    db,
    'SELECT id, template, subject, state, at FROM mails WHERE member_id = $1 ORDER BY at DESC, created_at DESC',
    [memberId],
  );
}
