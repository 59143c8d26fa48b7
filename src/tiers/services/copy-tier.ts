import { chooseKeyCut } from '@/core/key-cut';
import { slugify } from '@/core/content/slug';
import { lock, transaction, type Transaction } from '@/platform/store/db';
import { addOfferVersion, findOffer, listOffers, saveOffer, type StoredOffer } from '@/tiers/store/offers';
import { findTier, listTiers, saveTier, setTaxKind } from '@/tiers/store/tiers';
import { siteNow } from '@/platform/clock';
import { record } from '@/platform/record';
import { done, refusedField, type Result } from '@/platform/result';
import { freeId } from '@/platform/free-id';
import { currentSite } from '@/platform/site';
import { slug } from '@/platform/inputs';
import { staffUse } from '@/platform/use';
import type { TierId } from '@/core/ids';

const freeName = (wanted: string, taken: string[]): string => {
  const names = new Set(taken.map((name) => name.toLowerCase()));
  if (!names.has(wanted.toLowerCase())) return wanted;
  for (let n = 2; ; n++) if (!names.has(`${wanted} ${n}`.toLowerCase())) return `${wanted} ${n}`;
};

/** Copies a tier with its offers: the copy has a key of its own, is not on the join page yet, and nobody holds it. */
export const copyTier = staffUse('set tiers')(
  'copy-tier',
  slug,
  async (actor, id): Promise<Result<{ id: string }>> => {
    const at = siteNow(await currentSite());
    return transaction(async (db) => {
      await lock(db, 'tiers');
      const tiers = await listTiers(db);
      const tier = await findTier(db, id);
      if (!tier) return refusedField('', 'tier.gone');
      const name = freeName(
        `${tier.name} copy`,
        tiers.map((other) => other.name),
      );
      const copyId = freeId(slugify(name), new Set(tiers.map((other) => other.id)));
      const rungs = tiers.filter((other) => other.ladderId === tier.ladderId).map((other) => other.rung ?? 0);
      await saveTier(db, {
        ...tier,
        id: copyId,
        name,
        reference: '',
        onJoinPage: false,
        rung: tier.ladderId === null ? null : Math.max(0, ...rungs) + 1,
        position: tiers.length,
        keyCut: chooseKeyCut(tiers.map((other) => other.keyCut)),
      });
      await setTaxKind(db, [copyId], tier.taxKindId);
      for (const offer of await listOffers(db)) {
        if (offer.tierId === id && !offer.retiredAt) await copyInto(db, offer, copyId, offer.name);
      }
      await record(db, actor, at, 'tier made', `tier:${copyId}`, { name, copyOf: id });
      return done({ id: copyId });
    });
  },
);

/** Copies an offer beside the one it is copied from, not on sale yet. */
export const copyOffer = staffUse('set tiers')(
  'copy-offer',
  slug,
  async (actor, id): Promise<Result<{ id: string; tierId: TierId }>> => {
    const at = siteNow(await currentSite());
    return transaction(async (db) => {
      await lock(db, 'offers');
      const offer = await findOffer(db, id);
      if (!offer) return refusedField('', 'offer.gone');
      const beside = (await listOffers(db)).filter((other) => other.tierId === offer.tierId);
      const name = freeName(
        `${offer.name} copy`.slice(0, 40),
        beside.map((other) => other.name),
      );
      const copyId = await copyInto(db, { ...offer, onSale: false }, offer.tierId, name);
      await record(db, actor, at, 'offer made', `offer:${copyId}`, { name, copyOf: id });
      return done({ id: copyId, tierId: offer.tierId });
    });
  },
);

async function copyInto(db: Transaction, offer: StoredOffer, tierId: TierId, name: string): Promise<string> {
  const taken = new Set((await listOffers(db)).map((other) => other.id));
  const id = freeId(slugify(`${tierId}-${name}`), taken);
  await saveOffer(db, { id, tierId, name, onSale: offer.onSale, holderPrices: offer.holderPrices });
  // A step that gave the tier it is copied from now gives the copy.
  const steps = offer.definition.steps.map((step) =>
    step.tier === offer.tierId ? { ...step, tier: tierId } : step,
  );
  await addOfferVersion(db, id, { ...offer.definition, tier: tierId, steps }, offer.isPaid);
  return id;
}
