import type { BooksCompared, ChecksRan } from '@/core/reports/today';
import { newestLeakCheck } from '@/access/store/leak-checks';
import { findComparison, listGatewayAccounts } from '@/billing/store/gateways';
import { pool } from '@/platform/store/db';
import type { Site } from '@/platform/store/site';

/** The accounts of the site's mode whose books have been compared; a bank has no list to compare with. */
export async function booksCompared(site: Site): Promise<BooksCompared[]> {
  const accounts = (await listGatewayAccounts(pool())).filter(({ mode }) => mode === site.mode);
  const compared: BooksCompared[] = [];
  for (const { id, label } of accounts) {
    const found = await findComparison(pool(), id);
    if (!found || 'none' in found.comparison) continue;
    const { comparison, comparedAt: at } = found;
    compared.push({ label, at, isEqual: comparison.ok && comparison.differ === 0 });
  }
  return compared;
}

/** What has checked itself: the leaks of the last complete check, and the books. */
export async function checksThatRan(site: Site): Promise<ChecksRan> {
  const check = await newestLeakCheck(pool());
  return {
    leaks: check?.finishedAt
      ? {
          at: check.finishedAt,
          found: check.found.length,
          addresses: check.plan.addresses.length,
          viewpoints: check.plan.viewpoints.length,
        }
      : null,
    books: await booksCompared(site),
  };
}
