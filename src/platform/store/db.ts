import { AsyncLocalStorage } from 'node:async_hooks';
import { createHash } from 'node:crypto';
import pg from 'pg';
import { config } from '@/platform/config';
import { forgetRead } from '@/platform/request';
import { GatheringSocket } from './gathering-socket';

const { builtins } = pg.types;
const types = new pg.TypeOverrides();
// Money is int8: a bigint here, so that no amount passes through a float on its way.
types.setTypeParser(builtins.INT8, (text: string) => BigInt(text));
// Instants are ISO text in UTC throughout; the session's time zone is UTC, so "+00" is all there can be.
types.setTypeParser(builtins.TIMESTAMPTZ, (text: string) => text.replace(' ', 'T').replace('+00', 'Z'));

// A date is the site's local date, as text: turned into a moment it would get a zone that nobody chose.
types.setTypeParser(builtins.DATE, (text: string) => text);

/** A connection inside a transaction. */
export type Transaction = pg.PoolClient;
export type Db = pg.Pool | Transaction;

const shared = globalThis as { nestKeyPool?: pg.Pool; nestKeyPlainPool?: pg.Pool };

/** The process's pool. Kept on globalThis because the bundler may load this module more than once. */
export function pool(): pg.Pool {
  forbidInTransaction();
  shared.nestKeyPool ??= openPool(config().DATABASE_URL);
  return shared.nestKeyPool;
}

export function openPool(connectionString: string): pg.Pool {
  const opened = new pg.Pool({
    connectionString,
    types,
    max: 10,
    // Statements that do not wait for one another's answers are sent together, and done in their order.
    pipeline: true,
    stream: () => new GatheringSocket(),
    // Nothing here takes long: what does is stuck, and must not keep others waiting.
    options: '-c timezone=UTC -c statement_timeout=30s -c idle_in_transaction_session_timeout=60s',
    connectionTimeoutMillis: 10_000,
  });
  // An idle connection that the server closed is replaced at the next query; without a listener it would end the process.
  opened.on('error', () => {});
  return opened;
}

const camelNames = new Map<string, string>();
/** Column names are few and come with every row, so each is turned over once. */
function camel(name: string): string {
  let known = camelNames.get(name);
  if (known === undefined)
    camelNames.set(name, (known = name.replace(/_([a-z])/g, (_, letter: string) => letter.toUpperCase())));
  return known;
}

/** A pool that answers as the driver does by itself, for libraries that bring their own SQL. */
export function plainPool(): pg.Pool {
  forbidInTransaction();
  shared.nestKeyPlainPool ??= new pg.Pool({ connectionString: config().DATABASE_URL, max: 3 }).on(
    'error',
    () => {},
  );
  return shared.nestKeyPlainPool;
}

/** Closes every pool of this process. */
export async function closePools(): Promise<void> {
  await Promise.all([shared.nestKeyPool?.end(), shared.nestKeyPlainPool?.end()]);
  delete shared.nestKeyPool;
  delete shared.nestKeyPlainPool;
}

/**
 * A statement that each connection parses and plans once: for what runs with every renewal. It names the columns that
 * it answers with, so that a column that is added does not make the plan a wrong one.
 */
export type Prepared = { name: string; text: string };
export const prepared = (name: string, text: string): Prepared => ({ name, text });

const forms = new Map<string, Prepared>();
/** The same for a statement that is put together, and has but a few forms. */
export function preparedForm(text: string): Prepared {
  let known = forms.get(text);
  if (!known) {
    known = prepared(createHash('sha256').update(text).digest('base64url'), text);
    forms.set(text, known);
  }
  return known;
}

/**
 * How many rows there are in all, where so many of them were found after an offset; counted only where there may be more.
 */
export const totalOf = async (
  found: number,
  { offset, limit }: { offset: number; limit: number },
  count: () => Promise<bigint>,
): Promise<number> => (found < limit && (found > 0 || offset === 0) ? offset + found : Number(await count()));
type Sql = string | Prepared;
const queryOf = (sql: Sql, values: unknown[]) =>
  typeof sql === 'string' ? { text: sql, values } : { ...sql, values };

const JSON_TYPES = new Set<number>([builtins.JSON, builtins.JSONB]);
/** What reads each JSON column of a row, by its name in camel case: its schema. NULL stays null. */
type JsonOf<T> = { [Column in keyof T]?: { parse(value: unknown): NonNullable<T[Column]> } };
/** For JSON that a statement itself builds of columns: its form is the statement's own. */
export const built = { parse: (value: unknown): never => value as never };

/** All rows, with column names in camel case. @throws where a JSON column comes without its schema, or does not fit it */
export async function many<T>(
  db: Db,
  sql: Sql,
  values: unknown[] = [],
  json: JsonOf<NoInfer<T>> = {},
): Promise<T[]> {
  const { rows, fields } = await db.query<Record<string, unknown>>(queryOf(sql, values));
  const readers = new Map<string, { parse(value: unknown): unknown }>();
  for (const { name, dataTypeID } of fields) {
    if (!JSON_TYPES.has(dataTypeID)) continue;
    const schema = json[camel(name) as keyof T];
    if (!schema) throw new Error(`JSON is read without its schema: ${name}`);
    readers.set(name, schema);
  }
  return rows.map((row) => {
    const turned: Record<string, unknown> = {};
    for (const name in row) {
      const value = row[name];
      turned[camel(name)] = value === null ? null : (readers.get(name)?.parse(value) ?? value);
    }
    return turned as T;
  });
}

export async function maybeOne<T>(
  db: Db,
  sql: Sql,
  values: unknown[] = [],
  json: JsonOf<NoInfer<T>> = {},
): Promise<T | undefined> {
  return (await many<T>(db, sql, values, json))[0];
}

/** The one row that must be there. */
export async function one<T>(
  db: Db,
  sql: Sql,
  values: unknown[] = [],
  json: JsonOf<NoInfer<T>> = {},
): Promise<T> {
  const row = await maybeOne<T>(db, sql, values, json);
  if (row === undefined)
    throw new Error(`no row where one was expected: ${queryOf(sql, values).text.slice(0, 80)}`);
  return row;
}

/** The number of rows that a statement changed. */
export async function run(db: Db, sql: Sql, values: unknown[] = []): Promise<number> {
  const { rowCount } = await db.query(queryOf(sql, values));
  if (db instanceof pg.Pool) forgetRead();
  return rowCount ?? 0;
}

const inTransaction = new AsyncLocalStorage<true>();

/**
 * Code that holds a connection must not wait for a second: once the pool is exhausted, all wait for one
 * another. In tests it is an error; inside a transaction, pass its `db` on.
 */
function forbidInTransaction(): void {
  if (process.env.NODE_ENV === 'test' && inTransaction.getStore())
    throw new Error('The pool was asked inside a transaction: pass the transaction on instead.');
}

/** Serialisation failure and deadlock: the same work, begun anew, may well succeed. PostgreSQL, appendix A. */
const WORTH_RETRYING = new Set(['40001', '40P01']);
const MOST_TRIES = 5;

/**
 * Runs `work` in one transaction: all of it commits or, where it throws, none. Where the database gave it up because of
 * another transaction, it is run again, a few times; so `work` does nothing that the database cannot undo.
 */
export async function transaction<T>(work: (db: Transaction) => Promise<T>): Promise<T> {
  for (let attempt = 1; ; attempt++) {
    try {
      return await attemptTransaction(work);
    } catch (error) {
      const isWorthIt = error instanceof pg.DatabaseError && WORTH_RETRYING.has(error.code ?? '');
      if (!isWorthIt || attempt === MOST_TRIES) throw error;
      await new Promise((resolve) => setTimeout(resolve, Math.random() * 20 * 2 ** attempt));
    }
  }
}

/** Thrown to undo a transaction whose work was refused; what was refused is the answer. */
class Undone<T> extends Error {
  constructor(readonly answer: T) {
    super('refused');
  }
}

/** The same for work that may be refused: then none of what it has written stays, and the refusal is the answer. */
export async function transactionUnlessRefused<T extends { ok: boolean }>(
  work: (db: Transaction) => Promise<T>,
): Promise<T> {
  try {
    return await transaction(async (db) => {
      const result = await work(db);
      if (!result.ok) throw new Undone(result);
      return result;
    });
  } catch (error) {
    if (error instanceof Undone) return (error as Undone<T>).answer;
    throw error;
  }
}

const isAborted = (error: unknown): boolean => error instanceof pg.DatabaseError && error.code === '25P02';

/**
 * The answers of statements that are sent without waiting for one another, and are done in the order in which they
 * begin. Where one fails, it waits for the others to settle too, so that none is sent once the transaction has ended.
 */
export async function together<T extends readonly unknown[]>(
  work: readonly [...T],
): Promise<{ -readonly [K in keyof T]: Awaited<T[K]> }> {
  const settled = await Promise.allSettled(work);
  const errors = settled.flatMap((one): unknown[] => (one.status === 'rejected' ? [one.reason] : []));
  // Once one has failed the others are told that the transaction is aborted: the cause is the one to tell.
  if (errors.length) throw errors.find((error) => !isAborted(error)) ?? errors[0];
  return settled.map((one) => (one as PromiseFulfilledResult<unknown>).value) as {
    -readonly [K in keyof T]: Awaited<T[K]>;
  };
}

/** The same for reads outside of a transaction: `work` asks a connection of its own, so that all of it is one round trip. */
export async function readTogether<T extends readonly unknown[]>(
  work: (db: Db) => readonly [...T],
): Promise<{ -readonly [K in keyof T]: Awaited<T[K]> }> {
  const client = await pool().connect();
  try {
    return await inTransaction.run(true, () => together(work(client)));
  } finally {
    client.release();
  }
}

// Prepared, the driver gathers it with the first statement of the work.
const BEGIN = prepared('begin', 'BEGIN');

async function attemptTransaction<T>(work: (db: Transaction) => Promise<T>): Promise<T> {
  const client = await pool().connect();
  try {
    const [, result] = await together([run(client, BEGIN), inTransaction.run(true, () => work(client))]);
    await client.query('COMMIT');
    forgetRead();
    return result;
  } catch (error) {
    await client.query('ROLLBACK').catch(() => {});
    throw error;
  } finally {
    client.release();
  }
}

/** Until the transaction ends, nobody else passes a call with the same words. */
export async function lock(db: Transaction, ...words: string[]): Promise<void> {
  await db.query('SELECT pg_advisory_xact_lock(hashtextextended($1, 0))', [words.join('\n')]);
}

/** Whether an error is a breach of the named unique index or constraint. */
export function isConflict(error: unknown, constraint?: string): boolean {
  return (
    error instanceof pg.DatabaseError &&
    error.code === '23505' &&
    (!constraint || error.constraint === constraint)
  );
}

/** An int8 amount as the safe integer that the core counts with. */
export function toMinor(amount: bigint): number {
  const number = Number(amount);
  if (!Number.isSafeInteger(number)) throw new RangeError(`amount out of range: ${amount}`);
  return number;
}
