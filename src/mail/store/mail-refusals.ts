import type { MailTopic } from '@/core/mail-topics';
import type { Instant } from '@/core/instants';
import { many, run, type Db } from '@/platform/store/db';

/** The topics whose mails a member has turned off. */
export async function listRefusals(db: Db, memberId: string): Promise<MailTopic[]> {
  const rows = await many<{ topic: MailTopic }>(db, 'SELECT topic FROM mail_refusals WHERE member_id = $1', [
    memberId,
  ]);
  return rows.map(({ topic }) => topic);
}

/** Turns the mails of a topic off or on again for a member. @returns whether that changed anything */
export async function setRefusal(
  db: Db,
  { memberId, topic, isOff, at }: { memberId: string; topic: MailTopic; isOff: boolean; at: Instant },
): Promise<boolean> {
  const changed = isOff
    ? await run(
        db,
        'INSERT INTO mail_refusals (member_id, topic, at) VALUES ($1, $2, $3) ON CONFLICT DO NOTHING',
        [memberId, topic, at],
      )
    : await run(db, 'DELETE FROM mail_refusals WHERE member_id = $1 AND topic = $2', [memberId, topic]);
  return changed > 0;
}

/** Turns off for a member what another has turned off. */
export async function copyRefusals(db: Db, from: string, to: string): Promise<void> {
  await run(
    db,
    'INSERT INTO mail_refusals (member_id, topic, at) SELECT $2, topic, at FROM mail_refusals WHERE member_id = $1 ON CONFLICT DO NOTHING',
    [from, to],
  );
}
