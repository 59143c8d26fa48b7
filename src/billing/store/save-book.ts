import type { Book, Checkout, Holding, Purchase, Quote, Subscription, Summary } from '@/core/billing/book';
import { nextWorkAt } from '@/core/billing/due';
import { prepared, run, together, type Transaction } from '@/platform/store/db';
import type { BookOf, StoredBook } from './book';
import { byId, changes, done, type Details, type Pair } from './book-changes';
import { type Account } from './book-rows';
import { versionOf } from './book-from-rows';
import { saveBoughtPass, savePurchase, type PurchaseAccount } from './purchase-rows';
import { saveCharges, saveCredit, saveDispute, saveRefund, saveUses } from './save-charges';

/** Also those for which the worker has something else to do than before. */
function changedSubscriptions(was: Book, after: Book): Pair<Subscription>[] {
  const known = new Map(
    changes(was.subscriptions, after.subscriptions, byId).map((pair) => [pair.is.id, pair]),
  );
  return after.subscriptions.flatMap((is) => {
    const old = was.subscriptions.find(({ id }) => id === is.id);
    const isSame = old && nextWorkAt(was, old).at === nextWorkAt(after, is).at;
    return known.get(is.id) ?? (isSame || !old ? [] : [{ was: old, is }]);
  });
}

/** Also those for which money was asked again. */
function changedPurchases(was: Book, after: Book): Pair<Purchase>[] {
  const asked = changes(was.charges, after.charges, byId).flatMap(({ is }) => is.purchase ?? []);
  return after.purchases.flatMap((is) => {
    const old = was.purchases.find(({ id }) => id === is.id);
    const isSame = old && !asked.includes(is.id) && JSON.stringify(old) === JSON.stringify(is);
    return isSame ? [] : [{ was: old, is }];
  });
}

/**
 * Stores what a step changed, under the lock that the caller holds; what was not changed is not written. The answer is the
 * book as it lies there now. @throws conflicts that the constraints find
 */
export async function saveBook(
  db: Transaction,
  before: StoredBook,
  after: Book,
  details: Details,
): Promise<StoredBook> {
  const was = before.book;
  const of: BookOf = { memberId: before.memberId, mode: before.mode };
  const stored: StoredBook = {
    ...before,
    version: before.version + 1,
    book: after,
    accounts: new Map([...before.accounts, ...(details.accounts ?? [])]),
  };
  const subscriptions = changedSubscriptions(was, after);
  // What ends makes place first: one runs at a time.
  const places = [...subscriptions].sort((a, b) => order(a) - order(b));
  // None waits for the answer to another; they are done in this order.
  await together([
    ...places.map((pair) => saveSubscription(db, of, pair, stored, details)),
    ...changedPurchases(was, after).map(({ was: old, is }) =>
      savePurchase(db, of, is, !old, stored.accounts.get(is.id) as PurchaseAccount | undefined, {
        book: after,
        ...details,
      }),
    ),
    ...saveCharges(db, of, was, stored, details),
    ...changes(was.credits, after.credits, byId).map((pair) => saveCredit(db, of, pair, details)),
    ...saveUses(db, was, after),
    ...changes(was.holdings, after.holdings, byId).map((pair) => saveHolding(db, of, pair)),
    ...changes(was.payments, after.payments, byId)
      .filter(({ was: old, is }) => is.dispute !== (old?.dispute ?? 'none'))
      .map(({ is }) => saveDispute(db, of, is, details)),
    ...changes(was.refunds, after.refunds, byId).map((pair) => saveRefund(db, of, pair, after, details)),
    ...changes(was.summaries, after.summaries, ({ track }) => track).map(({ is }) => saveSummary(db, of, is)),
    ...changes(was.checkouts, after.checkouts, byId).map(({ is }) => saveCheckout(db, is)),
    ...(after.quote && after.quote.id !== was.quote?.id ? [saveQuote(db, of, after.quote)] : []),
    run(db, SAVE_VERSION, [of.memberId, of.mode]),
  ]);
  return stored;
}

const SAVE_VERSION = prepared(
  'save-book-version',
  'UPDATE books SET version = version + 1 WHERE member_id = $1 AND mode = $2',
);

async function saveSummary(db: Transaction, { memberId, mode }: BookOf, is: Summary): Promise<void> {
  await run(
    db,
    `INSERT INTO book_summaries (member_id, mode, track, had_trial, joined_at, has_switched_up) VALUES ($1, $2, $3, $4, $5, $6)
     ON CONFLICT (member_id, mode, track) DO UPDATE SET had_trial = $4, joined_at = $5, has_switched_up = $6`,
    [memberId, mode, is.track, is.hadTrial, is.joinedAt, is.hasSwitchedUp],
  );
}

const order = ({ was, is }: Pair<Subscription>): number => (is.state === 'ended' ? 0 : was ? 1 : 2);
const UPDATE_SUBSCRIPTION = prepared(
  'save-subscription',
  `UPDATE subscriptions SET offer_version_id = $2, state = $3, begun_by = $4, replaces_id = $5, anchor_at = $6, takes_up_step = $7, takes_up_n = $8,
     period_step = $9, period_n = $10, period_to = $11, skip_trial = $12, skip_fee = $13, began_at = $14, ended_at = $15, paid_through = $16,
     unpaid_charge_id = $17, first_failed_at = $18, due_at = $19, changed_at = $20, next_at = $21, pauses = $22, switches_to = $23, moves_to = $24,
     discount = $25, disputes = $26, ended_unpaid = $27, charges_issued = $28, events = $29, remind_at = $30,
     busy_until = now() + make_interval(secs => $31), added_tax = $32 WHERE id = $1`,
);
const INSERT_SUBSCRIPTION = `INSERT INTO subscriptions (id, offer_version_id, state, begun_by, replaces_id, anchor_at, takes_up_step, takes_up_n,
     period_step, period_n, period_to, skip_trial, skip_fee, began_at, ended_at, paid_through, unpaid_charge_id, first_failed_at, due_at, changed_at, next_at,
     pauses, switches_to, moves_to, discount, disputes, ended_unpaid, charges_issued, events, remind_at, busy_until,
     member_id, mode, track, slot, added_tax, tax_country, gateway_account_id, customer_ref, method_ref, method_label, method_expires)
   VALUES ($1, $2, $3, $4, $5, $6, $7, $8, $9, $10, $11, $12, $13, $14, $15, $16, $17, $18, $19, $20, $21, $22, $23, $24, $25, $26, $27, $28, $29, $30,
     now() + make_interval(secs => $31), $32, $33, $34, $35, $36, $37, $38, $39, $40, $41, $42)`;

async function saveSubscription(
  db: Transaction,
  { memberId, mode }: BookOf,
  { was, is: s }: Pair<Subscription>,
  stored: StoredBook,
  details: Details,
): Promise<void> {
  const version = (key: string | null) => key && versionOf(key).versionId;
  const next = nextWorkAt(stored.book, s);
  const values = [
    s.id,
    version(s.offer),
    s.state,
    s.begunBy,
    s.replaces,
    s.place.anchor,
    s.place.from.step,
    s.place.from.n,
    s.place.last?.step,
    s.place.last?.n,
    s.place.last?.to,
    s.place.skipTrial,
    s.place.skipFee,
    s.beganAt,
    s.endedAt,
    s.paidThrough,
    s.unpaid,
    s.firstFailedAt,
    s.dueAt,
    s.changedAt,
    next.at,
    s.pauses,
    version(s.switchesTo),
    version(s.movesTo),
    s.discount,
    s.disputes,
    s.endedUnpaid,
    s.charges,
    s.events,
    details.remindAt(s),
    next.isAsked ? details.leaseSeconds : 0,
  ];
  if (was) return done(await run(db, UPDATE_SUBSCRIPTION, [...values, versionOf(s.offer).addedTax]));
  const account = stored.accounts.get(s.id) ?? inherited(stored, s);
  stored.accounts.set(s.id, account);
  await run(db, INSERT_SUBSCRIPTION, [
    ...values,
    memberId,
    mode,
    s.track,
    s.slot,
    account.addedTax,
    account.taxCountry,
    account.gatewayAccountId,
    account.customerRef,
    account.methodRef,
    account.methodLabel,
    account.methodExpires,
  ]);
}

/** What takes the place of another is paid as that one was. */
function inherited({ accounts }: StoredBook, { replaces, id }: Subscription): Account {
  const account = accounts.get(replaces ?? '');
  if (!account) throw new Error(`subscription ${id} has no account`);
  return account;
}

const UPDATE_HOLDING = prepared(
  'save-holding',
  'UPDATE holdings SET until_at = $2, is_paid = $3 WHERE id = $1',
);

async function saveHolding(
  db: Transaction,
  { memberId, mode }: BookOf,
  { was, is: h }: Pair<Holding>,
): Promise<void> {
  if (h.kind === 'pass') return saveBoughtPass(db, { memberId, mode }, h, !was);
  if (was) return done(await run(db, UPDATE_HOLDING, [h.id, h.to, h.isPaid]));
  await run(
    db,
    `INSERT INTO holdings (id, until_at, is_paid, member_id, mode, why, subscription_id, tier_id, from_at, since_at)
     VALUES ($1, $2, $3, $4, $5, $6, $7, $8, $9, $10)`,
    [h.id, h.to, h.isPaid, memberId, mode, h.why, h.subscription, h.tier, h.from, h.since],
  );
}

async function saveCheckout(db: Transaction, c: Checkout): Promise<void> {
  await run(
    db,
    `UPDATE checkouts SET state = $2, subscription_id = $3, replaced_events = $4, answers = CASE WHEN $2 = 'expired' THEN '[]' ELSE answers END WHERE id = $1`,
    [c.id, c.state, c.subscription, c.replacedEvents],
  );
}

async function saveQuote(db: Transaction, { memberId, mode }: BookOf, q: Quote): Promise<void> {
  const { versionId, addedTax } = versionOf(q.to);
  const credit = q.plan.unused.reduce((sum, one) => sum + one.amount, 0);
  await run(
    db,
    `INSERT INTO switch_quotes (id, member_id, subscription_id, mode, offer_version_id, added_tax, direction, at_once, at, events, credit, unused)
     VALUES ($1, $2, $3, $4, $5, $6, $7, $8, $9, $10, $11, $12)`,
    [
      q.id,
      memberId,
      q.subscription,
      mode,
      versionId,
      addedTax,
      q.plan.direction,
      q.plan.atOnce,
      q.at,
      q.events,
      credit,
      JSON.stringify(q.plan.unused),
    ],
  );
}
