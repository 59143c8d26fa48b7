import { RateLimiterPostgres, RateLimiterRes } from 'rate-limiter-flexible';
import { plainPool, run, type Db } from './db';

export type Limit = { name: string; points: number; seconds: number };

/** By the pool that they count in, and by name. */
const limiters = new WeakMap<object, Map<string, RateLimiterPostgres>>();

function limiter({ name, points, seconds }: Limit): RateLimiterPostgres {
  const pool = plainPool();
  const here = limiters.get(pool) ?? new Map<string, RateLimiterPostgres>();
  limiters.set(pool, here);
  const known = here.get(name);
  if (known) return known;
  const made = new RateLimiterPostgres({
    storeClient: pool,
    tableName: 'rate_limits',
    tableCreated: true,
    clearExpiredByTimeout: false,
    keyPrefix: name,
    points,
    duration: seconds,
  });
  here.set(name, made);
  return made;
}

/** Spends one of a key's points. The answer is the number of real seconds to wait, or 0 where it may continue. */
export async function spendPoint(limit: Limit, key: string): Promise<number> {
  try {
    await limiter(limit).consume(key);
    return 0;
  } catch (error) {
    if (error instanceof RateLimiterRes) return Math.max(1, Math.ceil(error.msBeforeNext / 1000));
    throw error;
  }
}

export async function forgetPoints(limit: Limit, key: string): Promise<void> {
  await limiter(limit).delete(key);
}

/** Deletes counters that have run out. */
export async function deleteSpentLimits(db: Db): Promise<number> {
  return run(db, 'DELETE FROM rate_limits WHERE expire < $1', [Date.now()]);
}
