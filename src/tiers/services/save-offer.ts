import { isDeepStrictEqual } from 'node:util';
import { z } from 'zod';
import { orNothing, seenVersion } from '@/platform/form-fields';
import { localDate } from '@/core/calendar';
import type { Instant } from '@/core/instants';
import { slugify } from '@/core/content/slug';
import { isPaid, stepsOver, type Offer } from '@/core/offers/offer';
import { holderPricesSchema } from '@/core/tiers/holder-prices';
import { offerSchema } from '@/core/offers/offer-schema';
import { quoteOffer } from '@/core/offers/quote';
import { lock, transaction, type Transaction } from '@/platform/store/db';
import { addOfferVersion, findOffer, listOffers, saveOffer as store } from '@/tiers/store/offers';
import { listTiers } from '@/tiers/store/tiers';
import { siteNow } from '@/platform/clock';
import { record } from '@/platform/record';
import { done, refusedField, type Result } from '@/platform/result';
import { freeId } from '@/platform/free-id';
import { currentSite } from '@/platform/site';
import { staffUse } from '@/platform/use';
import { say } from '@/words/problems';
import type { TierId } from '@/core/ids';

const inputSchema = z.object({
  id: z.preprocess(
    orNothing,
    z
      .string()
      .regex(/^[a-z0-9-]+$/)
      .optional(),
  ),
  name: z.string().trim().min(1, say('offer.no-name')).max(40),
  onSale: z.boolean().optional(),
  /** The version that was opened, where an existing offer is changed. */
  seenVersion,
  definition: offerSchema,
  /** Left out: as they were. */
  holderPrices: z.array(z.unknown(), say('holder.unreadable')).pipe(holderPricesSchema).optional(),
});

/**
 * Makes an offer or changes one. What was bought never changes: other money is a new version, for those who join
 * from now on. Problems of the definition are keyed by its own paths: "definition.steps.1.amount".
 */
export const saveOffer = staffUse('set tiers')(
  'save-offer',
  inputSchema,
  async (actor, input): Promise<Result<{ id: string; tierId: TierId; version: number }>> => {
    const { name } = input;
    const { id: _, ...definition } = input.definition;
    const site = await currentSite();
    const at = siteNow(site);
    return transaction(async (db) => {
      await lock(db, 'offers');
      const known = input.id ? await findOffer(db, input.id) : undefined;
      const { onSale } = input;
      if (input.seenVersion !== undefined && known && known.version !== input.seenVersion)
        return refusedField('', 'record.saved-elsewhere');
      const isSame = known !== undefined && isDeepStrictEqual(known.definition, definition);
      // What was saved once may have its dates behind it: its name can still be changed.
      const against = isSame ? null : await whyImpossible(db, definition, site.zone, at);
      if (against) return against;
      const tiers = new Set((await listTiers(db)).map((tier) => tier.id));
      if (input.holderPrices?.some(({ tierId }) => !tiers.has(tierId)))
        return refusedField('holderPrices', 'holder.no-tier');
      const offers = await listOffers(db);
      const twin = offers.find(
        (offer) =>
          offer.tierId === definition.tier &&
          offer.id !== known?.id &&
          offer.retiredAt === null &&
          offer.name.toLowerCase() === name.toLowerCase(),
      );
      if (twin) return refusedField('name', 'offer.taken', { name: twin.name });
      const id =
        known?.id ??
        freeId(input.id ?? slugify(`${definition.tier}-${name}`), new Set(offers.map((offer) => offer.id)));
      await store(db, { id, tierId: definition.tier, name, onSale, holderPrices: input.holderPrices });
      const version = isSame ? known.version : await addOfferVersion(db, id, definition, isPaid(definition));
      await record(db, actor, at, known ? 'offer changed' : 'offer made', `offer:${id}`, {
        version,
        name,
        ...(input.holderPrices && { before: known?.holderPrices, holderPrices: input.holderPrices }),
      });
      return done({ id, tierId: definition.tier, version });
    });
  },
);

async function whyImpossible(
  db: Transaction,
  definition: Offer,
  zone: string,
  at: Instant,
): Promise<ReturnType<typeof refusedField> | null> {
  const [over] = stepsOver(definition.steps, localDate(at, zone));
  if (over !== undefined) return refusedField(`definition.steps.${over}.until`, 'offer.step-over');
  if (!quoteOffer(definition, at, zone).hasAnything) {
    return refusedField('definition.steps', 'offer.over');
  }
  const tierIds = new Set((await listTiers(db)).map((tier) => tier.id));
  if (!tierIds.has(definition.tier)) return refusedField('', 'offer.tier-gone');
  const lost = definition.steps.findIndex((step) => step.tier !== undefined && !tierIds.has(step.tier));
  return lost === -1 ? null : refusedField(`definition.steps.${lost}.tier`, 'offer.step-tier-gone');
}
