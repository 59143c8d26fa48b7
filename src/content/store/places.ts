import type { Instant } from '@/core/instants';
import { many, type Db } from '@/platform/store/db';

/** A place of a page among its published siblings, the first is 1. `until`: null for the one that it has now. */
export type StoredPlace = { id: string; parent: string; place: number; until: Instant | null };

/** The places that pages below some parents have and had. */
export async function listPlaces(db: Db, parents: string[]): Promise<StoredPlace[]> {
  return many(
    db,
    `SELECT item_id AS id, parent_id AS parent, place, until_at AS until FROM page_places
     WHERE parent_id = ANY ($1) ORDER BY item_id, until_at NULLS FIRST`,
    [parents],
  );
}
