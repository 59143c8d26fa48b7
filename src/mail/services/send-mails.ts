import { config } from '@/platform/config';
import { sendLetter } from '@/mail/send';
import { pool } from '@/platform/store/db';
import { claimMails, markMailFailed, markMailSent, type QueuedMail } from '@/mail/store/mails';
import { currentSite } from '@/platform/site';
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

/** Sends the mails that wait. The answer is how many were taken. */
async function send(): Promise<number> {
  const mails = await claimMails(pool(), 20, config().LEASE_SECONDS);
  if (mails.length === 0) return 0;
  const site = await currentSite();
  for (const mail of mails) {
    try {
      await sendLetter({
        id: mail.id,
        from: { name: site.senderName, address: site.senderAddress },
        to: mail.toAddress,
        subject: mail.subject,
        ...oneClick(mail),
        ...(mail.sealed ? bodiesOf(mail.sealed) : { text: mail.textBody, html: mail.htmlBody }),
      });
      await markMailSent(pool(), mail.id);
    } catch (error) {
      await markMailFailed(pool(), mail.id, String(error), WAITS[mail.attempts - 1] ?? null);
    }
  }
  return mails.length;
}

export const sendMails = systemUse('send-mails', nothing, async () => done(await send()));
