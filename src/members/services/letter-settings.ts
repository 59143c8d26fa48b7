import { z } from 'zod';
import { deleteItemReads } from '@/content/store/item-reads';
import { deleteOpens } from '@/members/store/letter-opens';
import { siteNow } from '@/platform/clock';
import { record } from '@/platform/record';
import { done, type Result } from '@/platform/result';
import { currentSite } from '@/platform/site';
import { transaction } from '@/platform/store/db';
import { setLetterSettings } from '@/platform/store/site';
import { staffUse } from '@/platform/use';
import { say } from '@/words/problems';

const settingsSchema = z.object({
  lettersPerMinute: z.coerce
    .number(say('letter.rate'))
    .int(say('letter.rate'))
    .min(1, say('letter.rate'))
    .max(3000, say('letter.rate')),
  asksLetters: z.boolean(),
  countsOpens: z.boolean(),
});

/** How fast letters go out, whether joining asks about them, and whether opens are counted. What was counted is deleted where it is turned off. */
export const saveLetterSettings = staffUse('change settings')(
  'save-letter-settings',
  settingsSchema,
  async (actor, input): Promise<Result<null>> => {
    const at = siteNow(await currentSite());
    return transaction(async (db) => {
      await setLetterSettings(db, input);
      if (!input.countsOpens) {
        await deleteOpens(db, null);
        await deleteItemReads(db, null);
      }
      await record(db, actor, at, 'letter settings changed', 'site', input);
      return done(null);
    });
  },
);
