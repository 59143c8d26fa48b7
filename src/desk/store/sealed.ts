import { many, run, type Transaction } from '@/platform/store/db';

/** Every column that holds something sealed. */
const PLACES = {
  'gateway secret keys': ['gateway_accounts', 'secret_key_sealed'],
  'webhook secrets': ['gateway_accounts', 'webhook_secret_sealed'],
  'unsent emails': ['mails', 'sealed'],
} as const;

export type SealedPlace = keyof typeof PLACES;
export const SEALED_PLACES = Object.keys(PLACES) as SealedPlace[];

/** What is sealed in one place, locked until the transaction ends. */
export async function lockSealed(
  db: Transaction,
  place: SealedPlace,
): Promise<{ id: string; sealed: string }[]> {
  const [table, column] = PLACES[place];
  return many(
    db,
    `SELECT id, ${column} AS sealed FROM ${table} WHERE ${column} IS NOT NULL ORDER BY id FOR UPDATE`,
  );
}

export async function setSealed(
  db: Transaction,
  place: SealedPlace,
  id: string,
  sealed: string,
): Promise<void> {
  const [table, column] = PLACES[place];
  await run(db, `UPDATE ${table} SET ${column} = $2 WHERE id = $1`, [id, sealed]);
}
