import { randomUUID } from 'node:crypto';
import { z } from 'zod';
import { isKnown } from '@/access/services/lib/desk-items';
import { writeMailTo } from '@/mail/services/lib/write-mail';
import { findLetter, lockLetter, setLetterState, type LetterState } from '@/members/store/letters';
import { findMember } from '@/people/store/members';
import { siteNow } from '@/platform/clock';
import { uuid } from '@/platform/inputs';
import { record } from '@/platform/record';
import { done, missing, refusedField, type Result } from '@/platform/result';
import { currentSite } from '@/platform/site';
import { pool, transaction } from '@/platform/store/db';
import { staffUse } from '@/platform/use';
import { itemOf, letterFor } from './lib/letter-mail';

/** Begins to send a letter to all whom it reaches, in the version that was looked at. Sent twice, it begins once. */
export const sendLetter = staffUse('manage members')(
  'send-letter',
  z.object({ id: uuid, version: z.coerce.number().int() }),
  async (actor, { id, version }): Promise<Result<null>> => {
    const at = siteNow(await currentSite());
    return transaction(async (db) => {
      const letter = await lockLetter(db, id);
      if (letter?.kind !== 'letter') return missing();
      if (letter.state !== 'draft') return done(null);
      if (letter.version !== version) return refusedField('', 'letter.changed-elsewhere');
      await setLetterState(db, id, ['draft'], 'sending', at);
      await record(db, actor, at, 'letter sent', `letter:${id}`, { subject: letter.subject });
      return done(null);
    });
  },
);

const DEEDS = {
  pause: { from: ['sending'], to: 'paused', said: 'letter paused' },
  resume: { from: ['paused'], to: 'sending', said: 'letter resumed' },
  stop: { from: ['sending', 'paused'], to: 'stopped', said: 'letter stopped' },
} as const satisfies Record<string, { from: LetterState[]; to: LetterState; said: string }>;

/** Pauses, resumes or stops a letter. What was written to its first readers is sent. */
export const holdLetter = staffUse('manage members')(
  'hold-letter',
  z.object({ id: uuid, deed: z.enum(['pause', 'resume', 'stop']) }),
  async (actor, { id, deed }): Promise<Result<null>> => {
    const at = siteNow(await currentSite());
    const { from, to, said } = DEEDS[deed];
    return transaction(async (db) => {
      if (!(await setLetterState(db, id, [...from], to, at))) return refusedField('', 'letter.over');
      await record(db, actor, at, said, `letter:${id}`);
      return done(null);
    });
  },
);

/** Sends the letter to the one who asks, as they would get it. */
export const tryLetter = staffUse('manage members')(
  'try-letter',
  uuid,
  async (actor, id): Promise<Result<{ email: string }>> => {
    const [letter, me] = [
      await findLetter(pool(), id),
      actor.memberId ? await findMember(pool(), actor.memberId) : undefined,
    ];
    if (!letter || !me) return missing();
    const item = await itemOf(letter);
    if (item && !(await isKnown(actor, item))) return missing();
    const site = await currentSite();
    const content = await letterFor({ ...site, countsOpens: false }, letter, item, me);
    if (!content) return refusedField('', 'letter.nothing-for-you');
    await transaction((db) =>
      writeMailTo(db, site, {
        to: { id: me.id, address: me.email },
        reader: me,
        content,
        key: `try:${randomUUID()}`,
        at: siteNow(site),
      }),
    );
    return done({ email: me.email });
  },
);
