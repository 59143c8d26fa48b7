import { randomUUID } from 'node:crypto';
import { z } from 'zod';
import { OPEN_TOPICS, type OpenTopic } from '@/core/mail-topics';
import { writeMail } from '@/mail/services/lib/write-mail';
import { confirmMailAddress, findMailLink, insertMailLink } from '@/mail/store/mail-addresses';
import { setChoice } from '@/mail/store/mail-choices';
import { againstAskingForCode } from '@/people/services/lib/mail-code';
import { findMemberByEmail } from '@/people/store/members';
import { siteNow } from '@/platform/clock';
import { emailAddress } from '@/platform/inputs';
import { record } from '@/platform/record';
import { done, refusedField, type Result } from '@/platform/result';
import { currentSite } from '@/platform/site';
import { lock, pool, transaction } from '@/platform/store/db';
import { hashToken, newToken } from '@/platform/tokens';
import { publicUse } from '@/platform/use';
import { say } from '@/words/problems';

const LINK_HOURS = 48;

const inputSchema = z.object({
  email: emailAddress,
  topics: z.array(z.enum(OPEN_TOPICS)).min(1, say('letter.no-topic')).max(OPEN_TOPICS.length),
});

/** Mails a link by which someone confirms that they want posts or letters. The answer says nothing about the address. */
export const askForMails = publicUse(
  'ask-for-mails',
  inputSchema,
  async (actor, input): Promise<Result<null>> => {
    const { email, topics } = input;
    const against = await againstAskingForCode(actor, email);
    if (against) return against;
    const link = newToken();
    return transaction(async (db) => {
      const site = await currentSite(db);
      await insertMailLink(db, link.hash, { email, topics: [...new Set(topics)] }, LINK_HOURS);
      const content = {
        template: 'confirm-mails',
        secret: { path: `/by-mail/${link.token}` },
        hours: LINK_HOURS,
      } as const;
      const reader = { id: null, email, name: '' };
      await writeMail(db, site, {
        to: reader,
        content,
        key: `confirm-mails:${randomUUID()}`,
        at: siteNow(site),
      });
      return done(null);
    });
  },
);

const token = z.string().max(100);

/** What a mailed link confirms; null where it is too old or was never made. Looking at it confirms nothing. */
export const mailLink = publicUse('mail-link', token, async (_, given) =>
  done((await findMailLink(pool(), hashToken(given)))?.topics ?? null),
);

/** Confirms by a mailed link that its reader wants what they asked for. Used twice, it confirms the same. */
export const confirmMails = publicUse(
  'confirm-mails',
  token,
  async (actor, given): Promise<Result<{ topics: OpenTopic[] }>> =>
    transaction(async (db) => {
      const link = await findMailLink(db, hashToken(given));
      if (!link) return refusedField('', 'letter.link-old');
      const { email, topics } = link;
      await lock(db, 'mail-address', email);
      const at = siteNow(await currentSite(db));
      const member = await findMemberByEmail(db, email);
      if (member)
        for (const topic of topics) await setChoice(db, member.id, { topic, isOn: true, how: 'self', at });
      else await confirmMailAddress(db, { email, how: 'asked', topics, at });
      await record(db, actor, at, 'mails asked for', member ? `member:${member.id}` : 'addresses', {
        topics,
      });
      return done({ topics });
    }),
);
