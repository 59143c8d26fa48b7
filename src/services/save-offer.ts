import { isDeepStrictEqual } from 'node:util';
import { z } from 'zod';
import { slugify } from '@/core/content/slug';
import { isPaid, offerSchema } from '@/core/offers/offer';
import { lock, transaction } from '@/store/db';
import {
  addOfferVersion,
  findOffer,
  findTier,
  listOffers,
  listTiers,
  saveOffer as store,
} from '@/store/tiers';
import { requireRight, type Actor } from './actor';
import { siteNow } from './clock';
import { quoteOffer } from './quote-offer';
import { record } from './record';
import { done, problemsOf, refused, refusedField, type Result } from './result';
import { freeId } from './save-tier';
import { currentSite } from './site';

const inputSchema = z.object({
  id: z
    .string()
    .regex(/^[a-z0-9-]+$/)
    .optional(),
  name: z
    .string()
    .trim()
    .min(1, 'Name the offer: “Monthly”, “Yearly”.')
    .max(40, 'A name has at most 40 characters.'),
  onSale: z.boolean().default(true),
  definition: offerSchema,
});

/**
 * Makes an offer or changes one. What was bought never changes: other money is a new version, for those who join
 * from now on. Problems of the definition stand under its own paths: "definition.steps.1.amount".
 */
export async function saveOffer(
  actor: Actor,
  raw: unknown,
): Promise<Result<{ id: string; version: number }>> {
  requireRight(actor, 'set tiers');
  const parsed = inputSchema.safeParse(raw);
  if (!parsed.success) return refused(problemsOf(parsed.error));
  const { name, onSale, definition } = parsed.data;
  const site = await currentSite();
  const at = siteNow(site);
  if (!quoteOffer(definition, at, site.zone, false).hasAnything) {
    return refusedField(
      'definition.steps',
      'Every date of this offer has passed: nobody who joins would get anything.',
    );
  }
  return transaction(async (db) => {
    await lock(db, 'offers');
    if (!(await findTier(db, definition.tier)))
      return refusedField('', 'The tier of this offer is not there any more.');
    const tierIds = new Set((await listTiers(db)).map((tier) => tier.id));
    const lost = definition.steps.findIndex((step) => step.tier !== undefined && !tierIds.has(step.tier));
    if (lost !== -1) return refusedField(`definition.steps.${lost}.tier`, 'That tier is not there any more.');
    const known = parsed.data.id ? await findOffer(db, parsed.data.id) : undefined;
    const id =
      known?.id ??
      freeId(
        parsed.data.id ?? slugify(`${definition.tier}-${name}`),
        new Set((await listOffers(db)).map((offer) => offer.id)),
      );
    await store(db, { id, tierId: definition.tier, name, onSale });
    const { id: _, ...money } = definition;
    const same = known && isDeepStrictEqual(known.definition, money);
    const version = same ? known.version : await addOfferVersion(db, id, money, isPaid(money));
    await record(db, actor, at, known ? 'offer changed' : 'offer made', `offer:${id}`, { version, name });
    return done({ id, version });
  });
}
