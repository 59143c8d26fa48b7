import { pool } from '@/platform/store/db';
import { findMail, listMails, MAIL_STATES } from '@/mail/store/mails';
import { z } from 'zod';
import { staffUse } from '@/platform/use';
import { search, uuid } from '@/platform/inputs';
import { done, missing } from '@/platform/result';

/** Sent mail, newest first. Secrets that grant access were never stored. */
const PAGE_ROWS = 100;
const inputSchema = z.object({
  state: z.enum(['', ...MAIL_STATES]).catch(''),
  search,
  /** The letter to many that they are of; '': whatever they are of. */
  letter: z
    .union([uuid, z.literal('')])
    .catch('')
    .default(''),
  page: z.coerce.number().int().min(1).max(100_000).catch(1),
});

export const mailLog = staffUse('manage members')('mail-log', inputSchema, async (_, query) => {
  const rowsAsked = { offset: (query.page - 1) * PAGE_ROWS, limit: PAGE_ROWS };
  const { rows, total } = await listMails(pool(), { ...query, ...rowsAsked });
  return done({ rows, total, query, perPage: PAGE_ROWS });
});

export const loggedMail = staffUse('manage members')('logged-mail', uuid, async (_, id) => {
  const mail = await findMail(pool(), id);
  return mail ? done(mail) : missing();
});
