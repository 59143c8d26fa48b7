import { offerSentence } from '@/words/offers';
import { wordsOf } from '@/words/words';
import { transaction } from '@/platform/store/db';
import { findOffer, findOfferVersion } from '@/tiers/store/offers';
import { gatewayById } from '@/billing/gateways';
import { listGatewayAccounts } from '@/billing/store/gateways';
import { findMember } from '@/people/store/members';
import { offerKey } from '@/billing/store/book-from-rows';
import { listSubscriptionsById } from '@/billing/store/subscriptions';
import { findTier, listTierNames } from '@/tiers/store/tiers';
import type { Subscription } from '@/core/billing/book';
import { latest, type Instant } from '@/core/instants';
import { siteNow } from '@/platform/clock';
import { record } from '@/platform/record';
import { done, refusedField, type Result } from '@/platform/result';
import { currentSite } from '@/platform/site';
import { happen, openBook } from './lib/open-book';
import type { OpenBook } from './lib/opened';
import { asBought } from './lib/schedules';
import { writeMail } from '@/mail/services/lib/write-mail';
import { staffUse } from '@/platform/use';
import { slug } from '@/platform/inputs';
import { z } from 'zod';
import { orNothing } from '@/platform/form-fields';
import { listMovable } from '@/billing/store/offer-versions';

/**
 * Moves all members on an older version of an offer to its newest, each from their own next period on; each
 * is told by mail. `count` is how many the owner saw: where it is another by now, nobody is moved.
 */
const moveSchema = z.object({ offerId: slug, count: z.preprocess(orNothing, z.coerce.number().int()) });

export const moveToNewest = staffUse('set tiers')(
  'move-to-newest',
  moveSchema,
  async (actor, { offerId, count }): Promise<Result<{ count: number }>> => {
    const site = await currentSite();
    const at = siteNow(site);
    return transaction(async (db) => {
      const newest = await findOffer(db, offerId);
      if (!newest) return refusedField('', 'refusal.no-offer');
      const ids = await listMovable(db, offerId, site.mode, newest.versionId);
      if (ids.length !== count) return refusedField('', 'move.count', { now: ids.length, shown: count });
      const names = await listTierNames(db);
      const tier = await findTier(db, newest.tierId);
      const wallets = new Set(
        (await listGatewayAccounts(db))
          .filter((account) => gatewayById(account.gateway).nature === 'wallet')
          .map((account) => account.id),
      );
      const t = wordsOf(site);
      const sentence = (offer: typeof newest): string =>
        offerSentence(offer.definition, t, { skipTrial: true, skipFee: true, tierNames: names });
      let moved = 0;
      const movable = await listSubscriptionsById(db, ids);
      for (const found of movable.sort((a, b) => (a.memberId < b.memberId ? -1 : 1))) {
        const { id } = found;
        const old = await findOfferVersion(db, found.offerVersionId);
        const member = await findMember(db, found.memberId);
        if (old?.definition.currency !== newest.definition.currency) return refusedField('', 'move.currency');
        const to = offerKey(newest.versionId, found.addedTax);
        const open = await openBook(db, site, actor, found, { offers: [to] });
        const happened = await happen(open, { do: 'move', subscription: id, to });
        const s = open.stored.book.subscriptions.find((one) => one.id === id);
        if (!happened.ok || !s?.paidThrough || !member) continue;
        moved += 1;
        const content = {
          template: 'price-changes' as const,
          tierName: tier?.name ?? newest.name,
          from: beginsAt(open, s),
          before: sentence(asBought(old, found.addedTax)),
          after: sentence(asBought(newest, found.addedTax)),
          approvePath: wallets.has(found.gatewayAccountId ?? '') ? `/account/pay/${id}` : null,
        };
        await writeMail(db, site, {
          to: member,
          content,
          key: `price-changes:${id}:${newest.versionId}`,
          at,
        });
      }
      await record(db, actor, at, 'members moved to a version', `offer:${offerId}`, {
        version: newest.version,
        count: moved,
      });
      return done({ count: moved });
    });
  },
);

/** From when the newest version holds: after what is paid, and after what is being asked for. */
function beginsAt({ stored, at }: OpenBook, s: Subscription): Instant {
  const asked = stored.book.charges.find(({ id, state }) => id === s.unpaid && state === 'open');
  return latest(at, asked?.period.to ?? s.paidThrough ?? at);
}
