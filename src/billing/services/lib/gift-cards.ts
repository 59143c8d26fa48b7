import type { Book, Purchase } from '@/core/billing/book';
import { findPurchase } from '@/billing/store/purchases';
import { record } from '@/platform/record';
import { insertBatch, insertCodes, setBatchOn } from '@/tiers/store/codes';
import type { OpenBook } from './opened';
import { purchaseCode } from './purchase-code';

/** The gift cards whose state a step changed. */
const changedCards = (before: Book, after: Book): Purchase[] =>
  after.purchases.filter(
    ({ id, kind, state }) =>
      kind === 'gift-card' && state !== before.purchases.find((one) => one.id === id)?.state,
  );

/** A gift card that is paid becomes a code which gives its tier once; refunded, its code gives nothing more. */
export async function followGiftCards({ db, actor, at, stored }: OpenBook, before: Book): Promise<void> {
  for (const card of changedCards(before, stored.book)) {
    if (card.state === 'ended') {
      if (await setBatchOn(db, card.id, false))
        await record(db, actor, at, 'gift card closed', `code:${card.id}`, { purchase: card.id });
      continue;
    }
    if (card.state !== 'paid') continue;
    const purchase = await findPurchase(db, card.id);
    if (!purchase) continue;
    const terms = {
      admits: [],
      discount: null,
      currency: null,
      tierIds: [],
      gives: { kind: 'tier' as const, id: card.item, lasts: card.lasts },
      mostUses: 1,
      mostPerPerson: null,
      firstDay: null,
      lastDay: null,
      newMembersOnly: false,
      isOn: true,
    };
    await insertBatch(db, purchase.name, terms, card.id);
    await insertCodes(db, card.id, [purchaseCode(purchase)]);
  }
}
