import { z } from 'zod';
import { coverSchema, openerSchema } from '@/core/access/rule';
import { slugify } from '@/core/content/slug';
import { transaction } from '@/store/db';
import { deleteRule as remove, findRule, listRules, saveRule as store } from '@/store/rules';
import { requireRight, type Actor } from './actor';
import { siteNow } from './clock';
import { record } from './record';
import { done, problemsOf, refused, refusedField, type Result } from './result';
import { freeId } from './save-tier';
import { currentSite } from './site';

export const doorstepSchema = z.object({
  teaser: z.discriminatedUnion('kind', [
    z.object({ kind: z.literal('none') }),
    z.object({ kind: z.literal('summary') }),
    z.object({
      kind: z.literal('words'),
      count: z
        .number('Type how many words.')
        .int('Whole words only.')
        .min(1, 'At least one word.')
        .max(2000, 'At most 2,000 words.'),
    }),
  ]),
  visitorNotice: z.string().trim().max(300, 'A notice has at most 300 characters.'),
  memberNotice: z.string().trim().max(300, 'A notice has at most 300 characters.'),
  showSignIn: z.boolean(),
});

export const ruleInputSchema = z.object({
  id: z.string().optional(),
  name: z.string().trim().min(1, 'Name the rule.').max(80, 'A name has at most 80 characters.'),
  on: z.boolean().default(true),
  covers: z.array(coverSchema).min(1, 'Say what the rule covers.').max(200),
  except: z.array(coverSchema).max(200).default([]),
  openTo: z.array(openerSchema).max(50).default([]),
  alsoRequire: z.boolean().default(false),
  doorstep: doorstepSchema.nullable().default(null),
  version: z.number().int().default(0),
});

/** Makes an access rule or changes one. It holds from the next request on. */
export async function saveRule(actor: Actor, raw: unknown): Promise<Result<{ id: string }>> {
  requireRight(actor, 'set access');
  const parsed = ruleInputSchema.safeParse(raw);
  if (!parsed.success) return refused(problemsOf(parsed.error));
  const input = parsed.data;
  const at = siteNow(await currentSite());
  return transaction(async (db) => {
    const before = input.id ? await findRule(db, input.id) : undefined;
    const id =
      before?.id ??
      freeId(input.id ?? slugify(input.name), new Set((await listRules(db)).map((rule) => rule.id)));
    const saved = await store(db, { ...input, id });
    if (!saved)
      return refusedField(
        '',
        'Somebody else changed this rule in the meantime. Load the page again to see it.',
      );
    const { version: _, ...after } = input;
    await record(db, actor, at, before ? 'rule changed' : 'rule made', `rule:${id}`, {
      before: before ?? null,
      after,
    });
    return done({ id });
  });
}

/** Takes a rule away. What it covered follows the next less specific rule, or the site's default. */
export async function deleteRule(actor: Actor, id: string): Promise<Result<null>> {
  requireRight(actor, 'set access');
  const at = siteNow(await currentSite());
  return transaction(async (db) => {
    const before = await findRule(db, id);
    if (!before || !(await remove(db, id))) return refusedField('', 'This rule is gone already.');
    await record(db, actor, at, 'rule deleted', `rule:${id}`, { before });
    return done(null);
  });
}
