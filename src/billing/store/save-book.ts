import type {
  Attempt,
  Book,
  Charge,
  Checkout,
  Credit,
  CreditUse,
  Holding,
  Payment,
  Purchase,
  Quote,
  Refund,
  Subscription,
  Summary,
} from '@/core/billing/book';
import type { Instant } from '@/core/instants';
import { nextWorkAt } from '@/core/billing/due';
import { prepared, run, together, type Transaction } from '@/platform/store/db';
import { type BookOf, type StoredBook } from './book';
import { versionOf, type Account } from './book-rows';
import { saveBoughtPass, savePurchase, type NewCode, type PurchaseAccount } from './purchase-rows';

/** What the book alone does not say of what a step adds. */
export type Details = {
  /** When the step was taken; the site's clock. */
  at: Instant;
  /** Of subscriptions that are new, where they are not paid as those whose place they take; and of purchases. */
  accounts?: Map<string, Account>;
  /** Seconds of real time for which no other process works on what is asked now. */
  leaseSeconds: number;
  /** When the member is told about the next charge. */
  remindAt: (s: Subscription) => Instant | null;
  /** The code of a purchase that is paid. */
  newCode: NewCode;
  /** What a payer writes on a transfer; used for a charge that has none yet. */
  newReference: () => string;
};

type Pair<T> = { was: T | undefined; is: T };

/** Those of a list that a step added or changed. A step shares what it leaves as it was, or copies it as it was. */
function changes<T extends object>(before: T[], after: T[], key: (one: T) => string): Pair<T>[] {
  const known = new Map(before.map((one) => [key(one), one]));
  return after.flatMap((is): Pair<T>[] => {
    const was = known.get(key(is));
    return was === is || (was && JSON.stringify(was) === JSON.stringify(is)) ? [] : [{ was, is }];
  });
}
/** A write of which nothing more is to be known. */
const done = (_: number): void => undefined;
const byId = ({ id }: { id: string }): string => id;

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
/** What is settled makes place for what is asked for: one attempt is open at a time. */
const openLast = (a: Pair<Attempt>, b: Pair<Attempt>): number =>
  Number(a.is.state === 'asked') - Number(b.is.state === 'asked');

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

const UPDATE_CHARGE = prepared(
  'save-charge',
  `UPDATE charges SET state = $2, paid_at = CASE WHEN $2 = 'paid' THEN coalesce(paid_at, $3) END, due_at = $4, period_to = $5, lived_from = $6, lived_to = $7, is_taken_back = $8 WHERE id = $1`,
);
const INSERT_CHARGE = prepared(
  'add-charge',
  `INSERT INTO charges (id, state, paid_at, due_at, period_to, lived_from, lived_to, is_taken_back, subscription_id, mode, number, kind, step, n, tier_id, period_kind,
     price, amount, joining_fee, due, currency, unused, uses_discount, is_move, is_invoiced, purchase_id)
   VALUES ($1, $2, CASE WHEN $2 = 'paid' THEN $3::timestamptz END, $4, $5, $6, $7, $8, $9, $10, $11, $12, $13, $14, $15, $16, $17, $18::bigint, $19, $20, $21, $22, $23, $24, $18::bigint = 0, $25)`,
);

/** Charges with the stretches that they paid for, and their attempts. */
function saveCharges(
  db: Transaction,
  of: BookOf,
  was: Book,
  stored: StoredBook,
  details: Details,
): Promise<void>[] {
  const { book: after } = stored;
  const charges = new Map(changes(was.charges, after.charges, byId).map((pair) => [pair.is.id, pair]));
  const all = new Map(charges);
  for (const { is } of changes(was.stretches, after.stretches, ({ charge }) => charge)) {
    const charge = after.charges.find(({ id }) => id === is.charge);
    if (charge && !all.has(charge.id)) all.set(charge.id, { was: charge, is: charge });
  }
  return [
    ...[...all.values()].map((pair) => saveCharge(db, of, pair, after, details)),
    ...[...charges.values()].flatMap(({ was: old, is }) =>
      changes(old?.attempts ?? [], is.attempts, byId)
        .sort(openLast)
        .map((pair) => saveAttempt(db, of, is, pair, stored, details)),
    ),
  ];
}

/** A pass that was bought is no tier. */
const tierOf = ({ purchase, period }: Charge, { purchases }: Book): string | null =>
  purchases.some(({ id, kind }) => id === purchase && kind === 'pass') ? null : period.tier;

async function saveCharge(
  db: Transaction,
  { mode }: BookOf,
  { was, is: c }: Pair<Charge>,
  book: Book,
  { at }: Details,
): Promise<void> {
  const lived = book.stretches.find(({ charge }) => charge === c.id);
  const values = [
    c.id,
    c.state,
    at,
    c.period.from,
    c.period.to,
    lived?.from,
    lived?.to,
    lived?.isTakenBack ?? false,
  ];
  if (was) return done(await run(db, UPDATE_CHARGE, values));
  await run(db, INSERT_CHARGE, [
    ...values,
    c.subscription,
    mode,
    c.number,
    c.kind,
    c.period.step,
    c.period.n,
    tierOf(c, book),
    c.period.kind,
    c.period.amount,
    c.amount,
    c.joiningFee,
    c.due,
    c.currency,
    JSON.stringify(c.unused),
    c.usesDiscount,
    c.isMove,
    c.purchase,
  ]);
}

const STATE_OF: Record<Attempt['state'], string> = {
  asked: 'intent',
  declined: 'declined',
  withdrawn: 'withdrawn',
  succeeded: 'succeeded',
};
const UPDATE_ATTEMPT = prepared(
  'save-attempt',
  `UPDATE payments SET state = $2, gateway_ref = coalesce($3, gateway_ref), decline_code = $4, is_returned = $5,
     settled_at = CASE WHEN $2 = 'intent' THEN NULL ELSE $6::timestamptz END WHERE id = $1`,
);
const INSERT_ATTEMPT = prepared(
  'add-attempt',
  `INSERT INTO payments (id, state, gateway_ref, decline_code, is_returned, settled_at, charge_id, mode, gateway_account_id, attempt, idempotency_key, amount, currency, at, by_member, until_at)
   VALUES ($1, $2, $3, $4, $5, CASE WHEN $2 = 'intent' THEN NULL ELSE $6::timestamptz END, $7, $8, $9, $10, $11, $12, $13, $14, $15, $16)`,
);

/** How the key of a money effect begins: what it belongs to and the charge's number; that of the attempt ends it. */
export const attemptKey = (charge: Charge, n: number): string => `${payerOf(charge)}:${charge.number}:${n}`;

/** By what the account is known that a charge is asked of: its subscription, or its purchase. */
export const payerOf = ({ subscription, purchase }: Charge): string => subscription ?? purchase ?? '';

async function saveAttempt(
  db: Transaction,
  { mode }: BookOf,
  charge: Charge,
  { was, is: one }: Pair<Attempt>,
  { book, accounts }: StoredBook,
  { at, newReference }: Details,
): Promise<void> {
  const isReturned = book.payments.some(({ id, isReturned: goesBack }) => id === one.id && goesBack);
  const code = one.state === 'declined' ? (one.code ?? '') : null;
  const values = [one.id, STATE_OF[one.state], one.ref, code, isReturned, at];
  if (was) return done(await run(db, UPDATE_ATTEMPT, values));
  const accountId = accounts.get(payerOf(charge))?.gatewayAccountId;
  // No gateway was asked: there is none to ask.
  if (!accountId) return;
  await run(db, INSERT_ATTEMPT, [
    ...values,
    charge.id,
    mode,
    accountId,
    one.n,
    attemptKey(charge, one.n),
    charge.due,
    charge.currency,
    one.at,
    one.byMember,
    one.until,
  ]);
  if (one.until !== null)
    await run(db, 'UPDATE charges SET reference = coalesce(reference, $2) WHERE id = $1', [
      charge.id,
      newReference(),
    ]);
}

async function saveCredit(
  db: Transaction,
  { memberId, mode }: BookOf,
  { was, is: c }: Pair<Credit>,
  { at }: Details,
): Promise<void> {
  const values = [c.id, c.spent, c.reserved, c.void];
  if (was)
    return done(
      await run(db, 'UPDATE credits SET spent = $2, reserved = $3, voided = $4 WHERE id = $1', values),
    );
  await run(
    db,
    `INSERT INTO credits (id, spent, reserved, voided, member_id, mode, currency, amount, payment_id, charge_id, reason, at)
     SELECT $1, $2, $3, $4, $5, $6, $7, $8, $9, c.id, 'unused days of ' || t.name, $11 FROM charges c JOIN tiers t ON t.id = c.tier_id WHERE c.id = $10`,
    [...values, memberId, mode, c.currency, c.given, c.payment, c.charge, at],
  );
}

type Use = CreditUse & { isSpent: boolean };

/** What is spent, and what is reserved for charges that are open; of one credit for one charge in one row. */
function usesOf({ uses, charges }: Book): Map<string, Use> {
  const all = new Map<string, Use>();
  const reserved = charges.flatMap(({ id, credit }) =>
    credit.map((one): Use => ({ ...one, charge: id, isSpent: false })),
  );
  for (const use of [...uses.map((one): Use => ({ ...one, isSpent: true })), ...reserved]) {
    const key = `${use.credit} ${use.charge}`;
    const known = all.get(key);
    all.set(key, known ? { ...known, amount: known.amount + use.amount } : use);
  }
  return all;
}

function saveUses(db: Transaction, before: Book, after: Book): Promise<number>[] {
  const [was, is] = [usesOf(before), usesOf(after)];
  const gone = [...was].filter(([key]) => !is.has(key));
  const changed = [...is].filter(([key, { amount, isSpent }]) => {
    const old = was.get(key);
    return old?.amount !== amount || old.isSpent !== isSpent;
  });
  return [
    ...gone.map(([, { credit, charge }]) =>
      run(db, 'DELETE FROM credit_uses WHERE credit_id = $1 AND charge_id = $2', [credit, charge]),
    ),
    ...changed.map(([, { credit, charge, amount, isSpent }]) =>
      run(
        db,
        `INSERT INTO credit_uses (credit_id, charge_id, amount, is_spent) VALUES ($1, $2, $3, $4)
         ON CONFLICT (credit_id, charge_id) DO UPDATE SET amount = $3, is_spent = $4`,
        [credit, charge, amount, isSpent],
      ),
    ),
  ];
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

async function saveDispute(db: Transaction, { mode }: BookOf, p: Payment, { at }: Details): Promise<void> {
  await run(
    db,
    `INSERT INTO disputes (payment_id, mode, state, opened_at, closed_at, lost) VALUES ($1, $2, $3, $4, CASE WHEN $3 = 'open' THEN NULL ELSE $4::timestamptz END, $5)
     ON CONFLICT (payment_id) DO UPDATE SET state = $3, closed_at = CASE WHEN $3 = 'open' THEN NULL ELSE $4::timestamptz END, lost = $5`,
    [p.id, mode, p.dispute, at, p.lost],
  );
}

async function saveRefund(
  db: Transaction,
  { mode }: BookOf,
  { was, is: r }: Pair<Refund>,
  book: Book,
  { at }: Details,
): Promise<void> {
  const values = [r.id, r.state === 'asked' ? 'intent' : r.state, r.ref, r.state === 'asked' ? null : at];
  if (was)
    return done(
      await run(db, 'UPDATE refunds SET state = $2, gateway_ref = $3, settled_at = $4 WHERE id = $1', values),
    );
  const payment = book.payments.find(({ id }) => id === r.payment);
  const charge = book.charges.find(({ id }) => id === payment?.charge);
  await run(
    db,
    `INSERT INTO refunds (id, state, gateway_ref, settled_at, payment_id, mode, idempotency_key, amount, currency, reason, ends_access, at)
     VALUES ($1, $2, $3, $4, $5, $6, $7, $8, $9, $10, $11, $12)`,
    [...values, r.payment, mode, r.key, r.amount, charge?.currency, r.reason, r.access === 'take', r.at],
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
