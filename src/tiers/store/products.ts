import type { Length } from '@/core/instants';
import type { TierId } from '@/core/ids';
import { lengthSchema } from '@/core/offers/offer-schema';
import { holderPricesSchema, type HolderPrice } from '@/core/tiers/holder-prices';
import { many, maybeOne, run, toMinor, type Db } from '@/platform/store/db';

/** What is bought once: a pass, or a gift card of a tier. */
export type Product = {
  id: string;
  name: string;
  /** In minor units, before tax that is added on top. */
  amount: number;
  currency: string;
  /** How long the pass is held, or the tier is given; null: for good. */
  lasts: Length | null;
  /** On how many other devices the code of a pass can be used; null: on any number. */
  mostDevices: number | null;
  taxKindId: string | null;
  onSale: boolean;
  /** What holders of some tiers pay less for it. */
  holderPrices: HolderPrice[];
  version: number;
} & ({ kind: 'pass'; passId: string; tierId: null } | { kind: 'gift-card'; passId: null; tierId: TierId });

const COLUMNS =
  'id, kind, pass_id, tier_id, name, amount, currency, lasts, most_devices, tax_kind_id, on_sale, holder_prices, version';
const JSON_COLUMNS = { lasts: lengthSchema, holderPrices: holderPricesSchema };
type Row = Omit<Product, 'amount'> & { amount: bigint };
const fromRow = (row: Row): Product => ({ ...row, amount: toMinor(row.amount) }) as Product;

export async function listProducts(db: Db): Promise<Product[]> {
  const rows = await many<Row>(
    db,
    `SELECT ${COLUMNS} FROM products ORDER BY kind, lower(name), id`,
    [],
    JSON_COLUMNS,
  );
  return rows.map(fromRow);
}

export async function findProduct(db: Db, id: string): Promise<Product | undefined> {
  const row = await maybeOne<Row>(db, `SELECT ${COLUMNS} FROM products WHERE id = $1`, [id], JSON_COLUMNS);
  return row && fromRow(row);
}

/** Adds a product, or replaces it if it has not changed since `version`. False if it has. */
export async function saveProduct(db: Db, product: Product): Promise<boolean> {
  const { id, kind, passId, tierId, name, amount, currency, lasts, mostDevices, taxKindId } = product;
  return (
    (await run(
      db,
      `INSERT INTO products (id, kind, pass_id, tier_id, name, amount, currency, lasts, most_devices, tax_kind_id, on_sale, holder_prices)
       VALUES ($1, $2, $3, $4, $5, $6, $7, $8, $9, $10, $11, $13)
       ON CONFLICT (id) DO UPDATE SET name = $5, amount = $6, currency = $7, lasts = $8, most_devices = $9, tax_kind_id = $10, on_sale = $11,
         holder_prices = $13, version = products.version + 1 WHERE products.version = $12`,
      [
        id,
        kind,
        passId,
        tierId,
        name,
        amount,
        currency,
        lasts && JSON.stringify(lasts),
        mostDevices,
        taxKindId,
        product.onSale,
        product.version,
        JSON.stringify(product.holderPrices),
      ],
    )) === 1
  );
}
