import type { Attempt, Book, Charge, Credit, CreditUse, Payment, Refund } from '@/core/billing/book';
import { prepared, run, type Transaction } from '@/platform/store/db';
import type { BookOf, StoredBook } from './book';
import { byId, changes, done, type Details, type Pair } from './book-changes';

/** What is settled makes place for what is asked for: one attempt is open at a time. */
const openLast = (a: Pair<Attempt>, b: Pair<Attempt>): number =>
  Number(a.is.state === 'asked') - Number(b.is.state === 'asked');

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
export function saveCharges(
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

/** Stores a credit as a step left it. */
export async function saveCredit(
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

/** What is spent of credits, and what is reserved; what is no longer is deleted. */
export function saveUses(db: Transaction, before: Book, after: Book): Promise<number>[] {
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

/** Stores the dispute of a payment, opened or closed. */
export async function saveDispute(
  db: Transaction,
  { mode }: BookOf,
  p: Payment,
  { at }: Details,
): Promise<void> {
  await run(
    db,
    `INSERT INTO disputes (payment_id, mode, state, opened_at, closed_at, lost) VALUES ($1, $2, $3, $4, CASE WHEN $3 = 'open' THEN NULL ELSE $4::timestamptz END, $5)
     ON CONFLICT (payment_id) DO UPDATE SET state = $3, closed_at = CASE WHEN $3 = 'open' THEN NULL ELSE $4::timestamptz END, lost = $5`,
    [p.id, mode, p.dispute, at, p.lost],
  );
}

/** Stores a refund as a step left it. */
export async function saveRefund(
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
