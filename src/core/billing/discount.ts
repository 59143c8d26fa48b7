import { share } from '../money';
import type { Discount } from './book';

/** What is left of a price once a discount is taken off it: never below zero. Minor units; a share is rounded half up. */
export function discounted(discount: Discount | null, price: number): number {
  if (!discount || discount.charges === 0) return price;
  return Math.max(0, price - (discount.amount ?? share(price, discount.share ?? 0, 100)));
}

/** The discount that is left once a charge of a price has used it; a charge of nothing uses none of it. */
export const afterCharge = (discount: Discount | null, price: number): Discount | null =>
  discount === null || discount.charges === null || price <= 0
    ? discount
    : { ...discount, charges: Math.max(0, discount.charges - 1) };

/** Whether a discount has charges left to be taken off. */
export const hasLeft = (discount: Discount | null): boolean => discount !== null && discount.charges !== 0;
