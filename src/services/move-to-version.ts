import type { Instant } from '@/core/calendar';
import { formatMoney } from '@/core/money';
import { offerSentence } from '@/core/offers/sentence';
import { nextCharge } from '@/core/subscriptions/upcoming';
import { pool, transaction } from '@/store/db';
import {
  countByVersion,
  findOffer,
  findOfferVersion,
  listMovable,
  setOwnerMove,
  type VersionCount,
} from '@/store/offers';
import { gatewayById } from '@/gateways';
import { listGatewayAccounts } from '@/store/gateways';
import { findMember } from '@/store/members';
import { findSubscription, listSubscriptionsById } from '@/store/subscriptions';
import { findTier, listTierNames } from '@/store/tiers';
import { requireRight, type Actor } from './actor';
import { siteNow } from './clock';
import { record } from './record';
import { done, refusedField, type Result } from './result';
import { currentSite } from './site';
import { asBought, termsUnder } from './terms';
import { writeMail } from './write-mail';

/** What would change for those on one version, were they moved to the newest. */
export type MovePreview = {
  version: number;
  count: number;
  before: string;
  after: string;
  /** The first and the last day on which it would begin for one of them. */
  first: Instant;
  last: Instant;
  /** What those who pay next would pay then, and pay now. */
  amounts: { before: string; after: string; count: number }[];
};

/** How many run on which version of an offer, and what moving them to the newest would change. */
export async function offerVersions(
  offerId: string,
): Promise<{ versions: VersionCount[]; previews: MovePreview[] }> {
  const site = await currentSite();
  const versions = await countByVersion(pool(), offerId, site.mode);
  const newest = await findOffer(pool(), offerId);
  if (!newest || versions.every((version) => version.versionId === newest.versionId || version.movable === 0))
    return { versions, previews: [] };
  const names = await listTierNames(pool());
  const movable = await listSubscriptionsById(
    pool(),
    await listMovable(pool(), offerId, site.mode, newest.versionId),
  );
  const previews: MovePreview[] = [];
  for (const { versionId, version, definition } of versions) {
    const own = movable.filter((subscription) => subscription.offerVersionId === versionId);
    const old = await findOfferVersion(pool(), versionId);
    const days = own.flatMap((subscription) => subscription.paidThrough ?? []).sort();
    const [first, last] = [days[0], days.at(-1)];
    if (!old || first === undefined || last === undefined) continue;
    const amounts = new Map<string, MovePreview['amounts'][number]>();
    for (const subscription of own) {
      const next = (movesTo: typeof old | null): string => {
        const charge = nextCharge(
          subscription,
          termsUnder(
            site,
            asBought(old, subscription.addedTax),
            movesTo && asBought(movesTo, subscription.addedTax),
          ),
        );
        return charge ? formatMoney(charge.period.amount, definition.currency, true) : 'nothing';
      };
      const [before, after] = [next(null), next(newest)];
      const line = amounts.get(`${before}>${after}`) ?? { before, after, count: 0 };
      line.count += 1;
      amounts.set(`${before}>${after}`, line);
    }
    previews.push({
      version,
      count: own.length,
      before: offerSentence(definition, { skipTrial: true, skipFee: true, tierNames: names }),
      after: offerSentence(newest.definition, { skipTrial: true, skipFee: true, tierNames: names }),
      first,
      last,
      amounts: [...amounts.values()],
    });
  }
  return { versions, previews };
}

/**
 * Moves everybody who runs on an older version of an offer to its newest, each from their own next period on; each
 * is told by mail. `count` is how many the owner saw: where it is another by now, nobody is moved.
 */
export async function moveToNewest(
  actor: Actor,
  offerId: string,
  count: number,
): Promise<Result<{ count: number }>> {
  requireRight(actor, 'set tiers');
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
}
