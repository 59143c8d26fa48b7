import type { z } from 'zod';
import { slugify } from '@/core/content/slug';
import type { Instant } from '@/core/instants';
import { edgesOf } from '@/core/access/rule';
import { listPasses } from '@/tiers/store/passes';
import { findMeter } from '@/access/store/meters';
import { deleteRule as remove, findRule, listRules, saveRule as store } from '@/access/store/rules';
import { itemsWithSectionsOf } from '@/content/store/items';
import { listGroups } from '@/people/store/groups';
import { given } from '@/platform/absent';
import type { Actor } from '@/platform/actor';
import { freeId } from '@/platform/free-id';
import { record } from '@/platform/record';
import { done, refusedField, type Result } from '@/platform/result';
import type { Transaction } from '@/platform/store/db';
import { NOT_RULES } from './paints';
import type { ruleDraftSchema } from './rule-draft';

/** What a new rule has where nothing else was said. What exists keeps what it was. */
export const NEW_RULE = {
  on: true,
  except: [],
  openTo: [],
  alsoRequire: false,
  doorstep: null,
  meter: null,
  listed: true,
  version: 0,
};

/** Saves a rule by the caller's lock on all rules, where everything that it names is there. */
export async function putRule(
  db: Transaction,
  actor: Actor,
  at: Instant,
  raw: z.output<typeof ruleDraftSchema>,
): Promise<Result<{ id: string }>> {
  const before = raw.id ? await findRule(db, raw.id) : undefined;
  const input = { ...NEW_RULE, ...before, ...given(raw) };
  const groups = new Set((await listGroups(db)).map((group) => group.id));
  if (input.openTo.some(({ who }) => who.kind === 'group' && !groups.has(who.id)))
    return refusedField('openTo', 'rule.group-gone');
  const passes = new Set((await listPasses(db)).map((pass) => pass.id));
  const named = [
    ...input.openTo.map(({ who }) => who),
    ...edgesOf(input).flatMap((edge) => ('of' in edge && edge.of ? [edge.of] : [])),
  ];
  if (named.some((one) => one.kind === 'pass' && !passes.has(one.id)))
    return refusedField('openTo', 'rule.pass-gone');
  if (input.meter && !(await findMeter(db, input.meter))) return refusedField('meter', 'meter.gone');
  const taken = new Set([...NOT_RULES, ...(await listRules(db)).map((rule) => rule.id)]);
  const id = before?.id ?? freeId(input.id ?? slugify(input.name), taken);
  const saved = await store(db, { ...input, id });
  if (!saved) return refusedField('', 'rule.changed-elsewhere');
  const { version: _, ...after } = input;
  await record(db, actor, at, before ? 'rule changed' : 'rule made', `rule:${id}`, {
    before: before ?? null,
    after,
  });
  return done({ id });
}

/** Deletes a rule by the caller's lock on all rules and items; refused while sections open to the same people, for they would close. */
export async function removeRule(
  db: Transaction,
  actor: Actor,
  at: Instant,
  id: string,
): Promise<Result<null>> {
  const before = await findRule(db, id);
  const [used] = before ? await itemsWithSectionsOf(db, id) : [];
  if (used) return refusedField('', 'rule.in-sections', { title: used.title });
  if (!before || !(await remove(db, id))) return refusedField('', 'rule.gone');
  await record(db, actor, at, 'rule deleted', `rule:${id}`, { before });
  return done(null);
}
