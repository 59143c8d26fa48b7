import type { LocalDate } from '@/core/instants';
import { many, maybeOne, run, toMinor, type Db } from '@/platform/store/db';
import type { Mode } from '@/platform/store/site';
import type { GatewayAccountId, PaymentId } from '@/core/ids';

/** A line of a bank statement. Amount in minor units. */
export type StatementLine = {
  id: string;
  gatewayAccountId: GatewayAccountId;
  mode: Mode;
  bookedOn: LocalDate;
  amount: number;
  currency: string;
  payer: string;
  words: string;
  paymentId: PaymentId | null;
  note: string;
  /** Null while it is not ignored. */
  ignoredBecause: string | null;
};
type Row = Omit<StatementLine, 'amount'> & { amount: bigint };
const fromRow = (row: Row): StatementLine => ({ ...row, amount: toMinor(row.amount) });

/** Keeps a line; undefined where the statement it is from was imported before. */
export async function insertLine(
  db: Db,
  l: Omit<StatementLine, 'id' | 'paymentId' | 'ignoredBecause'> & { fingerprint: string },
): Promise<StatementLine | undefined> {
  const row = await maybeOne<Row>(
    db,
    `INSERT INTO statement_lines (gateway_account_id, mode, fingerprint, booked_on, amount, currency, payer, words, note)
     VALUES ($1, $2, $3, $4, $5, $6, $7, $8, $9) ON CONFLICT (gateway_account_id, fingerprint) DO NOTHING RETURNING *`,
    [l.gatewayAccountId, l.mode, l.fingerprint, l.bookedOn, l.amount, l.currency, l.payer, l.words, l.note],
  );
  return row && fromRow(row);
}

export async function isLineKnown(
  db: Db,
  accountId: GatewayAccountId,
  fingerprint: string,
): Promise<boolean> {
  return (
    (await maybeOne(db, 'SELECT 1 FROM statement_lines WHERE gateway_account_id = $1 AND fingerprint = $2', [
      accountId,
      fingerprint,
    ])) !== undefined
  );
}

export async function matchLine(db: Db, id: string, paymentId: PaymentId): Promise<void> {
  await run(db, `UPDATE statement_lines SET payment_id = $2, note = '' WHERE id = $1`, [id, paymentId]);
}

/** Why a line that matched is not used. */
export async function noteLine(db: Db, id: string, note: string): Promise<void> {
  await run(db, 'UPDATE statement_lines SET note = $2 WHERE id = $1', [id, note]);
}

/** Ignores a line, or no longer where there is no reason. False where it has paid for something. */
export async function setLineIgnored(db: Db, id: string, because: string | null): Promise<boolean> {
  return (
    (await run(db, 'UPDATE statement_lines SET ignored_because = $2 WHERE id = $1 AND payment_id IS NULL', [
      id,
      because,
    ])) === 1
  );
}

/** The line, locked until the transaction ends. */
export async function lockLine(db: Db, id: string): Promise<StatementLine | undefined> {
  const row = await maybeOne<Row>(db, 'SELECT * FROM statement_lines WHERE id = $1 FOR UPDATE', [id]);
  return row && fromRow(row);
}

/** Unmatched lines of statements, oldest first. */
export async function listUnmatched(db: Db, mode: Mode): Promise<StatementLine[]> {
  return (
    await many<Row>(
      db,
      'SELECT * FROM statement_lines WHERE mode = $1 AND payment_id IS NULL AND ignored_because IS NULL ORDER BY booked_on, created_at',
      [mode],
    )
  ).map(fromRow);
}
