import { addLength } from '../calendar';
import { isBefore, type Instant } from '../instants';
import { named, own, type Charge } from './book';
import { tell, type Work } from './work';

/** It is paid: a pass opens now, for as long as it lasts. */
export function bought(work: Work, one: Charge): void {
  const { book, now, context } = work;
  const purchase = named(book.purchases, one.purchase);
  purchase.state = 'paid';
  tell(work, 'paid', null, { charge: one.id });
  if (purchase.kind === 'pass')
    book.holdings.push({
      id: context.newId(),
      kind: 'pass',
      why: 'purchase',
      subscription: null,
      purchase: purchase.id,
      tier: purchase.item,
      isPaid: false,
      from: now,
      to: purchase.lasts && addLength(now, purchase.lasts, context.zone),
      since: now,
    });
}

/** What was bought ends when its money is refunded. */
export function takePurchase({ book, now }: Work, { purchase: id }: Charge): void {
  named(book.purchases, id).state = 'ended';
  for (const held of [...book.holdings])
    if (held.purchase === id && isOpen(held.to, now)) own(book.holdings, held).to = now;
}

const isOpen = (to: Instant | null, now: Instant): boolean => to === null || isBefore(now, to);
