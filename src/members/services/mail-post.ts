import { z } from 'zod';
import { FILE, LINK, PAGE } from '@/core/content/item';
import { requirePublishing, requireWriting } from '@/content/services/lib/may-write';
import { countItemReaders } from '@/content/store/item-reads';
import { findItem } from '@/content/store/items';
import { countOpens } from '@/members/store/letter-opens';
import { countMailsOf, findLetterOf, insertPostLetter } from '@/members/store/letters';
import { siteNow } from '@/platform/clock';
import { slug } from '@/platform/inputs';
import { record } from '@/platform/record';
import { done, missing, refusedField, type Result } from '@/platform/result';
import { currentSite, powersOf } from '@/platform/site';
import { pool, transaction } from '@/platform/store/db';
import { staffUse } from '@/platform/use';

/** Whether items of a kind can be mailed: those with a date and a text, not pages. */
const isMailed = (type: string): boolean => ![PAGE, FILE, LINK].includes(type);

const inputSchema = z.object({ itemId: slug, closedGet: z.enum(['teaser', 'nothing']) });

/** Has a post mailed to the members who may read it, once; one that is not out yet, as soon as it is. */
export const mailPost = staffUse('publish')(
  'mail-post',
  inputSchema,
  async (actor, { itemId, closedGet }): Promise<Result<null>> => {
    const at = siteNow(await currentSite());
    const powers = await powersOf(actor);
    return transaction(async (db) => {
      const item = await findItem(db, itemId);
      if (!item || item.trashedAt) return missing();
      requireWriting(powers, item);
      requirePublishing(powers, true);
      if (!isMailed(item.type)) return refusedField('', 'letter.no-post');
      if (!item.publishedAt) return refusedField('', 'letter.not-published');
      const id = await insertPostLetter(db, { itemId, closedGet, at }, actor.memberId);
      if (!id) return refusedField('', 'letter.mailed-already');
      await record(db, actor, at, 'post mailed', `item:${itemId}`, { closedGet });
      return done(null);
    });
  },
);

/** Whether a post was mailed, or can be, for its editor. `itemId`: null for one that was not saved yet. */
export const postMail = staffUse('publish')(
  'post-mail',
  z.object({ itemId: slug.nullable(), kind: slug }),
  async (_, { itemId, kind }) => {
    const letter = itemId ? await findLetterOf(pool(), itemId) : undefined;
    const { countsOpens } = await currentSite();
    return done({
      /** How many members opened it on the site; null where that is not counted. */
      readers: countsOpens && itemId ? await countItemReaders(pool(), itemId) : null,
      canMail: isMailed(kind) && !letter,
      mailed: letter
        ? {
            id: letter.id,
            written: letter.written,
            mails: await countMailsOf(pool(), letter.id),
            opens: countsOpens ? await countOpens(pool(), letter.id) : null,
          }
        : null,
    });
  },
);
