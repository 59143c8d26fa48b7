import { formStamp } from '@/platform/guard-form';
import { nothing } from '@/platform/inputs';
import { done } from '@/platform/result';
import { currentSite } from '@/platform/site';
import { pool } from '@/platform/store/db';
import { publicUse } from '@/platform/use';
import { findOffer } from '@/tiers/store/offers';

/** What people get who register without choosing: a free offer, or an account alone, where joining is open. */
export const registering = publicUse('registering', nothing, async () => {
  const { registerOfferId, joining } = await currentSite();
  const offer = registerOfferId ? await findOffer(pool(), registerOfferId) : undefined;
  return done({
    offerId: offer?.onSale && !offer.isPaid ? offer.id : null,
    isOpen: joining === 'open',
    stamp: formStamp(),
  });
});
