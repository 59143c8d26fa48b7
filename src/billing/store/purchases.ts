import type { Purchase } from '@/core/billing/book';
import type { Instant, Length } from '@/core/instants';
import type { HoldingId, MemberId, PurchaseId } from '@/core/ids';
import { lengthSchema } from '@/core/offers/offer-schema';
import { many, maybeOne, prepared, run, type Db } from '@/platform/store/db';
import { sealedColumn } from '@/platform/store/sealed';
import type { Mode } from '@/platform/store/site';

/** Something that was bought, or is being paid for. */
export type StoredPurchase = {
  id: PurchaseId;
  memberId: MemberId;
  mode: Mode;
  productId: string;
  /** What the product is called now. */
  name: string;
  kind: Purchase['kind'];
  /** The pass, or the tier of a gift card. */
  item: string;
  lasts: Length | null;
  mostDevices: number | null;
  state: Purchase['state'];
  /** Its personal code, sealed, from when it is paid. */
  codeSealed: string | null;
  methodLabel: string | null;
  /** The site's clock. */
  at: Instant;
};

const PURCHASE = `SELECT u.id, u.member_id, u.mode, u.product_id, d.name, u.kind, u.item, u.lasts, u.most_devices, u.state, u.code_sealed, u.method_label, u.at
  FROM purchases u JOIN products d ON d.id = u.product_id`;
const JSON_COLUMNS = { lasts: lengthSchema };

export async function findPurchase(db: Db, id: string): Promise<StoredPurchase | undefined> {
  return maybeOne(db, `${PURCHASE} WHERE u.id = $1`, [id], JSON_COLUMNS);
}

/** The purchase that has a personal code, by the hash of that; also one that was refunded since. */
export async function findPurchaseByCode(db: Db, hash: Buffer): Promise<StoredPurchase | undefined> {
  return maybeOne(db, `${PURCHASE} WHERE u.code_hash = $1`, [hash], JSON_COLUMNS);
}

const LIST_PURCHASES_OF = prepared(
  'list-purchases-of',
  `${PURCHASE} WHERE u.member_id = $1 AND u.mode = $2 AND u.state <> 'pending' ORDER BY u.at DESC, u.id`,
);

/** What a member has bought in a mode and paid, the newest first. */
export async function listPurchasesOf(db: Db, memberId: string, mode: Mode): Promise<StoredPurchase[]> {
  return many(db, LIST_PURCHASES_OF, [memberId, mode], JSON_COLUMNS);
}

/** The ids of the gift cards of a mode, which are those of their codes too. */
export async function listGiftCards(db: Db, mode: Mode): Promise<PurchaseId[]> {
  const rows = await many<{ id: PurchaseId }>(
    db,
    `SELECT id FROM purchases WHERE kind = 'gift-card' AND mode = $1`,
    [mode],
  );
  return rows.map(({ id }) => id);
}

/**
 * Takes, for a lease of real seconds, a purchase whose payment a crash or silence left open, or that its buyer left unpaid
 * before an instant. Of two workers each takes another.
 */
export async function claimOpenPurchase(
  db: Db,
  leaseSeconds: number,
): Promise<{ id: PurchaseId; memberId: MemberId; mode: Mode } | undefined> {
  return maybeOne(
    db,
    `UPDATE purchases SET busy_until = now() + make_interval(secs => $1) WHERE id = (
       SELECT u.id FROM purchases u WHERE u.state = 'pending' AND (u.busy_until IS NULL OR u.busy_until <= now())
         AND (u.created_at < now() - interval '1 day' OR EXISTS (
           SELECT 1 FROM charges c JOIN payments p ON p.charge_id = c.id WHERE c.purchase_id = u.id AND p.state = 'intent'))
       ORDER BY u.created_at LIMIT 1 FOR UPDATE SKIP LOCKED
     ) RETURNING id, member_id, mode`,
    [leaseSeconds],
  );
}

export async function extendPurchaseLease(db: Db, id: string, seconds: number): Promise<void> {
  await run(db, 'UPDATE purchases SET busy_until = now() + make_interval(secs => $2) WHERE id = $1', [
    id,
    seconds,
  ]);
}

/** A gift card that was refunded, and who holds what its code gave; null where nobody has used it. */
export type GiftToEnd = {
  id: PurchaseId;
  mode: Mode;
  memberId: MemberId | null;
  holdingId: HoldingId | null;
};

/** The oldest refunded gift card whose gift has not been looked at yet, without a lock. */
export async function nextGiftToEnd(db: Db): Promise<GiftToEnd | undefined> {
  return maybeOne(
    db,
    `SELECT u.id, u.mode, c.member_id, c.holding_id FROM purchases u
     LEFT JOIN LATERAL (SELECT h.member_id, h.id AS holding_id FROM codes k JOIN code_uses s ON s.code_id = k.id JOIN holdings h ON h.id = s.holding_id
       WHERE k.batch_id = u.id AND h.mode = u.mode LIMIT 1) c ON true
     WHERE u.kind = 'gift-card' AND u.state = 'ended' AND NOT u.gift_ended ORDER BY u.at, u.id LIMIT 1`,
  );
}

/** Notes that what a refunded gift card gave has been ended. False: another worker was first. */
export async function noteGiftEnded(db: Db, id: PurchaseId): Promise<boolean> {
  return (
    (await run(db, 'UPDATE purchases SET gift_ended = true WHERE id = $1 AND NOT gift_ended', [id])) === 1
  );
}

/** By what a purchase is paid from now on: another card, after one that was declined. */
export async function setPurchasePayer(
  db: Db,
  id: string,
  payer: {
    gatewayAccountId: string | null;
    customerRef: string | null;
    methodRef: string | null;
    methodLabel: string | null;
    methodExpires: string | null;
  },
): Promise<void> {
  await run(
    db,
    'UPDATE purchases SET gateway_account_id = $2, customer_ref = $3, method_ref = $4, method_label = $5, method_expires = $6 WHERE id = $1',
    [id, payer.gatewayAccountId, payer.customerRef, payer.methodRef, payer.methodLabel, payer.methodExpires],
  );
}

export const SEALED_PURCHASE_CODES = sealedColumn('codes of purchases', 'purchases', 'code_sealed');
