import type { Doorstep } from '@/core/access/doorstep';
import { doorstepSchema } from '@/core/access/doorstep-schema';
import type { ItemId } from '@/core/ids';
import { many, run, type Db } from '@/platform/store/db';

export type ItemDoorstep = { itemId: ItemId; doorstep: Doorstep; version: number };

/** The doorsteps that items have of their own. */
export async function listItemDoorsteps(db: Db): Promise<ItemDoorstep[]> {
  return many(db, 'SELECT item_id, doorstep, version FROM item_doorsteps ORDER BY item_id', [], {
    doorstep: doorstepSchema,
  });
}

/** Saves an item's own doorstep if it has not changed since `version`; 0 where it had none. False if it has. */
export async function saveItemDoorstep(
  db: Db,
  { itemId, doorstep, version }: ItemDoorstep,
): Promise<boolean> {
  const changed = await run(
    db,
    `INSERT INTO item_doorsteps (item_id, doorstep) VALUES ($1, $2)
     ON CONFLICT (item_id) DO UPDATE SET doorstep = $2, version = item_doorsteps.version + 1
     WHERE item_doorsteps.version = $3`,
    [itemId, doorstep, version],
  );
  return changed === 1;
}

export async function deleteItemDoorstep(db: Db, itemId: string): Promise<boolean> {
  return (await run(db, 'DELETE FROM item_doorsteps WHERE item_id = $1', [itemId])) === 1;
}
