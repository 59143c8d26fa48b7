import 'server-only';
import type { ComponentProps } from 'react';
import type { BuyCard } from '@/checkout/ui/buy-card';
import type { ProductOnSale } from '@/checkout/services/product-page';
import { lengthWords } from '@/words/offers';
import type { Words } from '@/words/words';

/** What a card says of something that is bought once. */
export const buyCardOf = (
  t: Words,
  { id, name, lasts, amount, currency }: ProductOnSale,
): ComponentProps<typeof BuyCard> => ({
  label: t('buy.title'),
  name,
  words: t('buy.for-length', { length: lasts ? lengthWords(lasts, t) : 'none' }),
  price: t.money(amount, currency),
  button: t('buy.button'),
  href: `/buy/${id}`,
});
