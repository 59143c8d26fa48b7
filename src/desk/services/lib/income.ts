import { incomeByTier, monthsUpTo } from '@/core/income';
import { localDate, startOfDate } from '@/core/calendar';
import { firstOf, isLocalMonth, type LocalMonth } from '@/core/instants';
import type { KeyCut } from '@/core/key-cut';
import { listIncome } from '@/desk/store/income';
import { siteNow } from '@/platform/clock';
import { currentSite, inMode } from '@/platform/site';
import { pool } from '@/platform/store/db';
import type { Mode } from '@/platform/store/site';
import { listTiers } from '@/tiers/store/tiers';

const MONTHS = 12;

export type IncomeShown = {
  months: LocalMonth[];
  /** In each currency, the site's first. */
  currencies: { currency: string; tiers: { name: string; tint: KeyCut['tint']; amounts: number[] }[] }[];
};

/** What was received by tier in each of the last twelve months. */
export async function incomeShown(mode?: Mode): Promise<IncomeShown> {
  const own = await currentSite();
  const site = inMode(own, mode ?? own.mode);
  const now = localDate(siteNow(site), site.zone).slice(0, 7);
  if (!isLocalMonth(now)) throw new Error(`no month: ${now}`);
  const months = monthsUpTo(now, MONTHS);
  const from = startOfDate(firstOf(months[0] ?? now), site.zone);
  const rows = await listIncome(pool(), site.mode, site.zone, from);
  const tiers = new Map((await listTiers(pool())).map((tier) => [tier.id, tier]));
  const first = (currency: string): number => (currency === site.currency ? 0 : 1);
  const currencies = [...new Set(rows.map(({ currency }) => currency))].sort(
    (a, b) => first(a) - first(b) || (a < b ? -1 : 1),
  );
  return {
    months,
    currencies: currencies.map((currency) => ({
      currency,
      tiers: incomeByTier(rows, months, currency).map(({ tierId, amounts }) => ({
        name: tiers.get(tierId)?.name ?? tierId,
        tint: tiers.get(tierId)?.keyCut.tint ?? 'ink',
        amounts,
      })),
    })),
  };
}
