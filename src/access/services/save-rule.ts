import { ruleDraftSchema } from './lib/rule-draft';
import { slugify } from '@/core/content/slug';
import { lock, transaction } from '@/platform/store/db';
import { deleteRule as remove, findRule, listRules, saveRule as store } from '@/access/store/rules';
import { itemsWithSectionsOf } from '@/content/store/items';
import { listGroups } from '@/people/store/groups';
import { siteNow } from '@/platform/clock';
import { record } from '@/platform/record';
import { done, refusedField, type Result } from '@/platform/result';
import { freeId } from '@/platform/free-id';
import { currentSite } from '@/platform/site';
import { slug } from '@/platform/inputs';
import { staffUse } from '@/platform/use';
import { given } from '@/platform/absent';

/** What a new rule has where nothing else was said. What exists keeps what it was. */
const NEW_RULE = { on: true, except: [], openTo: [], alsoRequire: false, doorstep: null, version: 0 };

/** Makes an access rule or changes one. It holds from the next request on. */
export const saveRule = staffUse('set access')(
  'save-rule',
  ruleDraftSchema,
  async (actor, raw): Promise<Result<{ id: string }>> => {
    const at = siteNow(await currentSite());
    return transaction(async (db) => {
      await lock(db, 'rules');
      const before = raw.id ? await findRule(db, raw.id) : undefined;
      const input = { ...NEW_RULE, ...before, ...given(raw) };
      const groups = new Set((await listGroups(db)).map((group) => group.id));
      if (input.openTo.some(({ who }) => who.kind === 'group' && !groups.has(who.id)))
        return refusedField('openTo', 'rule.group-gone');
      const id =
        before?.id ??
        freeId(input.id ?? slugify(input.name), new Set((await listRules(db)).map((rule) => rule.id)));
      const saved = await store(db, { ...input, id });
      if (!saved) return refusedField('', 'rule.changed-elsewhere');
      const { version: _, ...after } = input;
      await record(db, actor, at, before ? 'rule changed' : 'rule made', `rule:${id}`, {
        before: before ?? null,
        after,
      });
      return done({ id });
    });
  },
);

/**
 * Deletes a rule. What it covered follows the next less specific rule, or the site's default; refused while sections of
 * items open to the same people, for they would close.
 */
export const deleteRule = staffUse('set access')(
  'delete-rule',
  slug,
  async (actor, id): Promise<Result<null>> => {
    const at = siteNow(await currentSite());
    return transaction(async (db) => {
      await lock(db, 'items');
      const before = await findRule(db, id);
      const [used] = before ? await itemsWithSectionsOf(db, id) : [];
      if (used) return refusedField('', 'rule.in-sections', { title: used.title });
      if (!before || !(await remove(db, id))) return refusedField('', 'rule.gone');
      await record(db, actor, at, 'rule deleted', `rule:${id}`, { before });
      return done(null);
    });
  },
);
