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

/** Deletes a tier that nobody ever held and that nothing speaks of. */
export const deleteTier = staffUse('set tiers')(
  'delete-tier',
  slug,
  async (actor, id): Promise<Result<null>> => {
    const at = siteNow(await currentSite());
    return transaction(async (db) => {
      const tier = await findTier(db, id);
      if (!tier) return refusedField('', 'thing.gone');
      if (await wasTierEverHeld(db, id)) return refusedField('', 'tier.held', { tier: tier.name });
      const leading = await offersLeadingTo(db, id);
      if (leading.length > 0)
        return refusedField('', 'tier.led-to', { offer: leading[0] ?? '', tier: tier.name });
      const rule = (await listRules(db)).find((r) =>
        JSON.stringify([r.openTo, r.covers]).includes(`"id":"${id}"`),
      );
      if (rule) return refusedField('', 'tier.opened-by-rule', { rule: rule.name, tier: tier.name });
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
      if (!offer) return refusedField('', 'thing.gone');
      if (await wasOfferEverBought(db, id)) return refusedField('', 'tier.bought', { offer: offer.name });
      await removeOffer(db, id);
      await record(db, actor, at, 'offer deleted', `offer:${id}`, { name: offer.name });
      return done(null);
    });
  },
);
