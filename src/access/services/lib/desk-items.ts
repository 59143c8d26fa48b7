import { VISITOR } from '@/core/access/facts';
import { isShut, mayWrite } from '@/core/staff';
import { withParents } from '@/core/content/categories';
import { listHeads, listItems, type ItemHead } from '@/content/store/items';
import type { Actor } from '@/platform/actor';
import { siteNow } from '@/platform/clock';
import { oncePerRequest } from '@/platform/request';
import { currentSite, powersOf } from '@/platform/site';
import { pool } from '@/platform/store/db';
import { isLetIn, isOut, judge, readerFor } from './reader';
import { personFacts } from './viewpoints';

/**
 * Of items, those that staff may know of in the Desk: what they may write, what they read as staff, and what is out and open to
 * them as to others. Nothing of a category that is shut to them.
 */
export async function knownItems<Head extends ItemHead>(actor: Actor, items: Head[]): Promise<Head[]> {
  const powers = await powersOf(actor);
  if (!powers) return [];
  const { shutFrom } = powers;
  const unshut = shutFrom.length === 0 ? items : items.filter((item) => !isShut(shutFrom, item));
  if (powers.readsAll) return unshut;
  const site = await currentSite();
  const person = actor.memberId ? await personFacts(site, actor.memberId, siteNow(site)) : null;
  const reader = await readerFor(person ?? VISITOR);
  const judged = await judge(reader, unshut);
  return unshut.filter((item) => mayWrite(powers, item) || (isOut(reader, item) && isLetIn(judged(item.id))));
}

/** What items are called, those left out that staff may not know of. */
export const knownTitles = async (actor: Actor, ids: string[]): Promise<{ id: string; name: string }[]> =>
  (await knownItems(actor, await listHeads(pool(), ids))).map(({ id, title }) => ({ id, name: title }));

export const isKnown = async (actor: Actor, item: ItemHead): Promise<boolean> =>
  (await knownItems(actor, [item])).length === 1;

/** The ids of all items that staff may not know of, for lists to leave them out. */
export async function unknownItems(actor: Actor): Promise<string[]> {
  const powers = await powersOf(actor);
  if (powers?.readsAll && powers.shutFrom.length === 0) return [];
  return oncePerRequest(`unknown to ${actor.memberId ?? ''}`, async () => {
    const items = await listItems(pool());
    const known = new Set((await knownItems(actor, items)).map(({ id }) => id));
    return items.flatMap(({ id }) => (known.has(id) ? [] : [id]));
  });
}

/** Categories without those that are shut to the staff member. */
export async function knownCategories<Category extends { id: string; parentId: string | null }>(
  actor: Actor,
  categories: readonly Category[],
): Promise<Category[]> {
  const shutFrom = (await powersOf(actor))?.shutFrom ?? [];
  if (shutFrom.length === 0) return [...categories];
  return categories.filter(({ id }) => !isShut(shutFrom, { categories: withParents(categories, [id]) }));
}
