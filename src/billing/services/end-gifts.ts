import { nextGiftToEnd, noteGiftEnded } from '@/billing/store/purchases';
import { WORKER } from '@/platform/actor';
import { nothing } from '@/platform/inputs';
import { record } from '@/platform/record';
import { done } from '@/platform/result';
import { currentSite } from '@/platform/site';
import { pool, transaction } from '@/platform/store/db';
import { systemUse } from '@/platform/use';
import { happen, openBook } from './lib/open-book';

/** Ends the tier that a refunded gift card gave, in the book of the member who used the card rather than the buyer's. */
export const endGifts = systemUse('end-gifts', nothing, async () => {
  const found = await nextGiftToEnd(pool());
  if (!found) return done(false);
  const { id, mode, memberId, holdingId } = found;
  const site = await currentSite();
  await transaction(async (db) => {
    const open = memberId && holdingId ? await openBook(db, site, WORKER, { memberId, mode }) : null;
    if (!(await noteGiftEnded(db, id)) || !open || !holdingId) return;
    // It may have run out, or have been withdrawn, before.
    const happened = await happen(open, { do: 'take', holding: holdingId });
    if (happened.ok)
      await record(db, WORKER, open.at, 'gift ended', `member:${memberId}`, {
        holding: holdingId,
        purchase: id,
      });
  });
  return done(true);
});
