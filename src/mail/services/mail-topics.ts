import { z } from 'zod';
import { MAIL_TOPICS, type MailTopic } from '@/core/mail-topics';
import { listRefusals, setRefusal } from '@/mail/store/mail-refusals';
import { siteNow } from '@/platform/clock';
import { nothing } from '@/platform/inputs';
import { record } from '@/platform/record';
import { done, missing, type Result } from '@/platform/result';
import { currentSite } from '@/platform/site';
import { pool, transaction } from '@/platform/store/db';
import type { Actor } from '@/platform/actor';
import { memberUse, publicUse } from '@/platform/use';
import { readOffToken } from './lib/off-link';

/** The topics that the member can turn off, and whether each is on. */
export const myMailTopics = memberUse('my-mail-topics', nothing, async ({ memberId }) => {
  const off = await listRefusals(pool(), memberId);
  return done(MAIL_TOPICS.map((topic) => ({ topic, isOn: !off.includes(topic) })));
});

const topicSchema = z.object({ topic: z.enum(MAIL_TOPICS), isOff: z.boolean() });

export const setMyMailTopic = memberUse(
  'set-my-mail-topic',
  topicSchema,
  async (actor, { topic, isOff }): Promise<Result<null>> => {
    await set(actor, actor.memberId, topic, isOff);
    return done(null);
  },
);

const token = z.string().min(20).max(400);

/** What a link out of a mail is about, and whether it is on now. Opening it changes nothing. */
export const mailOffLink = publicUse('mail-off-link', token, async (_, given) => {
  const read = readOffToken(given);
  if (!read) return missing();
  const off = await listRefusals(pool(), read.memberId);
  return done({ topic: read.topic, isOn: !off.includes(read.topic) });
});

/** Turns off, or on again, what a link out of a mail is about; its reader need not be signed in. */
export const turnMailOff = publicUse(
  'turn-mail-off',
  z.object({ token, isOff: z.boolean() }),
  async (actor, input): Promise<Result<{ topic: MailTopic }>> => {
    const read = readOffToken(input.token);
    if (!read) return missing();
    await set(actor, read.memberId, read.topic, input.isOff);
    return done({ topic: read.topic });
  },
);

async function set(actor: Actor, memberId: string, topic: MailTopic, isOff: boolean): Promise<void> {
  const at = siteNow(await currentSite());
  await transaction(async (db) => {
    if (await setRefusal(db, { memberId, topic, isOff, at }))
      await record(db, actor, at, isOff ? 'mails turned off' : 'mails turned on', `member:${memberId}`, {
        topic,
      });
  });
}
