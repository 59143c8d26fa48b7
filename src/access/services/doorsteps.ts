import { z } from 'zod';
import { deleteItemDoorstep, listItemDoorsteps, saveItemDoorstep } from '@/access/store/doorsteps';
import { findHead } from '@/content/store/items';
import { listRules } from '@/access/store/rules';
import { siteNow } from '@/platform/clock';
import { nothing, slug } from '@/platform/inputs';
import { record } from '@/platform/record';
import { done, missing, refusedField, type Result } from '@/platform/result';
import { currentSite } from '@/platform/site';
import { lock, pool, transaction } from '@/platform/store/db';
import { setDoorstep } from '@/platform/store/site';
import { staffUse } from '@/platform/use';
import { isKnown, knownTitles } from './lib/desk-items';
import { doorstepDraftSchema } from './lib/doorstep-draft';

/** The site's doorstep, and all that are met in its place: those of rules, and those of items alone. */
export const doorstepsPlace = staffUse('look')('doorsteps-place', nothing, async (actor) => {
  const own = await listItemDoorsteps(pool());
  const titles = new Map(
    (
      await knownTitles(
        actor,
        own.map(({ itemId }) => itemId),
      )
    ).map(({ id, name }) => [id, name]),
  );
  return done({
    doorstep: (await currentSite()).doorstep,
    rules: (await listRules(pool())).filter(({ doorstep }) => doorstep).map(({ id, name }) => ({ id, name })),
    items: own.flatMap(({ itemId }) => {
      const title = titles.get(itemId);
      return title === undefined ? [] : [{ id: itemId, title }];
    }),
  });
});

/** The doorstep of an item alone, with the one that is met where it has none. */
export const itemDoorstep = staffUse('set access')('item-doorstep', slug, async (actor, id) => {
  const item = await findHead(pool(), id);
  if (!item || !(await isKnown(actor, item))) return missing();
  const own = (await listItemDoorsteps(pool())).find(({ itemId }) => itemId === id);
  return done({
    item: { id, title: item.title, summary: item.summary },
    doorstep: own?.doorstep ?? null,
    version: own?.version ?? 0,
    siteDoorstep: (await currentSite()).doorstep,
  });
});

/** Saves what people see where they may not read, and no rule or item says otherwise. */
export const saveSiteDoorstep = staffUse('set access')(
  'save-site-doorstep',
  doorstepDraftSchema,
  async (actor, doorstep): Promise<Result<null>> => {
    const site = await currentSite();
    return transaction(async (db) => {
      await setDoorstep(db, doorstep);
      await record(db, actor, siteNow(site), 'doorstep changed', 'site', {
        before: site.doorstep,
        after: doorstep,
      });
      return done(null);
    });
  },
);

const itemSchema = z.object({
  itemId: slug,
  /** Null: the item is to have none of its own. */
  doorstep: doorstepDraftSchema.nullable(),
  version: z.number().int().default(0),
});

/** Gives an item a doorstep of its own, or takes it away. */
export const saveDoorstepOfItem = staffUse('set access')(
  'save-doorstep-of-item',
  itemSchema,
  async (actor, { itemId, doorstep, version }): Promise<Result<null>> => {
    const at = siteNow(await currentSite());
    return transaction(async (db) => {
      await lock(db, 'items');
      const item = await findHead(db, itemId);
      if (!item) return missing();
      const before = (await listItemDoorsteps(db)).find((one) => one.itemId === itemId);
      if ((before?.version ?? 0) !== version) return refusedField('', 'doorstep.changed-elsewhere');
      if (doorstep === null) await deleteItemDoorstep(db, itemId);
      else await saveItemDoorstep(db, { itemId: item.id, doorstep, version });
      await record(db, actor, at, 'doorstep changed', `item:${itemId}`, {
        before: before?.doorstep ?? null,
        after: doorstep,
      });
      return done(null);
    });
  },
);
