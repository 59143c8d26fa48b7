import { z } from 'zod';
import { withParents } from '@/core/content/categories';
import { isShut } from '@/core/staff';
import { slugify } from '@/core/content/slug';
import {
  arrangeCategories as arrange,
  listCategories,
  saveCategory as store,
} from '@/content/store/categories';
import { siteNow } from '@/platform/clock';
import { record } from '@/platform/record';
import { done, type Result } from '@/platform/result';
import { currentSite, powersOf } from '@/platform/site';
import { lock, transaction } from '@/platform/store/db';
import { staffUse } from '@/platform/use';
import { refusedField } from '@/platform/result';
import { chosenId, idIfKnown } from '@/platform/form-fields';
import { slug } from '@/platform/inputs';
import { freeId } from '@/platform/free-id';
import { say } from '@/words/problems';

const categorySchema = z.object({
  id: idIfKnown,
  name: z.string().trim().min(1, say('category.missing')).max(60),
  parentId: chosenId,
});

/** Makes a category, or changes its name and its place in the tree. Its address stays. The answer is its id. */
export const saveCategory = staffUse('arrange content')(
  'save-category',
  categorySchema,
  async (actor, { id: asked, name, parentId }): Promise<Result<{ id: string }>> => {
    const at = siteNow(await currentSite());
    const shutFrom = (await powersOf(actor))?.shutFrom ?? [];
    return transaction(async (db) => {
      await lock(db, 'categories');
      const categories = await listCategories(db);
      const known = categories.find((category) => category.id === asked);
      // A category that is shut to them is not theirs to move; nor does anything move into it.
      const touched = [asked, parentId].flatMap((one) => one ?? []);
      if (isShut(shutFrom, { categories: withParents(categories, touched) }))
        return refusedField('', 'category.gone');
      const same = (other: { id: string; name: string }): boolean =>
        other.name.toLowerCase() === name.toLowerCase() && other.id !== known?.id;
      if (categories.some(same)) return refusedField('name', 'category.taken');
      const above = parentId === undefined ? (known?.parentId ?? null) : parentId;
      const parent = categories.find((category) => category.id === above);
      if (above !== null && !parent) return refusedField('parentId', 'category.gone');
      for (let up = parent; up; up = categories.find((category) => category.id === up.parentId))
        if (up.id === known?.id) return refusedField('parentId', 'category.own-parent');
      const id = known?.id ?? freeId(asked ?? slugify(name), new Set(categories.map((one) => one.id)));
      await store(db, { id, name, parentId: above });
      await record(db, actor, at, known ? 'category changed' : 'category made', `category:${id}`, {
        name,
        parentId: above,
      });
      return done({ id });
    });
  },
);

/** Brings categories into an order; each keeps its parent. */
export const arrangeCategories = staffUse('arrange content')(
  'arrange-categories',
  z.array(slug).max(2000),
  async (actor, ids): Promise<Result<null>> => {
    const at = siteNow(await currentSite());
    return transaction(async (db) => {
      await lock(db, 'categories');
      await arrange(db, ids);
      await record(db, actor, at, 'categories arranged', 'categories', { ids });
      return done(null);
    });
  },
);
