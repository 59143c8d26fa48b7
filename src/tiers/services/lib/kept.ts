import type { OfferVersionId } from '@/core/ids';
import { listOffers, listJoinLinks, listOfferVersions } from '@/tiers/store/offers';
import { listJoinFields } from '@/tiers/store/join-fields';
import { listPasses } from '@/tiers/store/passes';
import { listProducts, type Product } from '@/tiers/store/products';
import { listTiers } from '@/tiers/store/tiers';
import { shelved } from '@/platform/shelf';
import { pool } from '@/platform/store/db';

/** What pages of the site say of what is sold, each read once for each version of the site. What is charged is read anew. */
export const keptTiers = () => shelved('tiers', () => listTiers(pool()));
export const keptOffers = () => shelved('offers', () => listOffers(pool()));
/** Offers as they were when they were bought, by the ids of their versions. */
export const keptVersions = (ids: OfferVersionId[]) =>
  shelved(`versions ${ids.toSorted().join(' ')}`, () => listOfferVersions(pool(), ids));
export const keptJoinLinks = () => shelved('join links', () => listJoinLinks(pool()));
export const keptProducts = (): Promise<Product[]> => shelved('products', () => listProducts(pool()));
export const keptJoinFields = () => shelved('join fields', () => listJoinFields(pool()));
export const keptPasses = () => shelved('passes', () => listPasses(pool()));
