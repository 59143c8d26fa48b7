import { EARNING } from '@/core/billing/states';
import { listed } from '@/platform/store/conditions';
import type { Subscription } from '@/core/billing/book';
import { built, many, preparedForm, run, type Db } from '@/platform/store/db';
import type { Mode } from '@/platform/store/site';
import { METHOD } from './book';
import { rowOf, type Account, type Json, type SubscriptionRow } from './book-rows';
import { accountOf, subscriptionOf } from './book-from-rows';
import type { MemberId, OfferVersionId } from '@/core/ids';

/** A subscription by itself, to be shown; what happens to it happens in its member's book. */
export type StoredSubscription = Subscription &
  Account & { memberId: MemberId; mode: Mode; offerVersionId: OfferVersionId };

/** A subscription `s` that is paid by the gateway account `a`, as JSON that `storedFrom` reads. */
export const SUBSCRIPTION = `to_jsonb(s) || jsonb_build_object('method', ${METHOD})`;
const SELECT = `SELECT ${SUBSCRIPTION} AS row FROM subscriptions s LEFT JOIN gateway_accounts a ON a.id = s.gateway_account_id`;

export function storedFrom(json: Json): StoredSubscription {
  const row = rowOf<SubscriptionRow>(json);
  return {
    ...subscriptionOf(row),
    ...accountOf(row),
    memberId: row.member_id,
    mode: row.mode,
    offerVersionId: row.offer_version_id,
  };
}

export async function listRows(db: Db, rest: string, values: unknown[]): Promise<StoredSubscription[]> {
  const rows = await many<{ row: Json }>(db, preparedForm(`${SELECT} ${rest}`), values, { row: built });
  return rows.map(({ row }) => storedFrom(row));
}

export async function findSubscription(db: Db, id: string): Promise<StoredSubscription | undefined> {
  return (await listRows(db, 'WHERE s.id = $1', [id]))[0];
}

/** Running subscriptions first, then ended ones, newest first; what has not begun is left out. */
export async function listSubscriptionsOf(
  db: Db,
  memberId: MemberId,
  mode: Mode,
): Promise<StoredSubscription[]> {
  return listRows(
    db,
    `WHERE s.member_id = $1 AND s.mode = $2 AND s.began_at IS NOT NULL ORDER BY (s.state <> 'ended') DESC, s.began_at DESC, s.created_at DESC`,
    [memberId, mode],
  );
}

export async function listSubscriptionsById(db: Db, ids: string[]): Promise<StoredSubscription[]> {
  return listRows(db, 'WHERE s.id = ANY ($1)', [ids]);
}

/** Running subscriptions of a mode by tier, with the version and step they are in: what monthly income is made of. */
export async function listRunningSteps(
  db: Db,
  mode: Mode,
): Promise<{ offerVersionId: OfferVersionId; step: number; count: number }[]> {
  return many(
    db,
    `SELECT offer_version_id, coalesce(period_step, 0) AS step, count(*)::integer AS count FROM subscriptions
     WHERE mode = $1 AND state IN ${listed(EARNING)} GROUP BY 1, 2`,
    [mode],
  );
}

/** How a subscription is paid from now on; with the account goes what was kept there. */
export async function setAccount(
  db: Db,
  id: string,
  account: Pick<
    Account,
    'gatewayAccountId' | 'customerRef' | 'methodRef' | 'methodLabel' | 'methodExpires' | 'taxCountry'
  >,
): Promise<void> {
  await run(
    db,
    `UPDATE subscriptions SET gateway_account_id = $2, customer_ref = $3, method_ref = $4, method_label = $5, method_expires = $6, tax_country = $7 WHERE id = $1`,
    [
      id,
      account.gatewayAccountId,
      account.customerRef,
      account.methodRef,
      account.methodLabel,
      account.methodExpires,
      account.taxCountry,
    ],
  );
}

/** Where a member is, for the tax of what their subscriptions charge from now on. */
export async function setTaxCountry(db: Db, memberId: MemberId, country: string): Promise<void> {
  await run(db, `UPDATE subscriptions SET tax_country = $2 WHERE member_id = $1 AND state <> 'ended'`, [
    memberId,
    country,
  ]);
}
