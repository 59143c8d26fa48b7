import type { TierId } from './ids';
import type { LocalMonth } from './instants';

/** What was received for a tier in a local month, or on a local date; minor units. */
export type Income<When extends string = LocalMonth> = {
  when: When;
  tierId: TierId;
  currency: string;
  amount: number;
};
/** A tier's income, one after the other, in one currency; the amounts are in the order of the months or days. */
export type TierIncome = { tierId: TierId; amounts: number[]; total: number };

const indexOf = (month: string): number => {
  const [year = 0, number = 1] = month.split('-').map(Number);
  return year * 12 + number - 1;
};
const monthAt = (index: number): LocalMonth =>
  `${Math.floor(index / 12)}-${String((index % 12) + 1).padStart(2, '0')}` as LocalMonth;

/** So many months in a row, the last of them last. */
export const monthsUpTo = (last: LocalMonth, count: number): LocalMonth[] =>
  Array.from({ length: count }, (_, index) => monthAt(indexOf(last) - count + 1 + index));

/** The income of each tier over some months or days in one currency, the largest first; a tier that received nothing is left out. */
export function incomeByTier<When extends string>(
  rows: Income<When>[],
  times: When[],
  currency: string,
): TierIncome[] {
  const tiers = new Map<TierId, number[]>();
  for (const row of rows) {
    const at = times.indexOf(row.when);
    if (row.currency !== currency || at < 0) continue;
    const amounts = tiers.get(row.tierId) ?? times.map(() => 0);
    amounts[at] = (amounts[at] ?? 0) + row.amount;
    tiers.set(row.tierId, amounts);
  }
  return [...tiers]
    .map(([tierId, amounts]) => ({
      tierId,
      amounts,
      total: amounts.reduce((sum, amount) => sum + amount, 0),
    }))
    .filter(({ total }) => total > 0)
    .sort((a, b) => b.total - a.total || (a.tierId < b.tierId ? -1 : 1));
}

type Sums<Field extends string> = { month: string; currency: string } & Record<Field, number>;

/** Months of sums put together by year and currency, in the order in which they come. */
export function sumYears<Field extends string>(
  months: Sums<Field>[],
  fields: readonly Field[],
): ({ year: string; currency: string } & Record<Field, number>)[] {
  const years = new Map<string, { year: string; currency: string } & Record<Field, number>>();
  for (const month of months) {
    const year = month.month.slice(0, 4);
    const key = `${year} ${month.currency}`;
    const before = years.get(key);
    const sums = Object.fromEntries(fields.map((field) => [field, (before?.[field] ?? 0) + month[field]]));
    years.set(key, { year, currency: month.currency, ...(sums as Record<Field, number>) });
  }
  return [...years.values()];
}
