import { uuid, nothing } from '@/platform/inputs';
import { done, missing, type Result } from '@/platform/result';
import { pool } from '@/platform/store/db';
import { staffUse, systemUse } from '@/platform/use';
import { claimComparison, findGatewayAccount, saveComparison } from '@/billing/store/gateways';
import { reconcile } from './lib/reconcile';
import type { GatewayAccountId } from '@/core/ids';

/** How old a comparison may be, and how long one may take before another worker begins it again. */
const EVERY_MINUTES = 15;
const LEASE_SECONDS = 300;
/** Differences that are stored; how many there are is stored beside them. */
const MOST_DIFFERENCES = 20;

async function compare(accountId: GatewayAccountId): Promise<void> {
  const found = await reconcile(accountId);
  const stored =
    found.ok && 'differences' in found
      ? {
          ...found,
          differences: found.differences.slice(0, MOST_DIFFERENCES),
          differ: found.differences.length,
        }
      : found;
  await saveComparison(pool(), accountId, stored);
}

/** Compares the books of the account that was compared longest ago with its gateway's list. The answer is how many were. */
export const compareDueBooks = systemUse('compare-due-books', nothing, async () => {
  const accountId = await claimComparison(pool(), EVERY_MINUTES, LEASE_SECONDS);
  if (!accountId) return done(0);
  await compare(accountId);
  return done(1);
});

/** Compares the books of one account now. */
export const compareBooks = staffUse('manage money')(
  'compare-books',
  uuid,
  async (_, accountId): Promise<Result<null>> => {
    if (!(await findGatewayAccount(pool(), accountId))) return missing();
    await compare(accountId);
    return done(null);
  },
);
