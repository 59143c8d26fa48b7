import { daysFrom } from '@/core/days';
import { incomeByTier, monthsUpTo, type Income } from '@/core/income';
import { localDate, startOfDate } from '@/core/calendar';
import { firstOf, isLocalMonth, type LocalDate, type LocalMonth } from '@/core/instants';
import type { KeyCut } from '@/core/key-cut';
import { listIncome } from '@/desk/store/income';
import { siteNow } from '@/platform/clock';
import { currentSite, inMode } from '@/platform/site';
import { pool } from '@/platform/store/db';
import type { Mode, Site } from '@/platform/store/site';
import { listProducts } from '@/tiers/store/products';
import { listTiers } from '@/tiers/store/tiers';

const MONTHS = 12;
const DAYS = 28;

type Tiers = { currency: string; tiers: { name: string; tint: KeyCut['tint']; amounts: number[] }[] }[];
export type IncomeShown = {
  months: LocalMonth[];
  /** In each currency, the site's first. */
  currencies: Tiers;
};

/** What was received by tier in each of the last twelve months. */
export async function incomeShown(mode?: Mode): Promise<IncomeShown> {
  const own = await currentSite();
  const site = inMode(own, mode ?? own.mode);
  const now = localDate(siteNow(site), site.zone).slice(0, 7);
  if (!isLocalMonth(now)) throw new Error(`no month: ${now}`);
  const months = monthsUpTo(now, MONTHS);
  const from = startOfDate(firstOf(months[0] ?? now), site.zone);
  const rows = await listIncome(pool(), site.mode, { by: 'month', zone: site.zone, from });
  return { months, currencies: await byCurrency(site, rows, months) };
}

/** What was received by tier on each of the last days, today last. */
export async function incomeByDay(site: Site): Promise<{ days: LocalDate[]; currencies: Tiers }> {
  const today = localDate(siteNow(site), site.zone);
  const days = [...daysFrom(today, 1 - DAYS, site.zone), today];
  const from = startOfDate(days[0] ?? today, site.zone);
  const rows = await listIncome(pool(), site.mode, { by: 'day', zone: site.zone, from });
  return { days, currencies: await byCurrency(site, rows, days) };
}

async function byCurrency<When extends string>(
  site: Site,
  rows: Income<When>[],
  times: When[],
): Promise<Tiers> {
  const tiers = new Map((await listTiers(pool())).map((tier) => [tier.id, tier]));
  const products = new Map((await listProducts(pool())).map(({ id, name }) => [id, name]));
  const first = (currency: string): number => (currency === site.currency ? 0 : 1);
  const currencies = [...new Set(rows.map(({ currency }) => currency))].sort(
    (a, b) => first(a) - first(b) || (a < b ? -1 : 1),
  );
  return currencies.map((currency) => ({
    currency,
    tiers: incomeByTier(rows, times, currency).map(({ tierId, amounts }) => ({
      name: tiers.get(tierId)?.name ?? products.get(tierId) ?? tierId,
      tint: tiers.get(tierId)?.keyCut.tint ?? 'ink',
      amounts,
    })),
  }));
}
