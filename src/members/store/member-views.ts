import { many, run, type Db } from '@/platform/store/db';
import type { MemberId } from '@/core/ids';

/** A filter of the members' list with a name. `query`: as it is in the address. */
export type MemberView = { id: string; name: string; query: string };

export async function listViews(db: Db, staffId: MemberId): Promise<MemberView[]> {
  return many(
    db,
    'SELECT id, name, query FROM member_views WHERE staff_id = $1 ORDER BY lower(name), id LIMIT 100',
    [staffId],
  );
}

/** Saves a filter under a name; one that has the name already is replaced. */
export async function saveView(
  db: Db,
  staffId: MemberId,
  { name, query }: Omit<MemberView, 'id'>,
): Promise<void> {
  await run(
    db,
    'INSERT INTO member_views (staff_id, name, query) VALUES ($1, $2, $3) ON CONFLICT (staff_id, name) DO UPDATE SET query = $3',
    [staffId, name, query],
  );
}

/** False: there is none of this id, or it is someone else's. */
export async function deleteView(db: Db, staffId: MemberId, id: string): Promise<boolean> {
  return (await run(db, 'DELETE FROM member_views WHERE staff_id = $1 AND id = $2', [staffId, id])) === 1;
}
