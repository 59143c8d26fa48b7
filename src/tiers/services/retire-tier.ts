import { transaction } from '@/platform/store/db';
import {
  deleteOffer as removeOffer,
  findOffer,
  setOfferRetired,
  wasOfferEverBought,
} from '@/tiers/store/offers';
import { listRules } from '@/access/store/rules';
import {
  deleteEmptyLadders,
  deleteTier as removeTier,
  findTier,
  offersLeadingTo,
  setTierRetired,
  wasTierEverHeld,
} from '@/tiers/store/tiers';
import { siteNow } from '@/platform/clock';
import { record } from '@/platform/record';
import { done, refusedField, type Result } from '@/platform/result';
import { currentSite } from '@/platform/site';
import { slug } from '@/platform/inputs';
import { staffUse } from '@/platform/use';
import { z } from 'zod';

const retireSchema = z.object({ id: slug, isRetired: z.boolean() });
const GONE = 'This no longer exists.';

/** Retires a tier: nobody joins by it any more, and those who hold it keep it. Or brings it back. */
export const retireTier = staffUse('set tiers')(
  'retire-tier',
  retireSchema,
  async (actor, { id, isRetired }): Promise<Result<null>> => {
    const at = siteNow(await currentSite());
    return transaction(async (db) => {
      if (!(await findTier(db, id))) return refusedField('', GONE);
      await setTierRetired(db, id, isRetired ? at : null);
      await record(db, actor, at, isRetired ? 'tier retired' : 'tier brought back', `tier:${id}`);
      return done(null);
    });
  },
);

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

export const retireOffer = staffUse('set tiers')(
  'retire-offer',
  retireSchema,
  async (actor, { id, isRetired }): Promise<Result<null>> => {
    const at = siteNow(await currentSite());
    return transaction(async (db) => {
      if (!(await findOffer(db, id))) return refusedField('', GONE);
      await setOfferRetired(db, id, isRetired ? at : null);
      await record(db, actor, at, isRetired ? 'offer retired' : 'offer brought back', `offer:${id}`);
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
