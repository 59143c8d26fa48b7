import type { Instant, LocalMonth } from '@/core/instants';
import { documentContentSchema, type DocumentContent, type DocumentKind } from '@/core/documents';
import type { KeyCut } from '@/core/key-cut';
import { keyCutSchema } from '@/core/key-cut-schema';
import { containing, where } from '@/platform/store/conditions';
import {
  many,
  maybeOne,
  one,
  prepared,
  preparedForm,
  run,
  toMinor,
  totalOf,
  type Db,
  type Transaction,
} from '@/platform/store/db';
import type { Mode } from '@/platform/store/site';
import type {
  ChargeId,
  CreditId,
  DisputeId,
  MemberId,
  PaymentId,
  RefundId,
  SubscriptionId,
} from '@/core/ids';

/** An invoice, or the document of a refund or credit. It never changes. Amounts in minor units; `at` by the site's clock. */
export type StoredDocument = {
  id: string;
  mode: Mode;
  kind: DocumentKind;
  label: string;
  memberId: MemberId | null;
  chargeId: ChargeId;
  currency: string;
  total: number;
  tax: number;
  at: Instant;
  content: DocumentContent;
};
export type NewDocument = Omit<StoredDocument, 'id'> & {
  number: number;
  refundId: RefundId | null;
  disputeId: DisputeId | null;
  creditId: CreditId | null;
};
type Row = Omit<StoredDocument, 'total' | 'tax'> & { total: bigint; tax: bigint };
const fromRow = (row: Row): StoredDocument => ({ ...row, total: toMinor(row.total), tax: toMinor(row.tax) });
const CONTENT = { content: documentContentSchema };
const COLUMNS =
  'd.id, d.mode, d.kind, d.label, d.member_id, d.charge_id, d.currency, d.total, d.tax, d.at, d.content';

/** The last number given in a mode, by kind, locked until the transaction ends: meanwhile nobody else gives one. */
export async function lockCounters(db: Transaction, mode: Mode): Promise<Record<DocumentKind, number>> {
  const rows = await many<{ kind: DocumentKind; last: number }>(
    db,
    'SELECT kind, last FROM document_counters WHERE mode = $1 ORDER BY kind FOR UPDATE',
    [mode],
  );
  return Object.fromEntries(rows.map((row) => [row.kind, row.last])) as Record<DocumentKind, number>;
}

/** Keeps documents in one statement, and how far their numbers have come. */
export async function insertDocuments(
  db: Transaction,
  mode: Mode,
  last: Record<DocumentKind, number>,
  documents: NewDocument[],
): Promise<void> {
  await run(
    db,
    `INSERT INTO documents (mode, kind, number, label, member_id, charge_id, refund_id, dispute_id, credit_id, currency, total, tax, at, content)
     SELECT mode, kind, number, label, "memberId", "chargeId", "refundId", "disputeId", "creditId", currency, total, tax, at, content
     FROM jsonb_to_recordset($1::jsonb) AS d (mode money_mode, kind text, number integer, label text, "memberId" uuid, "chargeId" uuid,
       "refundId" uuid, "disputeId" uuid, "creditId" uuid, currency char(3), total bigint, tax bigint, at timestamptz, content jsonb)`,
    [JSON.stringify(documents)],
  );
  for (const [kind, number] of Object.entries(last))
    await run(db, 'UPDATE document_counters SET last = $3 WHERE mode = $1 AND kind = $2 AND last <> $3', [
      mode,
      kind,
      number,
    ]);
}

// What has no document yet, of the mode $1.
const TO_INVOICE = 'c.paid_at IS NOT NULL AND NOT c.is_invoiced AND c.mode = $1';
const REFUNDS = `refunds r JOIN payments p ON p.id = r.payment_id AND NOT p.is_returned WHERE r.mode = $1 AND r.state = 'succeeded' AND NOT r.is_documented`;
const DISPUTES = `disputes d JOIN payments p ON p.id = d.payment_id WHERE d.mode = $1 AND d.state = 'lost' AND d.lost > 0 AND NOT d.is_documented`;
const CREDITS = 'credits c WHERE c.mode = $1 AND c.charge_id IS NOT NULL AND NOT c.is_documented';

const HAS_UNDOCUMENTED = prepared(
  'has-undocumented',
  `SELECT ${[`charges c WHERE ${TO_INVOICE}`, REFUNDS, DISPUTES, CREDITS].map((of) => `EXISTS (SELECT 1 FROM ${of})`).join(' OR ')} AS has`,
);

/** Whether anything waits for its document; a look that locks nothing. */
export async function hasUndocumented(db: Db, mode: Mode): Promise<boolean> {
  return (await one<{ has: boolean }>(db, HAS_UNDOCUMENTED, [mode])).has;
}

/** A paid charge that has no invoice yet, with everything an invoice says. */
export type Uninvoiced = {
  chargeId: ChargeId;
  memberId: MemberId | null;
  memberName: string;
  memberEmail: string;
  invoiceWords: string;
  /** '' of what was bought once: then the tier’s name is that of the product. */
  offerName: string;
  tierName: string;
  /** Null of a pass. */
  keyCut: KeyCut | null;
  taxKindId: string | null;
  taxCountry: string;
  amount: number;
  joiningFee: number;
  currency: string;
  from: Instant;
  to: Instant | null;
  at: Instant;
  /** What money paid of it; the rest was credit. */
  paid: number;
  through: string;
};

const FACTS = `
  SELECT c.id AS charge_id, m.id AS member_id, coalesce(m.name, j.name, '') AS member_name, coalesce(m.email, j.email, '') AS member_email,
    coalesce(m.invoice_words, '') AS invoice_words, coalesce(o.name, '') AS offer_name, coalesce(d.name, t.name) AS tier_name, t.key_cut,
    CASE WHEN d.id IS NULL THEN own.tax_kind_id ELSE d.tax_kind_id END AS tax_kind_id, coalesce(s.tax_country, u.tax_country) AS tax_country,
    c.amount, c.joining_fee, c.currency, coalesce(c.lived_from, c.due_at) AS "from", CASE WHEN c.lived_from IS NULL THEN c.period_to ELSE c.lived_to END AS "to", coalesce(c.paid_at, c.due_at) AS at,
    coalesce(p.amount, 0)::bigint AS paid, coalesce(s.method_label, u.method_label, a.label, '') AS through
  FROM charges c LEFT JOIN subscriptions s ON s.id = c.subscription_id
  LEFT JOIN offer_versions v ON v.id = s.offer_version_id LEFT JOIN offers o ON o.id = v.offer_id LEFT JOIN tiers own ON own.id = o.tier_id
  LEFT JOIN purchases u ON u.id = c.purchase_id LEFT JOIN products d ON d.id = u.product_id
  LEFT JOIN tiers t ON t.id = c.tier_id
  LEFT JOIN members m ON m.id = coalesce(s.member_id, u.member_id) LEFT JOIN checkouts j ON j.subscription_id = s.id
  LEFT JOIN payments p ON p.charge_id = c.id AND p.state = 'succeeded' AND NOT p.is_returned LEFT JOIN gateway_accounts a ON a.id = p.gateway_account_id`;
const KEY_CUT = { keyCut: keyCutSchema };
type FactsRow = Omit<Uninvoiced, 'amount' | 'joiningFee' | 'paid'> &
  Record<'amount' | 'joiningFee' | 'paid', bigint>;
const factsOf = (row: FactsRow): Uninvoiced => ({
  ...row,
  amount: toMinor(row.amount),
  joiningFee: toMinor(row.joiningFee),
  paid: toMinor(row.paid),
});

/** What was paid first comes first. A joining that came to nothing has the name that was typed. */
export async function listUninvoiced(db: Db, mode: Mode, limit: number): Promise<Uninvoiced[]> {
  const rows = await many<FactsRow>(
    db,
    `${FACTS} WHERE ${TO_INVOICE} ORDER BY c.paid_at, c.created_at LIMIT $2`,
    [mode, limit],
    KEY_CUT,
  );
  return rows.map(factsOf);
}

/** The charge of a subscription for which a transfer is awaited, as its invoice will have it. */
export async function findAwaitedFacts(
  db: Db,
  subscriptionId: SubscriptionId,
): Promise<Uninvoiced | undefined> {
  const row = await maybeOne<FactsRow>(
    db,
    `${FACTS} WHERE c.subscription_id = $1 AND c.paid_at IS NULL
       AND EXISTS (SELECT 1 FROM payments w WHERE w.charge_id = c.id AND w.state = 'intent' AND w.is_awaited)`,
    [subscriptionId],
    KEY_CUT,
  );
  return row && factsOf(row);
}

/** Money that went back, or that is owed, and has no document yet; its charge has an invoice. */
export type Undocumented = {
  kind: 'refund' | 'credit';
  refundId: RefundId | null;
  disputeId: DisputeId | null;
  creditId: CreditId | null;
  amount: number;
  reason: string;
  at: Instant;
  /** The invoice it is about, and what other documents have taken off that before. */
  invoice: StoredDocument;
  goneBefore: number;
};

/** What is left of a disputed payment `d.payment_id` after earlier refunds. */

export async function listUndocumented(db: Db, mode: Mode, limit: number): Promise<Undocumented[]> {
  type Found = Omit<Undocumented, 'amount' | 'goneBefore' | 'invoice'> & {
    amount: bigint;
    goneBefore: bigint;
    invoiceId: string;
  };
  const rows = await many<Found>(
    db,
    `WITH open AS (
       SELECT 'refund' AS kind, r.id AS refund_id, NULL::uuid AS dispute_id, NULL::uuid AS credit_id, p.charge_id, r.amount, r.reason, r.at
         FROM ${REFUNDS}
       UNION ALL
       SELECT 'refund', NULL, d.id, NULL, p.charge_id, d.lost, 'a dispute was lost', coalesce(d.closed_at, d.opened_at)
         FROM ${DISPUTES}
       UNION ALL
       SELECT 'credit', NULL, NULL, c.id, c.charge_id, c.amount, c.reason, c.at
         FROM ${CREDITS}
     )
     SELECT open.*, i.id AS invoice_id,
       coalesce((SELECT sum(total) FROM documents WHERE charge_id = open.charge_id AND kind <> 'invoice'), 0)::bigint AS gone_before
     FROM open JOIN documents i ON i.charge_id = open.charge_id AND i.kind = 'invoice' ORDER BY open.at, open.charge_id LIMIT $2`,
    [mode, limit],
  );
  const invoices = new Map<string, StoredDocument>();
  for (const invoice of await many<Row>(
    db,
    `SELECT ${COLUMNS} FROM documents d WHERE id = ANY ($1)`,
    [rows.map((row) => row.invoiceId)],
    CONTENT,
  ))
    invoices.set(invoice.id, fromRow(invoice));
  return rows.flatMap(({ invoiceId, ...row }) => {
    const invoice = invoices.get(invoiceId);
    return invoice
      ? { ...row, invoice, amount: toMinor(row.amount), goneBefore: toMinor(row.goneBefore) }
      : [];
  });
}

export async function findDocument(db: Db, id: string): Promise<StoredDocument | undefined> {
  const row = await maybeOne<Row>(db, `SELECT ${COLUMNS} FROM documents d WHERE d.id = $1`, [id], CONTENT);
  return row && fromRow(row);
}

/** The invoice of the charge that a payment was for. */
export async function findInvoiceOf(db: Db, paymentId: PaymentId): Promise<StoredDocument | undefined> {
  const row = await maybeOne<Row>(
    db,
    `SELECT ${COLUMNS} FROM documents d JOIN payments p ON p.charge_id = d.charge_id WHERE p.id = $1 AND d.kind = 'invoice'`,
    [paymentId],
    CONTENT,
  );
  return row && fromRow(row);
}

export type DocumentFilter = {
  kind: '' | DocumentKind;
  search: string;
  /** By the site's clock: from and before. */
  from: Instant | null;
  until: Instant | null;
  memberId: MemberId | null;
  /** Only these, whatever they are. */
  ids?: string[];
  offset: number;
  limit: number;
};
export const ALL_DOCUMENTS: DocumentFilter = {
  kind: '',
  search: '',
  from: null,
  until: null,
  memberId: null,
  offset: 0,
  limit: 100,
};

const narrowedBy = (mode: Mode, f: DocumentFilter) =>
  where([
    ['d.mode = ?', mode],
    f.ids && ['d.id = ANY (?::uuid[])', f.ids],
    f.kind && ['d.kind = ?', f.kind],
    f.from && ['d.at >= ?', f.from],
    f.until && ['d.at < ?', f.until],
    f.memberId && ['d.member_id = ?', f.memberId],
    f.search && ['d.search_text LIKE ?', containing(f.search)],
  ]);
const NEWEST = 'd.at DESC, d.kind, d.number DESC';

/** Documents of a mode that fit a filter, newest first, and how many there are in all. */
export async function listDocuments(
  db: Db,
  mode: Mode,
  f: DocumentFilter,
): Promise<{ rows: StoredDocument[]; total: number }> {
  const narrowed = narrowedBy(mode, f);
  const values = [...narrowed.values];
  const count = () =>
    one<{ total: bigint }>(db, `SELECT count(*) AS total FROM documents d ${narrowed.sql}`, values);
  const listed = `SELECT ${COLUMNS} FROM documents d ${narrowed.sql}
     ORDER BY ${NEWEST} OFFSET ${narrowed.add(f.offset)} LIMIT ${narrowed.add(f.limit)}`;
  const rows = await many<Row>(
    db,
    // A member's are looked up with each look at their account.
    f.memberId && !f.search ? preparedForm(listed) : listed,
    narrowed.values,
    CONTENT,
  );
  const total = await totalOf(rows.length, f, async () => (await count()).total);
  return { rows: rows.map(fromRow), total };
}

/** The ids of all documents that fit a filter, newest first: for exports, which read them page by page. */
export async function listDocumentIds(db: Db, mode: Mode, f: DocumentFilter): Promise<string[]> {
  const narrowed = narrowedBy(mode, f);
  const rows = await many<{ id: string }>(
    db,
    `SELECT d.id FROM documents d ${narrowed.sql} ORDER BY ${NEWEST}`,
    narrowed.values,
  );
  return rows.map((row) => row.id);
}

/** What a local month came to in one currency; minor units. */
export type MonthSums = {
  month: LocalMonth;
  currency: string;
  received: number;
  payments: number;
  /** Refunds and lost disputes. */
  givenBack: number;
  invoiced: number;
  invoices: number;
  credited: number;
  /** Of invoices, less that of refunds and credits. */
  tax: number;
};

/** Sums of a mode by the zone's months, newest first. */
export async function sumMonths(db: Db, mode: Mode, zone: string): Promise<MonthSums[]> {
  type Sums = Record<Exclude<keyof MonthSums, 'month' | 'currency'>, bigint>;
  const rows = await many<Pick<MonthSums, 'month' | 'currency'> & Sums>(
    db,
    `WITH moved AS (
       SELECT settled_at AS at, currency, amount AS received, 1 AS payments, 0::bigint AS given_back, 0::bigint AS invoiced, 0 AS invoices, 0::bigint AS credited, 0::bigint AS tax
         FROM payments WHERE mode = $1 AND state = 'succeeded'
       UNION ALL
       SELECT at, currency, 0, 0, CASE WHEN kind = 'refund' THEN total ELSE 0 END, CASE WHEN kind = 'invoice' THEN total ELSE 0 END,
         CASE WHEN kind = 'invoice' THEN 1 ELSE 0 END, CASE WHEN kind = 'credit' THEN total ELSE 0 END, CASE WHEN kind = 'invoice' THEN tax ELSE -tax END
         FROM documents WHERE mode = $1
     ) SELECT to_char(date_trunc('month', at AT TIME ZONE $2), 'YYYY-MM') AS month, currency, sum(received)::bigint AS received, sum(payments)::bigint AS payments,
         sum(given_back)::bigint AS given_back, sum(invoiced)::bigint AS invoiced, sum(invoices)::bigint AS invoices, sum(credited)::bigint AS credited, sum(tax)::bigint AS tax
       FROM moved GROUP BY date_trunc('month', at AT TIME ZONE $2), 2 ORDER BY 1 DESC, 2`,
    [mode, zone],
  );
  return rows.map((row) => ({
    month: row.month,
    currency: row.currency,
    received: toMinor(row.received),
    payments: toMinor(row.payments),
    givenBack: toMinor(row.givenBack),
    invoiced: toMinor(row.invoiced),
    invoices: toMinor(row.invoices),
    credited: toMinor(row.credited),
    tax: toMinor(row.tax),
  }));
}

export async function countTestDocuments(db: Db): Promise<number> {
  const { count } = await one<{ count: bigint }>(db, `SELECT count(*) FROM documents WHERE mode = 'test'`);
  return Number(count);
}

/** Deletes the documents of test mode; their numbers begin anew. */
export async function deleteTestDocuments(db: Transaction): Promise<void> {
  await run(db, `DELETE FROM documents WHERE mode = 'test'`);
  await run(db, `UPDATE document_counters SET last = 0 WHERE mode = 'test'`);
}

export async function moveDocuments(db: Db, from: MemberId, to: MemberId): Promise<void> {
  await run(db, 'UPDATE documents SET member_id = $2 WHERE member_id = $1', [from, to]);
}
