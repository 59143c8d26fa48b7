import { z } from 'zod';
import { findRule } from '@/access/store/rules';
import { siteNow } from '@/platform/clock';
import { slug } from '@/platform/inputs';
import { refusedField, type Result } from '@/platform/result';
import { currentSite } from '@/platform/site';
import { findAudit } from '@/platform/store/audit';
import { lock, transaction } from '@/platform/store/db';
import { staffUse } from '@/platform/use';
import { NEW_RULE, putRule, removeRule } from './lib/change-rules';
import { ruleDraftSchema } from './lib/rule-draft';

/** Makes an access rule or changes one. It holds from the next request on. */
export const saveRule = staffUse('set access')(
  'save-rule',
  ruleDraftSchema,
  async (actor, raw): Promise<Result<{ id: string }>> => {
    const at = siteNow(await currentSite());
    return transaction(async (db) => {
      await lock(db, 'rules');
      return putRule(db, actor, at, raw);
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
      return putRule(db, actor, at, { ...NEW_RULE, ...before.data, id, version });
    });
  },
);

/** Deletes a rule. What it covered follows the next less specific rule, or the site's default. */
export const deleteRule = staffUse('set access')(
  'delete-rule',
  slug,
  async (actor, id): Promise<Result<null>> => {
    const at = siteNow(await currentSite());
    return transaction(async (db) => {
      await lock(db, 'items');
      await lock(db, 'rules');
      return removeRule(db, actor, at, id);
    });
  },
);
