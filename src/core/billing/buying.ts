import { addLength } from '../calendar';
import { named, type Charge, type Method, type Purchase } from './book';
import { ask } from './charging';
import { drop } from './ending';
import { reserve } from './credit';
import { isAsked, refuse, type Work } from './work';

export type Buying = Pick<Purchase, 'kind' | 'item' | 'lasts'> & {
  /** Handed in where a press that is repeated must be the same purchase. */
  id?: string;
  amount: number;
  currency: string;
  method: Method | null;
};

/** Something is bought once: a pass for its buyer, or a gift card. Credit is spent on it before money. */
export function buy(work: Work, { id, kind, item, lasts, amount, currency, method }: Buying): void {
  const { book, now, context } = work;
  if (amount > 0 && !method) refuse('no-method');
  const known = book.purchases.find((one) => one.id === id);
  if (known) return buyAgain(work, known, method);
  const purchase: Purchase = {
    id: id ?? context.newId(),
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

const openOf = ({ book }: Work, { id }: Purchase): Charge =>
  book.charges.find(({ purchase, state }) => purchase === id && state === 'open') ?? refuse('known');

/** What was declined is asked for once more, by another method maybe. @throws Refused where it is paid, or under way */
function buyAgain(work: Work, purchase: Purchase, method: Method | null): void {
  const one = openOf(work, purchase);
  if (isAsked(one)) refuse('under-way');
  purchase.method = method;
  ask(work, one, method);
}

/** Its buyer did not come back to pay: nothing is owed, and the credit that was reserved is free again. */
export function abandon(work: Work, id: string): void {
  const purchase = named(work.book.purchases, id);
  const one = openOf(work, purchase);
  if (isAsked(one)) refuse('under-way');
  drop(work, one);
  purchase.state = 'ended';
}
