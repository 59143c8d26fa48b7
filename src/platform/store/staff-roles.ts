import type { Powers, SetRole } from '@/core/staff';
import { run, type Db } from './db';

/** Sets what the staff of a role may do and read. Categories are ids. */
export async function saveRole(db: Db, role: SetRole, powers: Omit<Powers, 'role'>): Promise<void> {
  await run(
    db,
    `INSERT INTO staff_roles (role, rights, reads_all, writes_in, shut_from) VALUES ($1, $2, $3, $4, $5)
     ON CONFLICT (role) DO UPDATE SET rights = $2, reads_all = $3, writes_in = $4, shut_from = $5`,
    [role, powers.rights, powers.readsAll, powers.writesIn, powers.shutFrom],
  );
}

/** Puts another category, or none, in the place of one that is gone, in what roles may write and what is shut to them. */
export async function replaceCategoryInRoles(db: Db, id: string, into: string | null): Promise<void> {
  const changed = (column: string): string =>
    into === null
      ? `array_remove(${column}, $1)`
      : `(SELECT array_agg(DISTINCT one) FROM unnest(array_replace(${column}, $1, $2)) AS one)`;
  for (const column of ['writes_in', 'shut_from'])
    await run(
      db,
      `UPDATE staff_roles SET ${column} = coalesce(${changed(column)}, '{}') WHERE $1 = ANY(${column})`,
      into === null ? [id] : [id, into],
    );
}
