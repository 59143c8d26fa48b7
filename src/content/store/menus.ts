import type { Audience, EntryKind, Look } from '@/core/content/menu';
import { many, one, run, type Db } from '@/platform/store/db';

/** An entry of the site's menu. `target`: the id of what it leads to, or an address outside; `label`: '' for its own name. */
export type MenuEntry = {
  id: string;
  parentId: string | null;
  kind: EntryKind;
  target: string;
  label: string;
  audience: Audience;
  look: Look;
};

/** In their order. */
export async function listMenuEntries(db: Db): Promise<MenuEntry[]> {
  return many(
    db,
    'SELECT id, parent_id, kind, target, label, audience, look FROM menu_entries ORDER BY position, created_at, id',
  );
}

/** @returns the id of the new entry, the last one of the menu */
export async function addMenuEntry(db: Db, entry: Omit<MenuEntry, 'id'>): Promise<string> {
  const { id } = await one<{ id: string }>(
    db,
    `INSERT INTO menu_entries (parent_id, kind, target, label, audience, look, position)
     VALUES ($1, $2, $3, $4, $5, $6, (SELECT coalesce(max(position), 0) + 1 FROM menu_entries)) RETURNING id`,
    [entry.parentId, entry.kind, entry.target, entry.label, entry.audience, entry.look],
  );
  return id;
}

/** @returns whether there is such an entry */
export async function changeMenuEntry(db: Db, entry: Omit<MenuEntry, 'parentId'>): Promise<boolean> {
  const changed = await run(
    db,
    'UPDATE menu_entries SET kind = $2, target = $3, label = $4, audience = $5, look = $6 WHERE id = $1',
    [entry.id, entry.kind, entry.target, entry.label, entry.audience, entry.look],
  );
  return changed === 1;
}

export async function deleteMenuEntry(db: Db, id: string): Promise<boolean> {
  return (await run(db, 'DELETE FROM menu_entries WHERE id = $1', [id])) === 1;
}

/** Brings entries into this order, below these parents. */
export async function arrangeMenuEntries(
  db: Db,
  places: { id: string; parentId: string | null }[],
): Promise<void> {
  await run(
    db,
    `UPDATE menu_entries SET parent_id = p.parent_id, position = p.position
     FROM unnest($1::uuid[], $2::uuid[]) WITH ORDINALITY AS p (id, parent_id, position) WHERE menu_entries.id = p.id`,
    [places.map(({ id }) => id), places.map(({ parentId }) => parentId)],
  );
}
