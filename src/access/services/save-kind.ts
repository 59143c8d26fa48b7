import { z } from 'zod';
import { normalisePath } from '@/core/access/paths';
import { BUILT_IN_KINDS, FILE, PAGE } from '@/core/content/item';
import { NO_COMMENTS } from '@/core/content/comments';
import { commentSettingsSchema } from '@/core/content/comments-schema';
import { slugify } from '@/core/content/slug';
import type { Opener } from '@/core/access/rule';
import { isReserved } from '@/content/services/lib/addresses';
import { findItemByPath } from '@/content/store/items';
import { dropTakenRedirects, moveDescendants } from '@/content/store/save-items';
import { listKinds, saveKind as store } from '@/content/store/kinds';
import { listRules, saveRule } from '@/access/store/rules';
import { freeId } from '@/platform/free-id';
import { isConflict } from '@/platform/store/db';
import { siteNow } from '@/platform/clock';
import { record } from '@/platform/record';
import { done, type Result } from '@/platform/result';
import { currentSite } from '@/platform/site';
import { lock, transaction } from '@/platform/store/db';
import { staffUse } from '@/platform/use';
import { refusedField } from '@/platform/result';
import { idIfKnown } from '@/platform/form-fields';

const kindSchema = z.object({
  id: idIfKnown,
  name: z.string().trim().max(40),
  plural: z.string().trim().max(40),
  path: z.string().trim().max(80),
  /** Who can open a new kind's items, where that is not the site's default: all who are signed in or pay, or some tiers. */
  openTo: z
    .object({
      who: z.enum(['default', 'signed-in', 'paying', 'tiers']),
      tiers: z.array(z.string().max(120)).max(50),
    })
    .optional(),
  /** Where it is left out, comments stay as they are. */
  comments: commentSettingsSchema.optional(),
});

/**
 * Makes a kind, with a rule for who opens it, or changes its names and its address; items and their old addresses follow.
 * Pages are a tree, and files are fetched at an address of their own: those two stay where they are.
 */
export const saveKind = staffUse('set access')(
  'save-kind',
  kindSchema,
  async (actor, input): Promise<Result<{ id: string; ruleId: string | null }>> => {
    const at = siteNow(await currentSite());
    try {
      return await transaction(async (db) => {
        await lock(db, 'items');
        await lock(db, 'rules');
        const kinds = await listKinds(db);
        const known = kinds.find(({ id }) => id === input.id);
        const isOwn = !known || !BUILT_IN_KINDS.includes(known.id);
        if (isOwn && (input.name === '' || input.plural === ''))
          return refusedField(input.name === '' ? 'name' : 'plural', 'kind.no-name');
        const isFixed = known?.id === PAGE || known?.id === FILE;
        const path = isFixed ? known.path : normalisePath(`/${slugify(input.path || input.plural)}`);
        if (!isFixed) {
          if (path === null || isReserved(path)) return refusedField('path', 'item.reserved');
          if ((known?.path !== path && (await findItemByPath(db, path))) ?? false)
            return refusedField('path', 'item.taken');
        }
        const id = known?.id ?? freeId(slugify(input.name), new Set(kinds.map((kind) => kind.id)));
        const comments = input.comments ?? known?.comments ?? NO_COMMENTS;
        await store(db, { id, name: input.name, plural: input.plural, path, comments });
        if (known?.path && path && known.path !== path) {
          await moveDescendants(db, known.path, path);
          await dropTakenRedirects(db);
        }
        const openTo = known ? null : openersOf(input.openTo);
        let ruleId: string | null = null;
        if (openTo) {
          ruleId = freeId(id, new Set((await listRules(db)).map((rule) => rule.id)));
          await saveRule(db, {
            id: ruleId,
            name: input.plural,
            on: true,
            covers: [{ kind: 'type', id }],
            openTo,
            doorstep: null,
            version: 0,
          });
          await record(db, actor, at, 'rule made', `rule:${ruleId}`, { kind: id });
        }
        await record(db, actor, at, known ? 'kind changed' : 'kind made', `kind:${id}`, { ...input, path });
        return done({ id, ruleId });
      });
    } catch (error) {
      if (isConflict(error)) return refusedField('path', 'item.taken');
      throw error;
    }
  },
);

function openersOf(asked: z.output<typeof kindSchema>['openTo']): Opener[] | null {
  if (!asked || asked.who === 'default') return null;
  if (asked.who === 'tiers') return asked.tiers.map((id) => ({ who: { kind: 'tier', id } }));
  return [{ who: { kind: asked.who } }];
}
