import type { PageRole } from '@/core/content/page-roles';
import type { ItemId } from '@/core/ids';
import { many, run, type Db } from '@/platform/store/db';

/** Which pages serve as what; those in the trash serve as nothing. */
export async function listPageRoles(db: Db): Promise<{ role: PageRole; itemId: ItemId }[]> {
  return many(
    db,
    `SELECT r.role, r.item_id FROM page_roles r JOIN items i ON i.id = r.item_id WHERE i.trashed_at IS NULL`,
  );
}

/** From now on a page serves as this; with null, none does. */
export async function setPageRole(db: Db, role: PageRole, itemId: ItemId | null): Promise<void> {
  if (itemId === null) await run(db, 'DELETE FROM page_roles WHERE role = $1', [role]);
  else
    await run(
      db,
      'INSERT INTO page_roles (role, item_id) VALUES ($1, $2) ON CONFLICT (role) DO UPDATE SET item_id = $2',
      [role, itemId],
    );
}
