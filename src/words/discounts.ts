import type { Discount } from '@/core/billing/book';
import type { Words } from './speak';

/** "20% off the first 3 payments"; '' where nothing is taken off. */
export function discountWords(discount: Discount | null, currency: string, t: Words): string {
  if (!discount) return '';
  const { amount, share, charges } = discount;
  const off = amount === undefined ? `${share ?? 0}%` : t.money(amount, currency, true);
  return charges === null ? t('code.off-all', { off }) : t('code.off-first', { off, count: charges });
}
