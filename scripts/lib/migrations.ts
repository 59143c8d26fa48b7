import { runner } from 'node-pg-migrate';

/** Brings a database up to the newest migration. Each runs once, in its own transaction, in the order of its number. */
export async function migrate(databaseUrl: string): Promise<number> {
  const done = await runner({
    databaseUrl,
    dir: 'migrations',
    direction: 'up',
    migrationsTable: 'migrations',
    checkOrder: true,
    verbose: false,
    log: () => {},
  });
  return done.length;
}
