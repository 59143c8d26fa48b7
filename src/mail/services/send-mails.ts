import { config } from '@/platform/config';
import { sendLetter } from '@/mail/send';
import { pool } from '@/platform/store/db';
import {
  claimMails,
  giveUpUnsure,
  handMail,
  markMailFailed,
  markMailSent,
  type QueuedMail,
} from '@/mail/store/mails';
import { currentSite } from '@/platform/site';
import type { Site } from '@/platform/store/site';
import { systemUse } from '@/platform/use';
import { nothing } from '@/platform/inputs';
import { done } from '@/platform/result';
import { z } from 'zod';
import { oneClickPath } from './lib/off-link';
import { unseal } from '@/platform/seal';

/** Real seconds to wait before each further try; after the last the mail is given up and shown as failed. */
const WAITS = [10, 60, 300, 1800, 7200, 43_200];

const bodiesSchema = z.object({ text: z.string(), html: z.string() });
const bodiesOf = (sealed: string) => bodiesSchema.parse(JSON.parse(unseal(sealed)));

/** The address that turns such mails off, for those that can be. */
function oneClick({ topic, memberId, addressId }: QueuedMail): { oneClickUrl?: string } {
  const [kind, id] = memberId ? (['member', memberId] as const) : (['address', addressId] as const);
  return topic && id ? { oneClickUrl: `${config().SITE_URL}${oneClickPath({ kind, id }, topic)}` } : {};
}

const UNSURE = 'Sending stopped before the mail server answered, so this may have arrived.';

/** The codes of nodemailer for a connection that was lost or went silent, at whatever point. */
const LOST = new Set(['ECONNECTION', 'ETIMEDOUT', 'ESOCKET']);

/** Whether the server may have taken a mail before the connection was lost: it was reached, and gave no answer. */
function isUnsure(error: Error): boolean {
  const { code, responseCode, syscall } = error as NodeJS.ErrnoException & { responseCode?: number };
  const wasReached =
    syscall !== 'connect' && !/^(Connection timeout|Greeting never received)/.test(error.message);
  return responseCode === undefined && LOST.has(code ?? '') && wasReached;
}

/** Sends the mails that wait. The answer is how many were taken. */
async function send(): Promise<number> {
  const { LEASE_SECONDS } = config();
  await giveUpUnsure(pool(), UNSURE);
  const mails = await claimMails(pool(), 20, LEASE_SECONDS);
  if (mails.length === 0) return 0;
  const site = await currentSite();
  for (const mail of mails) {
    // A letter to many is sent to each once or, where that cannot be told, given up; all other mail is rather sent twice.
    if (mail.letterId && !(await handMail(pool(), mail, LEASE_SECONDS))) continue;
    const failure = await tryToSend(mail, site);
    if (failure === undefined) await markMailSent(pool(), mail.id);
    else if (mail.letterId && isUnsure(failure)) await markMailFailed(pool(), mail.id, UNSURE, null);
    else await markMailFailed(pool(), mail.id, String(failure), WAITS[mail.attempts - 1] ?? null);
  }
  return mails.length;
}

/** @returns why it was not sent; undefined where it was */
async function tryToSend(mail: QueuedMail, { senderName, senderAddress }: Site): Promise<Error | undefined> {
  try {
    await sendLetter({
      id: mail.id,
      from: { name: senderName, address: senderAddress },
      to: mail.toAddress,
      subject: mail.subject,
      ...oneClick(mail),
      ...(mail.sealed ? bodiesOf(mail.sealed) : { text: mail.textBody, html: mail.htmlBody }),
    });
    return undefined;
  } catch (error) {
    return error instanceof Error ? error : new Error(String(error));
  }
}

export const sendMails = systemUse('send-mails', nothing, async () => done(await send()));
