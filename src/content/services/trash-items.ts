import { z } from 'zod';
import { WRITES } from '@/core/staff';
import { freePath, itemPath } from '@/core/content/item';
import { listKinds } from '@/content/store/kinds';
import { findHead, listItems, listTrashed, type ItemHead } from '@/content/store/items';
import { deleteTrashed, restoreItem as restore, trashItems as trash } from '@/content/store/save-items';
import { siteNow } from '@/platform/clock';
import { record } from '@/platform/record';
import { done, type Result } from '@/platform/result';
import { currentSite, powersOf } from '@/platform/site';
import { lock, transaction } from '@/platform/store/db';
import { staffUse } from '@/platform/use';
import { slug } from '@/platform/inputs';
import { missing } from '@/platform/result';
import { requirePublishing, requireWriting } from './lib/may-write';

const idsSchema = z.array(slug).min(1).max(1000);

/** Moves items to the trash, and with a page all pages below it. The answer is how many. */
export const trashItems = staffUse(...WRITES)(
  'trash-items',
  idsSchema,
  async (actor, ids): Promise<Result<{ count: number }>> => {
    const at = siteNow(await currentSite());
    const powers = await powersOf(actor);
    return transaction(async (db) => {
      await lock(db, 'items');
      const chosen = new Set(ids);
      const below = (await listItems(db)).filter(
        ({ id, ancestors }) => chosen.has(id) || ancestors.some((above) => chosen.has(above)),
      );
      requireWriting(powers, ...below);
      requirePublishing(
        powers,
        below.some(({ publishedAt }) => publishedAt !== null),
      );
      const count = await trash(
        db,
        below.map(({ id }) => id),
        at,
      );
      for (const { id, path } of below) await record(db, actor, at, 'item trashed', `item:${id}`, { path });
      return done({ count });
    });
  },
);

/**
 * Brings an item back from the trash, unpublished, with what went there together with it. Where its address is taken by
 * now it gets a number; where its parent is gone, it is at the top.
 */
export const restoreItem = staffUse(...WRITES)(
  'restore-item',
  slug,
  async (actor, id): Promise<Result<{ path: string }>> => {
    const at = siteNow(await currentSite());
    const powers = await powersOf(actor);
    return transaction(async (db) => {
      await lock(db, 'items');
      const item = await findHead(db, id);
      if (!item?.trashedAt) return missing();
      requireWriting(powers, item);
      const trashed = await listTrashed(db);
      const along = trashed.filter(
        (other) => other.ancestors.includes(id) && other.trashedAt === item.trashedAt,
      );
      const kinds = await listKinds(db);
      const living = new Map((await listItems(db)).map((one) => [one.id, one.path]));
      const taken = new Set(living.values());
      const bringBack = async (one: ItemHead): Promise<string> => {
        const parentId = one.parentId !== null && living.has(one.parentId) ? one.parentId : null;
        const above =
          kinds.find((kind) => kind.id === one.type)?.path ??
          (parentId === null ? '' : (living.get(parentId) ?? ''));
        const own = one.path === '/' ? '/' : itemPath(one.type, above, one.path.split('/').at(-1) ?? '');
        const path = freePath(own === '/' && taken.has('/') ? '/front' : (own ?? one.path), (p) =>
          taken.has(p),
        );
        await restore(db, one.id, path, parentId);
        living.set(one.id, path);
        taken.add(path);
        await record(db, actor, at, 'item restored', `item:${one.id}`, { path });
        return path;
      };
      const path = await bringBack(item);
      for (const one of along.sort((a, b) => a.ancestors.length - b.ancestors.length)) await bringBack(one);
      return done({ path });
    });
  },
);

/** Deletes items of the trash for good. The answer is how many. */
export const deleteItems = staffUse(...WRITES)(
  'delete-items',
  idsSchema,
  async (actor, ids): Promise<Result<{ count: number }>> => {
    const at = siteNow(await currentSite());
    const powers = await powersOf(actor);
    return transaction(async (db) => {
      await lock(db, 'items');
      const chosen = new Set(ids);
      requireWriting(powers, ...(await listTrashed(db)).filter(({ id }) => chosen.has(id)));
      const count = await deleteTrashed(db, { ids });
      await record(db, actor, at, 'items deleted', 'items', { ids, count });
      return done({ count });
    });
  },
);
