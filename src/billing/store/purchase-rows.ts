import { askedOf } from '@/core/billing/work';
import type { Book, Holding, Method, Purchase } from '@/core/billing/book';
import type { Instant, Length } from '@/core/instants';
import type { HoldingId, MemberId, PurchaseId } from '@/core/ids';
import { run, type Transaction } from '@/platform/store/db';
import { type Account } from './book-rows';
import { accountOf, type AccountRow } from './book-from-rows';
import type { Mode } from '@/platform/store/site';

/** What the book does not say of a purchase: what was sold, and who pays. Amounts in minor units. */
export type PurchaseAccount = Account & {
  productId: string;
  /** On how many other devices its code can be used; null: on any number. */
  mostDevices: number | null;
};

/** Whose book it is in. */
type Whose = { memberId: MemberId; mode: Mode };

export type PurchaseRow = {
  id: PurchaseId;
  kind: Purchase['kind'];
  item: string;
  lasts: Length | null;
  state: Purchase['state'];
  charges_issued: number;
  method: Method | null;
  product_id: string;
  most_devices: number | null;
} & Omit<AccountRow, 'remind_at'>;
export type BoughtPassRow = {
  id: HoldingId;
  purchase_id: PurchaseId;
  pass_id: string;
  since_at: Instant;
  until_at: Instant | null;
};

export const purchaseOf = (row: PurchaseRow): Purchase => ({
  id: row.id,
  kind: row.kind,
  item: row.item,
  lasts: row.lasts,
  method: row.method,
  state: row.state,
  charges: row.charges_issued,
});

export const purchaseAccountOf = (row: PurchaseRow): PurchaseAccount => ({
  ...accountOf({ ...row, remind_at: null }),
  productId: row.product_id,
  mostDevices: row.most_devices,
});

export const boughtPassOf = (row: BoughtPassRow): Holding => ({
  id: row.id,
  kind: 'pass',
  why: 'purchase',
  subscription: null,
  purchase: row.purchase_id,
  tier: row.pass_id,
  isPaid: false,
  from: row.since_at,
  to: row.until_at,
  since: row.since_at,
});

/** The code that a purchase gets when it is paid, sealed, and its hash. */
export type NewCode = () => { sealed: string; hash: Buffer };

/** Stores a purchase that a step added or changed. One that is paid gets its code, once. */
export async function savePurchase(
  db: Transaction,
  { memberId, mode }: Whose,
  is: Purchase,
  isNew: boolean,
  account: PurchaseAccount | undefined,
  { book, at, leaseSeconds, newCode }: { book: Book; at: Instant; leaseSeconds: number; newCode: NewCode },
): Promise<void> {
  const isAsked = book.charges.some((one) => one.purchase === is.id && askedOf(one));
  const lease = isAsked ? leaseSeconds : 0;
  if (isNew) {
    if (!account) throw new Error(`purchase ${is.id} has no account`);
    await run(
      db,
      `INSERT INTO purchases (id, member_id, mode, product_id, kind, item, lasts, most_devices, state, charges_issued, gateway_account_id,
         customer_ref, method_ref, method_label, method_expires, tax_country, added_tax, at, busy_until)
       VALUES ($1, $2, $3, $4, $5, $6, $7, $8, $9, $10, $11, $12, $13, $14, $15, $16, $17, $18, now() + make_interval(secs => $19))`,
      [
        is.id,
        memberId,
        mode,
        account.productId,
        is.kind,
        is.item,
        is.lasts && JSON.stringify(is.lasts),
        account.mostDevices,
        is.state,
        is.charges,
        account.gatewayAccountId,
        account.customerRef,
        account.methodRef,
        account.methodLabel,
        account.methodExpires,
        account.taxCountry,
        account.addedTax,
        at,
        lease,
      ],
    );
  } else
    await run(
      db,
      'UPDATE purchases SET state = $2, charges_issued = $3, busy_until = now() + make_interval(secs => $4) WHERE id = $1',
      [is.id, is.state, is.charges, lease],
    );
  if (is.state !== 'paid') return;
  const code = newCode();
  await run(db, 'UPDATE purchases SET code_sealed = $2, code_hash = $3 WHERE id = $1 AND code_hash IS NULL', [
    is.id,
    code.sealed,
    code.hash,
  ]);
}

/** Stores a pass that was bought. Its end is that of every device on which its code was used. */
export async function saveBoughtPass(
  db: Transaction,
  { memberId, mode }: Whose,
  is: Holding,
  isNew: boolean,
): Promise<void> {
  if (!isNew) {
    await run(
      db,
      `UPDATE held_passes SET until_at = greatest(since_at, $2::timestamptz) WHERE purchase_id = $1 AND (until_at IS NULL OR $2::timestamptz IS NULL OR until_at > $2)`,
      [is.purchase, is.to],
    );
    return;
  }
  await run(
    db,
    `INSERT INTO held_passes (id, pass_id, member_id, why, mode, since_at, until_at, purchase_id) VALUES ($1, $2, $3, 'purchase', $4, $5, $6, $7)`,
    [is.id, is.tier, memberId, mode, is.since, is.to, is.purchase],
  );
}
