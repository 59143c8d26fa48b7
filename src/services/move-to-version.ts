import { offerSentence } from '@/core/offers/sentence';
import { transaction } from '@/platform/store/db';
import { findOffer, findOfferVersion, listMovable, setOwnerMove } from '@/store/offers';
import { gatewayById } from '@/gateways';
import { listGatewayAccounts } from '@/store/gateways';
import { findMember } from '@/store/members';
import { findSubscription } from '@/store/subscriptions';
import { findTier, listTierNames } from '@/store/tiers';
import { siteNow } from '@/platform/clock';
import { record } from '@/platform/record';
import { done, refusedField, type Result } from '@/platform/result';
import { currentSite } from '@/platform/site';
import { asBought } from '@/services/lib/terms';
import { writeMail } from '@/services/lib/write-mail';
import { staffUse } from '@/platform/use';
import { slug } from '@/platform/inputs';
import { z } from 'zod';

/**
 * Moves everybody who runs on an older version of an offer to its newest, each from their own next period on; each
 * is told by mail. `count` is how many the owner saw: where it is another by now, nobody is moved.
 */
const moveSchema = z.object({ offerId: slug, count: z.number().int() });

export const moveToNewest = staffUse('set tiers')(
  'move-to-newest',
  moveSchema,
  async (actor, { offerId, count }): Promise<Result<{ count: number }>> => {
    const site = await currentSite();
    const at = siteNow(site);
    return transaction(async (db) => {
      const newest = await findOffer(db, offerId);
      if (!newest) return refusedField('', 'This offer is not there any more.');
      const ids = await listMovable(db, offerId, site.mode, newest.versionId);
      if (ids.length !== count)
        return refusedField('', `By now it would be ${ids.length}, not ${count}. Look again, then decide.`);
      const names = await listTierNames(db);
      const tier = await findTier(db, newest.tierId);
      const wallets = new Set(
        (await listGatewayAccounts(db))
          .filter((account) => gatewayById(account.gateway).nature === 'wallet')
          .map((account) => account.id),
      );
      const sentence = (offer: typeof newest): string =>
        offerSentence(offer.definition, { skipTrial: true, skipFee: true, tierNames: names });
      for (const id of ids) {
        const subscription = await findSubscription(db, id);
        const old = subscription && (await findOfferVersion(db, subscription.offerVersionId));
        const member = subscription?.memberId ? await findMember(db, subscription.memberId) : undefined;
        if (old?.definition.currency !== newest.definition.currency)
          return refusedField('', 'The newest version is in another currency. Nobody can be moved to it.');
        if (!subscription?.paidThrough || !member) continue;
        const content = {
          template: 'price-changes' as const,
          tierName: tier?.name ?? newest.name,
          from: subscription.paidThrough,
          before: sentence(asBought(old, subscription.addedTax)),
          after: sentence(asBought(newest, subscription.addedTax)),
          approvePath: wallets.has(subscription.gatewayAccountId ?? '') ? `/account/pay/${id}` : null,
        };
        await writeMail(db, site, member, content, `price-changes:${id}:${newest.versionId}`, at);
      }
      await setOwnerMove(db, ids, newest.versionId);
      await record(db, actor, at, 'members moved to a version', `offer:${offerId}`, {
        version: newest.version,
        count: ids.length,
      });
      return done({ count: ids.length });
    });
  },
);
