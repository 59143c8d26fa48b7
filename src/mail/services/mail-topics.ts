import { z } from 'zod';
import { isOnAtFirst, MAIL_TOPICS, OPEN_TOPICS, type MailTopic } from '@/core/mail-topics';
import { findMailAddress, setAddressChoice } from '@/mail/store/mail-addresses';
import { isMailOn, listChoices, setChoice, type MailChoice } from '@/mail/store/mail-choices';
import { siteNow } from '@/platform/clock';
import { nothing, uuid } from '@/platform/inputs';
import { record } from '@/platform/record';
import { done, missing, refusedField, type Result } from '@/platform/result';
import { currentSite } from '@/platform/site';
import { lock, pool, transaction } from '@/platform/store/db';
import type { Actor } from '@/platform/actor';
import { memberUse, publicUse, staffUse } from '@/platform/use';
import { readOffToken, type MailReader } from './lib/off-link';

/** Topics with whether someone gets their mails, and who said so; null where nobody did. */
async function topicsOf(
  memberId: string,
): Promise<{ topic: MailTopic; isOn: boolean; choice: MailChoice | null }[]> {
  const choices = await listChoices(pool(), memberId);
  return MAIL_TOPICS.map((topic) => {
    const choice = choices.find((one) => one.topic === topic) ?? null;
    return { topic, isOn: choice?.isOn ?? isOnAtFirst(topic), choice };
  });
}

/** The topics that the member can turn on and off, and whether each is on. */
export const myMailTopics = memberUse('my-mail-topics', nothing, async ({ memberId }) =>
  done(await topicsOf(memberId)),
);

const topicSchema = z.object({ topic: z.enum(MAIL_TOPICS), isOff: z.boolean() });

export const setMyMailTopic = memberUse(
  'set-my-mail-topic',
  topicSchema,
  async (actor, { topic, isOff }): Promise<Result<null>> => {
    await set(actor, { kind: 'member', id: actor.memberId }, topic, !isOff);
    return done(null);
  },
);

/** The topics of a member as staff see them. */
export const mailTopicsOf = staffUse('see members')('mail-topics-of', uuid, async (_, memberId) =>
  done(await topicsOf(memberId)),
);

const forMemberSchema = z.object({ memberId: uuid, topic: z.enum(MAIL_TOPICS), isOn: z.boolean() });

/** Staff turn the mails of a topic off for a member, or on where they asked for them; never on against what they chose themselves. */
export const setMailTopic = staffUse('manage members')(
  'set-mail-topic',
  forMemberSchema,
  async (actor, { memberId, topic, isOn }): Promise<Result<null>> => {
    const at = siteNow(await currentSite());
    return transaction(async (db) => {
      await lock(db, 'mail-choices', memberId);
      const before = (await listChoices(db, memberId)).find((one) => one.topic === topic);
      if (isOn && before && !before.isOn && before.how === 'self')
        return refusedField('', 'mail.turned-off-themselves');
      if (await setChoice(db, memberId, { topic, isOn, how: 'staff', at }))
        await record(db, actor, at, isOn ? 'mails turned on' : 'mails turned off', `member:${memberId}`, {
          topic,
        });
      return done(null);
    });
  },
);

const token = z.string().min(20).max(400);

/** What a link out of a mail is about, and whether it is on now. Opening it changes nothing. */
export const mailOffLink = publicUse('mail-off-link', token, async (_, given) => {
  const read = readOffToken(given);
  const isOn = read && (await isOnFor(read.reader, read.topic));
  return read && isOn !== null ? done({ topic: read.topic, isOn }) : missing();
});

async function isOnFor({ kind, id }: MailReader, topic: MailTopic): Promise<boolean | null> {
  if (kind === 'member') return isMailOn(pool(), id, topic);
  const address = await findMailAddress(pool(), id);
  if (!address) return null;
  return (topic === 'posts' ? address.getsPosts : address.getsLetters) ?? false;
}

/** Turns off, or on again, what a link out of a mail is about; its reader need not be signed in. */
export const turnMailOff = publicUse(
  'turn-mail-off',
  z.object({ token, isOff: z.boolean() }),
  async (actor, input): Promise<Result<{ topic: MailTopic }>> => {
    const read = readOffToken(input.token);
    if (!read) return missing();
    await set(actor, read.reader, read.topic, !input.isOff);
    return done({ topic: read.topic });
  },
);

async function set(actor: Actor, { kind, id }: MailReader, topic: MailTopic, isOn: boolean): Promise<void> {
  const at = siteNow(await currentSite());
  await transaction(async (db) => {
    await lock(db, 'mail-choices', id);
    const open = OPEN_TOPICS.find((one) => one === topic);
    const isChanged =
      kind === 'member'
        ? await setChoice(db, id, { topic, isOn, how: 'self', at })
        : open !== undefined && (await setAddressChoice(db, id, open, isOn));
    if (isChanged)
      await record(db, actor, at, isOn ? 'mails turned on' : 'mails turned off', `${kind}:${id}`, { topic });
  });
}
