import { isOnAtFirst, type ChosenBy, type MailTopic } from '@/core/mail-topics';
import type { Instant } from '@/core/instants';
import { many, one, run, type Db } from '@/platform/store/db';

/** What was chosen about the mails of a topic for a member. `at`: the site's clock. */
export type MailChoice = { topic: MailTopic; isOn: boolean; how: ChosenBy; at: Instant };

/** Whether the member `m` of a statement gets the mails of a topic. */
export const getsMails = (m: string, topic: MailTopic): string =>
  `coalesce((SELECT c.is_on FROM mail_choices c WHERE c.member_id = ${m}.id AND c.topic = '${topic}'), ${String(isOnAtFirst(topic))})`;

/** What was chosen for a member; topics about which nothing was chosen are not in it. */
export async function listChoices(db: Db, memberId: string): Promise<MailChoice[]> {
  return many(db, 'SELECT topic, is_on, how, at FROM mail_choices WHERE member_id = $1', [memberId]);
}

export async function isMailOn(db: Db, memberId: string, topic: MailTopic): Promise<boolean> {
  const { isOn } = await one<{ isOn: boolean }>(
    db,
    `SELECT ${getsMails('m', topic)} AS is_on FROM (SELECT $1::uuid AS id) m`,
    [memberId],
  );
  return isOn;
}

/** Turns the mails of a topic on or off for a member. @returns whether that changed anything */
export async function setChoice(
  db: Db,
  memberId: string,
  { topic, isOn, how, at }: MailChoice,
): Promise<boolean> {
  const changed = await run(
    db,
    `INSERT INTO mail_choices (member_id, topic, is_on, how, at) VALUES ($1, $2, $3, $4, $5)
     ON CONFLICT (member_id, topic) DO UPDATE SET is_on = $3, how = $4, at = $5 WHERE mail_choices.is_on <> $3`,
    [memberId, topic, isOn, how, at],
  );
  return changed > 0;
}

/** Copies a member's choices to another. Where they differ, off counts. */
export async function copyChoices(db: Db, from: string, to: string): Promise<void> {
  await run(
    db,
    `INSERT INTO mail_choices (member_id, topic, is_on, how, at) SELECT $2, topic, is_on, how, at FROM mail_choices WHERE member_id = $1
     ON CONFLICT (member_id, topic) DO UPDATE SET is_on = excluded.is_on, how = excluded.how, at = excluded.at WHERE NOT excluded.is_on`,
    [from, to],
  );
}
