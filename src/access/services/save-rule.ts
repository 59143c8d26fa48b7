import { z } from 'zod';
import { coverSchema, openerSchema } from '@/core/access/rule-schema';
import { slugify } from '@/core/content/slug';
import { lock, transaction } from '@/platform/store/db';
import { deleteRule as remove, findRule, listRules, saveRule as store } from '@/access/store/rules';
import { itemsWithSectionsOf } from '@/content/store/items';
import { siteNow } from '@/platform/clock';
import { record } from '@/platform/record';
import { done, refusedField, type Result } from '@/platform/result';
import { freeId } from '@/platform/free-id';
import { currentSite } from '@/platform/site';
import { slug } from '@/platform/inputs';
import { staffUse } from '@/platform/use';
import { given } from '@/platform/absent';
import { say } from '@/words/problems';

const doorstepSchema = z.object({
  teaser: z.discriminatedUnion('kind', [
    z.object({ kind: z.literal('none') }),
    z.object({ kind: z.literal('summary') }),
    z.object({ kind: z.literal('marker') }),
    z.object({
      kind: z.literal('words'),
      count: z
        .number(say('teaser.no-number'))
        .int(say('teaser.whole-words'))
        .min(1, say('teaser.at-least-a-word'))
        .max(2000, say('teaser.too-many-words')),
    }),
  ]),
  visitorNotice: z.string().trim().max(300),
  memberNotice: z.string().trim().max(300),
  showSignIn: z.boolean(),
});

const ruleInputSchema = z.object({
  id: z.string().optional(),
  name: z.string().trim().min(1, say('rule.no-name')).max(80),
  on: z.boolean().optional(),
  covers: z.array(coverSchema).min(1, say('rule.covers-nothing')).max(200),
  except: z.array(coverSchema).max(200).optional(),
  openTo: z.array(openerSchema).max(50).optional(),
  alsoRequire: z.boolean().optional(),
  doorstep: doorstepSchema.nullable().optional(),
  /** The version that was opened, where an existing rule is changed. */
  version: z.number().int().optional(),
});

/** What a new rule has where nothing else was said. What exists keeps what it was. */
const NEW_RULE = { on: true, except: [], openTo: [], alsoRequire: false, doorstep: null, version: 0 };

/** Makes an access rule or changes one. It holds from the next request on. */
export const saveRule = staffUse('set access')(
  'save-rule',
  ruleInputSchema,
  async (actor, raw): Promise<Result<{ id: string }>> => {
    const at = siteNow(await currentSite());
    return transaction(async (db) => {
      await lock(db, 'rules');
      const before = raw.id ? await findRule(db, raw.id) : undefined;
      const input = { ...NEW_RULE, ...before, ...given(raw) };
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
