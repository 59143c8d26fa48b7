import { z } from 'zod';
import { arrangeTags as arrange, listTags, renameTag as rename } from '@/content/store/tags';
import { siteNow } from '@/platform/clock';
import { record } from '@/platform/record';
import { done, type Result } from '@/platform/result';
import { currentSite } from '@/platform/site';
import { lock, transaction } from '@/platform/store/db';
import { staffUse } from '@/platform/use';
import { missing, refusedField } from '@/platform/result';
import { slug } from '@/platform/inputs';
import { say } from '@/words/problems';
import { tagIds } from './lib/tag-ids';

const tagName = z.string().trim().min(1, say('tag.missing')).max(60);

/** Makes a tag. The answer is its id. */
export const addTag = staffUse('arrange content')(
  'add-tag',
  z.object({ name: tagName }),
  async (actor, { name }): Promise<Result<{ id: string }>> => {
    const at = siteNow(await currentSite());
    return transaction(async (db) => {
      await lock(db, 'items');
      const [id = ''] = await tagIds(db, [name]);
      await record(db, actor, at, 'tag made', `tag:${id}`, { name });
      return done({ id });
    });
  },
);

/** Gives a tag another name; its address stays. */
export const renameTag = staffUse('arrange content')(
  'rename-tag',
  z.object({ id: slug, name: tagName }),
  async (actor, { id, name }): Promise<Result<null>> => {
    const at = siteNow(await currentSite());
    return transaction(async (db) => {
      await lock(db, 'items');
      const tags = await listTags(db);
      if (!tags.some((tag) => tag.id === id)) return missing();
      if (tags.some((tag) => tag.id !== id && tag.name.toLowerCase() === name.toLowerCase()))
        return refusedField('name', 'tag.taken');
      await rename(db, { id, name });
      await record(db, actor, at, 'tag renamed', `tag:${id}`, { name });
      return done(null);
    });
  },
);

/** Brings tags into an order. */
export const arrangeTags = staffUse('arrange content')(
  'arrange-tags',
  z.array(slug).max(5000),
  async (actor, ids): Promise<Result<null>> => {
    const at = siteNow(await currentSite());
    return transaction(async (db) => {
      await arrange(db, ids);
      await record(db, actor, at, 'tags arranged', 'tags', { ids });
      return done(null);
    });
  },
);
