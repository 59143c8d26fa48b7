import { z } from 'zod';
import { PAGE } from '@/core/content/item';
import { PAGE_ROLES } from '@/core/content/page-roles';
import { findHead } from '@/content/store/items';
import { setPageRole } from '@/content/store/page-roles';
import { siteNow } from '@/platform/clock';
import { nothing } from '@/platform/inputs';
import { record } from '@/platform/record';
import { done, refusedField, type Result } from '@/platform/result';
import { currentSite } from '@/platform/site';
import { lock, transaction } from '@/platform/store/db';
import { staffUse, systemUse } from '@/platform/use';
import { makeLegalPages } from './lib/legal-page';

const roleSchema = z.object({
  role: z.enum(PAGE_ROLES),
  itemId: z.preprocess((typed) => (typed === '' ? null : typed), z.string().max(200).nullable()),
});

/** Chooses the page that serves as something; none, and the product's own does. */
export const savePageRole = staffUse('arrange content')(
  'save-page-role',
  roleSchema,
  async (actor, { role, itemId }): Promise<Result<null>> => {
    const at = siteNow(await currentSite());
    return transaction(async (db) => {
      await lock(db, 'items');
      const item = itemId === null ? null : await findHead(db, itemId);
      if (itemId !== null && (!item || item.trashedAt || item.type !== PAGE))
        return refusedField('itemId', 'item.parent-gone');
      await setPageRole(db, role, itemId);
      await record(db, actor, at, 'page role set', `role:${role}`, { itemId });
      return done(null);
    });
  },
);

/** Makes the pages again that the law asks for, where they are gone. The answer is how many. */
export const repairPages = systemUse('repair-pages', nothing, async (actor) => {
  const site = await currentSite();
  const at = siteNow(site);
  return transaction(async (db) => {
    await lock(db, 'items');
    const made = await makeLegalPages(db, site, at);
    for (const role of made) await record(db, actor, at, 'page made', `role:${role}`);
    return done(made.length);
  });
});
