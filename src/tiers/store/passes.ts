import type { Length } from '@/core/instants';
import { many, maybeOne, run, type Db } from '@/platform/store/db';
import { lengthSchema } from '@/core/offers/offer-schema';

/** `lasts`: how long it is held by who gets it; null: without end. */
export type Pass = {
  id: string;
  name: string;
  hasPassword: boolean;
  byAddress: boolean;
  lasts: Length | null;
  version: number;
};

const COLUMNS = 'id, name, password_hash IS NOT NULL AS has_password, by_address, lasts, version';
const JSON_COLUMNS = { lasts: lengthSchema };

export async function listPasses(db: Db): Promise<Pass[]> {
  return many(db, `SELECT ${COLUMNS} FROM passes ORDER BY lower(name), id`, [], JSON_COLUMNS);
}

export async function findPass(db: Db, id: string): Promise<Pass | undefined> {
  return maybeOne(db, `SELECT ${COLUMNS} FROM passes WHERE id = $1`, [id], JSON_COLUMNS);
}

/** The hash of the password that gives a pass; null where none does. `locked`: it cannot change until the transaction ends. */
export async function findPassPassword(db: Db, id: string, locked?: 'locked'): Promise<string | null> {
  const row = await maybeOne<{ passwordHash: string | null }>(
    db,
    `SELECT password_hash FROM passes WHERE id = $1 ${locked ? 'FOR SHARE' : ''}`,
    [id],
  );
  return row?.passwordHash ?? null;
}

/** Adds a pass, or replaces all but its password if it has not changed since `version`. False if it has. */
export async function savePass(db: Db, pass: Omit<Pass, 'hasPassword'>): Promise<boolean> {
  const { id, name, byAddress, lasts, version } = pass;
  const changed = await run(
    db,
    `INSERT INTO passes (id, name, by_address, lasts) VALUES ($1, $2, $3, $4)
     ON CONFLICT (id) DO UPDATE SET name = $2, by_address = $3, lasts = $4, version = passes.version + 1
     WHERE passes.version = $5`,
    [id, name, byAddress, lasts && JSON.stringify(lasts), version],
  );
  return changed === 1;
}

/** Sets the password that gives a pass; null: none does from now on. */
export async function setPassPassword(db: Db, id: string, hash: string | null): Promise<boolean> {
  return (
    (await run(db, 'UPDATE passes SET password_hash = $2, version = version + 1 WHERE id = $1', [
      id,
      hash,
    ])) === 1
  );
}

export async function deletePass(db: Db, id: string): Promise<boolean> {
  return (await run(db, 'DELETE FROM passes WHERE id = $1', [id])) === 1;
}
