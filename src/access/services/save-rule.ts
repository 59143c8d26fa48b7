import { ruleDraftSchema } from './lib/rule-draft';
import { slugify } from '@/core/content/slug';
import { z } from 'zod';
import type { Instant } from '@/core/instants';
import type { Actor } from '@/platform/actor';
import { findAudit } from '@/platform/store/audit';
import { lock, transaction, type Transaction } from '@/platform/store/db';
import { deleteRule as remove, findRule, listRules, saveRule as store } from '@/access/store/rules';
import { findMeter } from '@/access/store/meters';
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
const NEW_RULE = {
  on: true,
  except: [],
  openTo: [],
  alsoRequire: false,
  doorstep: null,
  meter: null,
  listed: true,
  version: 0,
};
/** The Desk has pages of its own at these addresses. */
const NOT_RULES = ['new', 'doorsteps', 'meters', 'check'];

/** Makes an access rule or changes one. It holds from the next request on. */
export const saveRule = staffUse('set access')(
  'save-rule',
  ruleDraftSchema,
  async (actor, raw): Promise<Result<{ id: string }>> => {
    const at = siteNow(await currentSite());
    return transaction(async (db) => {
      await lock(db, 'rules');
      return put(db, actor, at, raw);
    });
  },
);

const restoreSchema = z.object({
  id: slug,
  /** The entry of the audit before which the rule was as it is to be again. */
  entry: z.string().regex(/^\d{1,18}$/),
});

/** Makes a rule as it was before one of its changes, or before it was deleted. That is a change of its own, and can be undone. */
export const restoreRule = staffUse('set access')(
  'restore-rule',
  restoreSchema,
  async (actor, { id, entry }): Promise<Result<{ id: string }>> => {
    const at = siteNow(await currentSite());
    return transaction(async (db) => {
      await lock(db, 'rules');
      const found = await findAudit(db, BigInt(entry), `rule:${id}`);
      const before = ruleDraftSchema.safeParse(found?.detail.before);
      if (!before.success) return refusedField('', 'rule.cannot-restore');
      const version = (await findRule(db, id))?.version;
      // What it did not have then, it is not to have again.
      return put(db, actor, at, { ...NEW_RULE, ...before.data, id, version });
    });
  },
);

/** Saves a rule by the caller's lock, where everything that it names is there. */
async function put(
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
  if (input.meter && !(await findMeter(db, input.meter))) return refusedField('meter', 'meter.gone');
  const id =
    before?.id ??
    freeId(
      input.id ?? slugify(input.name),
      new Set([...NOT_RULES, ...(await listRules(db)).map((rule) => rule.id)]),
    );
  const saved = await store(db, { ...input, id });
  if (!saved) return refusedField('', 'rule.changed-elsewhere');
  const { version: _, ...after } = input;
  await record(db, actor, at, before ? 'rule changed' : 'rule made', `rule:${id}`, {
    before: before ?? null,
    after,
  });
  return done({ id });
}

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
