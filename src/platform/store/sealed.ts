import { many, run, type Transaction } from '@/platform/store/db';

/** Something sealed, by the row that it is in. */
export type Sealed = { id: string; sealed: string };

/** One column that holds something sealed: it is read and written for `rotate-keys` alone. */
export type SealedColumn = {
  what: string;
  /** All that is sealed there, locked until the transaction ends. */
  lockAll: (db: Transaction) => Promise<Sealed[]>;
  set: (db: Transaction, id: string, sealed: string) => Promise<void>;
};

/** The room that owns a table names its sealed columns; both names are its own constants, never input. */
export const sealedColumn = (what: string, table: string, column: string): SealedColumn =>
  sealedBy(what, table, 'id', column);

/** The same where rows are known by another column. */
export const sealedBy = (what: string, table: string, key: string, column: string): SealedColumn => ({
  what,
  lockAll: (db) =>
    many(
      db,
      `SELECT ${key} AS id, ${column} AS sealed FROM ${table} WHERE ${column} IS NOT NULL ORDER BY ${key} FOR UPDATE`,
    ),
  set: async (db, id, sealed) => {
    await run(db, `UPDATE ${table} SET ${column} = $2 WHERE ${key} = $1`, [id, sealed]);
  },
});
