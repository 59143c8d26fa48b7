import { describe, expect, it } from 'vitest';
import { currentSite } from '../../src/platform/site';
import {
  lock,
  one,
  pool,
  readTogether,
  run,
  together,
  transaction,
  type Transaction,
} from '../../src/platform/store/db';
import { spendPoint } from '../../src/platform/store/rate-limits';
import { lanternMoor, rows } from './lantern-moor';

lanternMoor();

describe('a transaction', () => {
  it('may not ask for a second connection: in tests that is an error, wherever it happens', async () => {
    await expect(transaction(() => currentSite())).rejects.toThrow('pass the transaction on');
    await expect(transaction(() => transaction(() => Promise.resolve(1)))).rejects.toThrow('pass the');
    await expect(transaction(() => spendPoint({ name: 'x', points: 1, seconds: 1 }, 'y'))).rejects.toThrow(
      'pass the',
    );
    await expect(transaction((db) => currentSite(db))).resolves.toMatchObject({ name: 'Lantern Moor' });
    expect(await currentSite()).toMatchObject({ name: 'Lantern Moor' });
  });

  it('that a deadlock ends is run again, and both come to their end', async () => {
    await rows('CREATE TABLE pair (id int PRIMARY KEY, n int NOT NULL DEFAULT 0)');
    await rows('INSERT INTO pair (id) VALUES (1), (2)');
    let runs = 0;
    const both = async (first: number, second: number): Promise<void> =>
      transaction(async (db) => {
        runs += 1;
        await run(db, 'UPDATE pair SET n = n + 1 WHERE id = $1', [first]);
        await new Promise((resolve) => setTimeout(resolve, 150));
        await run(db, 'UPDATE pair SET n = n + 1 WHERE id = $1', [second]);
      });
    await Promise.all([both(1, 2), both(2, 1)]);
    expect(runs).toBeGreaterThan(2);
    expect(await rows('SELECT n FROM pair ORDER BY id')).toEqual([{ n: 2 }, { n: 2 }]);
  });

  it('that fails for another reason is not', async () => {
    let runs = 0;
    const failing = transaction(async (db) => {
      runs += 1;
      await lock(db, 'anything');
      await run(db, 'SELECT 1 / 0');
    });
    await expect(failing).rejects.toThrow('division by zero');
    expect(runs).toBe(1);
  });

  it('leaves nothing behind where one of several statements that are sent together fails, and tells the cause', async () => {
    await rows('CREATE TABLE steps (n int NOT NULL)');
    const two = async (db: Transaction): Promise<void> => {
      await run(db, 'INSERT INTO steps VALUES (1)');
      await new Promise((resolve) => setTimeout(resolve, 30));
      await run(db, 'INSERT INTO steps VALUES (2)');
    };
    const failing = transaction((db) =>
      together([two(db), run(db, 'SELECT 1 / 0'), run(db, 'INSERT INTO steps VALUES (3)')]),
    );
    await expect(failing).rejects.toThrow('division by zero');
    await new Promise((resolve) => setTimeout(resolve, 60));
    expect(await rows('SELECT n FROM steps')).toEqual([]);
    const done = transaction((db) =>
      together([run(db, 'INSERT INTO steps VALUES (4)'), run(db, 'UPDATE steps SET n = 5 WHERE n = 4')]),
    );
    expect(await done).toEqual([1, 1]);
    expect(await rows('SELECT n FROM steps')).toEqual([{ n: 5 }]);
  });

  it('cannot keep others waiting for ever', async () => {
    const { rows: settings } = await pool().query<{ name: string; setting: string }>(
      `SELECT name, setting FROM pg_settings WHERE name IN ('statement_timeout', 'idle_in_transaction_session_timeout') ORDER BY 1`,
    );
    expect(settings.map(({ setting }) => Number(setting))).toEqual([60_000, 30_000]);
  });
});

describe('reads that do not wait for one another', () => {
  it('are asked on one connection, and answered in the order in which they were asked for', async () => {
    const process = 'SELECT pg_backend_pid() AS process, $1::int AS n';
    const answers = await readTogether((db) =>
      [1, 2, 3].map((n) => one<{ process: number; n: number }>(db, process, [n])),
    );
    expect(answers.map(({ n }) => n)).toEqual([1, 2, 3]);
    expect(new Set(answers.map((answer) => answer.process)).size).toBe(1);
  });

  it('may not ask for a second connection', async () => {
    await expect(readTogether(() => [currentSite()])).rejects.toThrow('pass the transaction on');
  });

  it('give their connection back where one fails, and spoil none of the others', async () => {
    const others: number[] = [];
    const failing = Array.from({ length: 30 }, () =>
      readTogether((db) => [
        run(db, 'SELECT 1 / 0'),
        one<{ n: number }>(db, 'SELECT 7 AS n').then(({ n }) => others.push(n)),
      ]),
    );
    for (const settled of await Promise.allSettled(failing))
      expect(settled).toMatchObject({ status: 'rejected', reason: { message: 'division by zero' } });
    expect(others).toHaveLength(30);
    expect(pool().waitingCount).toBe(0);
  });
});
