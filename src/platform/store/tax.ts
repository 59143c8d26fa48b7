import type { TaxTable } from '@/core/tax';
import { run, type Transaction } from '@/platform/store/db';

export type TaxSettings = TaxTable & {
  homeCountry: string;
  seller: string;
  taxNumber: string;
  documentPrefix: string;
};

/** Replaces how sales are taxed, and the seller on invoices. Kinds in their order. */
export async function saveTax(db: Transaction, s: TaxSettings): Promise<void> {
  await run(
    db,
    'UPDATE site SET tax_way = $1, home_country = $2, seller = $3, tax_number = $4, document_prefix = $5',
    [s.way, s.homeCountry, s.seller, s.taxNumber, s.documentPrefix],
  );
  await run(db, 'DELETE FROM tax_kinds WHERE NOT id = ANY ($1)', [s.kinds.map((kind) => kind.id)]);
  await run(
    db,
    `INSERT INTO tax_kinds (id, name, position) SELECT id, name, n FROM unnest($1::text[], $2::text[]) WITH ORDINALITY AS k (id, name, n)
     ON CONFLICT (id) DO UPDATE SET name = excluded.name, position = excluded.position`,
    [s.kinds.map((kind) => kind.id), s.kinds.map((kind) => kind.name)],
  );
  await run(db, 'DELETE FROM tax_rates');
  await run(
    db,
    `INSERT INTO tax_rates (kind_id, country, name, rate)
     SELECT * FROM unnest($1::text[], $2::text[], $3::text[], $4::integer[])`,
    [
      s.rates.map((rate) => rate.kindId),
      s.rates.map((rate) => rate.country),
      s.rates.map((rate) => rate.name),
      s.rates.map((rate) => rate.rate),
    ],
  );
}
