import { transaction } from '@/platform/store/db';
import { findOffer, setOfferRetired } from '@/tiers/store/offers';
import { findTier, setTierRetired } from '@/tiers/store/tiers';
import { siteNow } from '@/platform/clock';
import { record } from '@/platform/record';
import { done, refusedField, type Result } from '@/platform/result';
import { currentSite } from '@/platform/site';
import { slug } from '@/platform/inputs';
import { staffUse } from '@/platform/use';
import { z } from 'zod';

const retireSchema = z.object({ id: slug, isRetired: z.boolean() });

/** Retires a tier: nobody can join with it, and those who hold it keep it. Or brings it back. */
export const retireTier = staffUse('set tiers')(
  'retire-tier',
  retireSchema,
  async (actor, { id, isRetired }): Promise<Result<null>> => {
    const at = siteNow(await currentSite());
    return transaction(async (db) => {
      if (!(await findTier(db, id))) return refusedField('', 'thing.gone');
      await setTierRetired(db, id, isRetired ? at : null);
      await record(db, actor, at, isRetired ? 'tier retired' : 'tier brought back', `tier:${id}`);
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
      if (!(await findOffer(db, id))) return refusedField('', 'thing.gone');
      await setOfferRetired(db, id, isRetired ? at : null);
      await record(db, actor, at, isRetired ? 'offer retired' : 'offer brought back', `offer:${id}`);
      return done(null);
    });
  },
);
