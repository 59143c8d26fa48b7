import { listOffers, listJoinLinks } from '@/tiers/store/offers';
import { listPasses } from '@/tiers/store/passes';
import { listProducts, type Product } from '@/tiers/store/products';
import { listTiers } from '@/tiers/store/tiers';
import { shelved } from '@/platform/shelf';
import { pool } from '@/platform/store/db';

/** What pages of the site say of what is sold, each read once for each version of the site. What is charged is read anew. */
export const keptTiers = () => shelved('tiers', () => listTiers(pool()));
export const keptOffers = () => shelved('offers', () => listOffers(pool()));
export const keptJoinLinks = () => shelved('join links', () => listJoinLinks(pool()));
export const keptProducts = (): Promise<Product[]> => shelved('products', () => listProducts(pool()));
export const keptPasses = () => shelved('passes', () => listPasses(pool()));
