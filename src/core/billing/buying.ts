import { addLength } from '../calendar';
import type { Charge, Method, Purchase } from './book';
import { ask } from './charging';
import { reserve } from './credit';
import { refuse, type Work } from './work';

export type Buying = Pick<Purchase, 'kind' | 'item' | 'lasts'> & {
  amount: number;
  currency: string;
  method: Method | null;
};

/** Something is bought once: a pass for its buyer, or a gift card. Credit is spent on it before money. */
export function buy(work: Work, { kind, item, lasts, amount, currency, method }: Buying): void {
  const { book, now, context } = work;
  if (amount > 0 && !method) refuse('no-method');
  const purchase: Purchase = {
    id: context.newId(),
    kind,
    item,
    lasts,
    method,
    state: 'pending',
    charges: 1,
  };
  book.purchases.push(purchase);
  const credit = method?.nature === 'wallet' ? [] : reserve(book, amount, currency);
  const to = lasts && addLength(now, lasts, context.zone);
  const one: Charge = {
    id: context.newId(),
    subscription: null,
    purchase: purchase.id,
    number: 1,
    kind: 'purchase',
    period: { step: 0, n: 0, kind: 'once', tier: item, from: now, to, amount, joiningFee: 0 },
    currency,
    amount,
    joiningFee: 0,
    credit,
    unused: [],
    due: amount - credit.reduce((sum, each) => sum + each.amount, 0),
    state: 'open',
    attempts: [],
    usesDiscount: false,
    isMove: false,
  };
  book.charges.push(one);
  ask(work, one, method);
}
