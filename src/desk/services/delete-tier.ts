import { transaction } from '@/platform/store/db';
import { deleteOffer as removeOffer, findOffer } from '@/tiers/store/offers';
import { listRules } from '@/access/store/rules';
import { deleteEmptyLadders, deleteTier as removeTier, findTier, offersLeadingTo } from '@/tiers/store/tiers';
import { siteNow } from '@/platform/clock';
import { record } from '@/platform/record';
import { done, refusedField, type Result } from '@/platform/result';
import { currentSite } from '@/platform/site';
import { slug } from '@/platform/inputs';
import { staffUse } from '@/platform/use';
import { wasOfferEverBought, wasTierEverHeld } from '@/billing/store/tier-holders';

const GONE = 'This no longer exists.';

/** Deletes a tier that nobody ever held and that nothing speaks of. */
export const deleteTier = staffUse('set tiers')(
  'delete-tier',
  slug,
  async (actor, id): Promise<Result<null>> => {
    const at = siteNow(await currentSite());
    return transaction(async (db) => {
      const tier = await findTier(db, id);
      if (!tier) return refusedField('', GONE);
      if (await wasTierEverHeld(db, id))
        return refusedField(
          '',
          `People have joined ${tier.name} or started to, so its history is kept. Retire it instead.`,
        );
      const leading = await offersLeadingTo(db, id);
      if (leading.length > 0)
        return refusedField(
          '',
          `The offer “${leading[0] ?? ''}” leads to ${tier.name}. Change or delete that offer first.`,
        );
      const rule = (await listRules(db)).find((r) =>
        JSON.stringify([r.openTo, r.covers]).includes(`"id":"${id}"`),
      );
      if (rule)
        return refusedField(
          '',
          `The rule “${rule.name}” opens to ${tier.name}. Take the tier out of it first.`,
        );
      await removeTier(db, id);
      await deleteEmptyLadders(db);
      await record(db, actor, at, 'tier deleted', `tier:${id}`, { name: tier.name });
      return done(null);
    });
  },
);

/** Deletes an offer that nobody ever bought. */
export const deleteOffer = staffUse('set tiers')(
  'delete-offer',
  slug,
  async (actor, id): Promise<Result<null>> => {
    const at = siteNow(await currentSite());
    return transaction(async (db) => {
      const offer = await findOffer(db, id);
      if (!offer) return refusedField('', GONE);
      if (await wasOfferEverBought(db, id))
        return refusedField(
          '',
          `People have joined by “${offer.name}” or started to, so its history is kept. Retire it instead.`,
        );
      await removeOffer(db, id);
      await record(db, actor, at, 'offer deleted', `offer:${id}`, { name: offer.name });
      return done(null);
    });
  },
);
