import { z } from 'zod';
import { isSafeHref } from '@/core/addresses';
import { AUDIENCES, ENTRY_KINDS, LOOKS, looksOf } from '@/core/content/menu';
import {
  addMenuEntry,
  arrangeMenuEntries,
  changeMenuEntry,
  deleteMenuEntry,
  listMenuEntries,
} from '@/content/store/menus';
import { siteNow } from '@/platform/clock';
import { orNothing } from '@/platform/form-fields';
import { uuid } from '@/platform/inputs';
import { record } from '@/platform/record';
import { done, missing, refusedField, type Result } from '@/platform/result';
import { currentSite } from '@/platform/site';
import { lock, transaction } from '@/platform/store/db';
import { staffUse } from '@/platform/use';

/** Kinds of entries that lead to one of several things. */
const NEED_TARGET = new Set(['item', 'kind', 'category', 'tag', 'offer']);
const MOST_ENTRIES = 100;

const entrySchema = z.object({
  id: z.preprocess(orNothing, uuid.optional()),
  kind: z.enum(ENTRY_KINDS),
  target: z.string().trim().max(2000).default(''),
  label: z.string().trim().max(60).default(''),
  audience: z.enum(AUDIENCES).default('everyone'),
  look: z.enum(LOOKS).default('link'),
});

/** Adds an entry to the end of the menu, or changes one where it is. The answer is its id. */
export const saveMenuEntry = staffUse('arrange content')(
  'save-menu-entry',
  entrySchema,
  async (actor, { id: known, ...asked }): Promise<Result<{ id: string }>> => {
    // Of a kind that was changed, the look may no longer be one.
    const entry = { ...asked, look: looksOf(asked.kind).includes(asked.look) ? asked.look : 'link' } as const;
    if (NEED_TARGET.has(entry.kind) && entry.target === '') return refusedField('target', 'menu.no-target');
    if (entry.kind === 'outside' && !isSafeHref(entry.target)) return refusedField('target', 'link.unsafe');
    if ((entry.kind === 'outside' || entry.kind === 'heading') && entry.label === '')
      return refusedField('label', 'menu.no-label');
    const at = siteNow(await currentSite());
    return transaction(async (db) => {
      await lock(db, 'menu');
      if (known && !(await changeMenuEntry(db, { ...entry, id: known }))) return missing();
      if (!known && (await listMenuEntries(db)).length >= MOST_ENTRIES) return refusedField('', 'menu.full');
      const id = known ?? (await addMenuEntry(db, { ...entry, parentId: null }));
      await record(db, actor, at, known ? 'menu entry changed' : 'menu entry added', `menu:${id}`, entry);
      return done({ id });
    });
  },
);

/** Takes an entry off the menu, with those below it. */
export const removeMenuEntry = staffUse('arrange content')(
  'remove-menu-entry',
  uuid,
  async (actor, id): Promise<Result<null>> => {
    const at = siteNow(await currentSite());
    return transaction(async (db) => {
      await lock(db, 'menu');
      if (!(await deleteMenuEntry(db, id))) return missing();
      await record(db, actor, at, 'menu entry removed', `menu:${id}`);
      return done(null);
    });
  },
);

/** Brings the menu into an order. Entries are nested once, so that no reader loses the way. */
export const arrangeMenu = staffUse('arrange content')(
  'arrange-menu',
  z.array(z.object({ id: uuid, parentId: uuid.nullable() })).max(MOST_ENTRIES),
  async (actor, places): Promise<Result<null>> => {
    const at = siteNow(await currentSite());
    return transaction(async (db) => {
      await lock(db, 'menu');
      const known = new Set((await listMenuEntries(db)).map(({ id }) => id));
      const top = new Set(places.filter(({ parentId }) => parentId === null).map(({ id }) => id));
      const fits = places.every(
        ({ id, parentId }) => known.has(id) && (parentId === null || top.has(parentId)),
      );
      if (!fits || places.length !== known.size) return refusedField('', 'menu.changed-elsewhere');
      await arrangeMenuEntries(db, places);
      await record(db, actor, at, 'menu arranged', 'menu', { places });
      return done(null);
    });
  },
);
