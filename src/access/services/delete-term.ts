import { z } from 'zod';
import { withParents } from '@/core/content/categories';
import { isShut } from '@/core/staff';
import { BUILT_IN_KINDS } from '@/core/content/item';
import { countByKind, deleteKind, listKinds } from '@/content/store/kinds';
import { listCategories, removeCategory } from '@/content/store/categories';
import { listTags, removeTag } from '@/content/store/tags';
import { listRules } from '@/access/store/rules';
import { replaceCategoryInRoles } from '@/platform/store/staff-roles';
import { siteNow } from '@/platform/clock';
import { record } from '@/platform/record';
import { done, type Result } from '@/platform/result';
import { currentSite, powersOf } from '@/platform/site';
import { lock, transaction } from '@/platform/store/db';
import { staffUse } from '@/platform/use';
import { missing, refusedField } from '@/platform/result';
import { slug } from '@/platform/inputs';
import { chosenId } from '@/platform/form-fields';
import type { Transaction } from '@/platform/store/db';

const termSchema = z.object({
  of: z.enum(['category', 'tag']),
  id: slug,
  /** Another of the same, which everything in it gets instead. */
  into: chosenId,
});

/** The first rule that names it: what it covers, or leaves out, would change without a word. */
async function ruleOf(
  db: Transaction,
  kind: 'category' | 'tag' | 'type',
  id: string,
): Promise<string | undefined> {
  const rules = await listRules(db);
  return rules.find(({ covers, except = [] }) =>
    [...covers, ...except].some((cover) => cover.kind === kind && cover.id === id),
  )?.name;
}

/** Deletes a category or a tag, or merges it into another. Refused while a rule names it, for items would open or close. */
export const deleteTerm = staffUse('arrange content')(
  'delete-term',
  termSchema,
  async (actor, { of, id, into = null }): Promise<Result<null>> => {
    const at = siteNow(await currentSite());
    const shutFrom = (await powersOf(actor))?.shutFrom ?? [];
    return transaction(async (db) => {
      for (const what of ['items', 'categories', 'rules']) await lock(db, what);
      const known = of === 'category' ? await listCategories(db) : await listTags(db);
      const above = of === 'category' ? withParents(await listCategories(db), [id]) : [];
      const isHidden = isShut(shutFrom, { categories: above });
      if (!known.some((one) => one.id === id) || isHidden) return missing();
      if (into !== null && (into === id || !known.some((one) => one.id === into)))
        return refusedField('into', 'term.no-other');
      const rule = await ruleOf(db, of, id);
      if (rule) return refusedField('', 'term.in-rule', { rule });
      if (of === 'category') await replaceCategoryInRoles(db, id, into);
      await (of === 'category' ? removeCategory(db, id, into) : removeTag(db, id, into));
      await record(db, actor, at, `${of} deleted`, `${of}:${id}`, { into });
      return done(null);
    });
  },
);

/** Deletes a kind of the owner's that has no items left. */
export const removeKind = staffUse('set access')(
  'remove-kind',
  slug,
  async (actor, id): Promise<Result<null>> => {
    const at = siteNow(await currentSite());
    return transaction(async (db) => {
      for (const what of ['items', 'rules']) await lock(db, what);
      const isThere = (await listKinds(db)).some((one) => one.id === id);
      if (!isThere || BUILT_IN_KINDS.includes(id)) return missing();
      const { items, trashed } = (await countByKind(db)).get(id) ?? { items: 0, trashed: 0 };
      if (items + trashed > 0) return refusedField('', 'kind.has-items', { items, trashed });
      const rule = await ruleOf(db, 'type', id);
      if (rule) return refusedField('', 'term.in-rule', { rule });
      await deleteKind(db, id);
      await record(db, actor, at, 'kind deleted', `kind:${id}`);
      return done(null);
    });
  },
);
