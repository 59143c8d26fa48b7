import { isLocalDate, type LocalDate } from './instants';
import { parseAmount } from './money';
import type { CoreCode, Problem } from './problem';

/** Names that banks give to the columns of a statement. The first of ours is the one in our own form. */
const COLUMNS = {
  date: ['date', 'booked', 'booking date', 'booked on', 'value date', 'buchungstag', 'datum'],
  amount: ['amount', 'credit', 'money in', 'paid in', 'betrag'],
  currency: ['currency', 'währung'],
  payer: ['payer', 'name', 'from', 'counterparty', 'auftraggeber'],
  words: ['words', 'reference', 'details', 'purpose', 'description', 'narrative', 'verwendungszweck'],
} as const;
type Column = keyof typeof COLUMNS;

export type StatementRow = {
  line: number;
  bookedOn: LocalDate;
  /** Minor units; below zero where money went out. */
  amount: number;
  currency: string;
  payer: string;
  words: string;
};
export type ReadStatement =
  | { ok: true; rows: StatementRow[]; problems: { line: number; problem: Problem }[] }
  | { ok: false; problem: Problem };

/**
 * The records of a bank statement, with their header, as rows. A line that cannot be read is named, and does not
 * stop the others. Dates are 2026-11-25, or as the site's locale writes them: 25/11/2026, in the United States 11/25/2026.
 * Amounts are read by the locale too, and may carry a sign.
 * @param currency the site's, where the statement names none
 */
export function readStatement(records: string[][], currency: string, locale: string): ReadStatement {
  const [head = [], ...lines] = records;
  const names = head.map((name) => name.trim().toLowerCase());
  const at = (column: Column): number =>
    names.findIndex((name) => (COLUMNS[column] as readonly string[]).includes(name));
  const missing = (['date', 'amount', 'words'] as const).filter((column) => at(column) === -1);
  if (missing.length > 0)
    return {
      ok: false,
      problem: {
        code: 'statement.no-columns',
        values: {
          missing: missing.map((column) => `${column} (${COLUMNS[column].slice(1).join(', ')})`).join('; '),
        },
      },
    };
  const rows: StatementRow[] = [];
  const problems: { line: number; problem: Problem }[] = [];
  const not = (line: number, code: CoreCode, typed: string) =>
    problems.push({ line, problem: { code, values: { typed } } });
  for (const [index, record] of lines.entries()) {
    const line = index + 2;
    const cell = (column: Column): string => record[at(column)]?.trim() ?? '';
    const bookedOn = readDate(cell('date'), locale);
    const money = cell('currency').toUpperCase() || currency;
    const sign = /^[-−]/.test(cell('amount')) ? -1 : 1;
    const amount = parseAmount(cell('amount').replace(/^[-−+]/, ''), money, locale);
    if (!bookedOn) not(line, 'statement.line-date', cell('date'));
    else if (!amount.ok && amount.problem.code === 'amount.two-ways')
      problems.push({ line, problem: amount.problem });
    else if (!amount.ok) not(line, 'statement.line-amount', cell('amount'));
    else
      rows.push({
        line,
        bookedOn,
        amount: sign * amount.amount,
        currency: money,
        payer: cell('payer'),
        words: cell('words'),
      });
  }
  return { ok: true, rows, problems };
}

function readDate(text: string, locale: string): LocalDate | null {
  const [, first, second, year] = /^(\d{1,2})[./](\d{1,2})[./](\d{4})$/.exec(text) ?? [];
  const [day, month] = locale === 'en-US' ? [second, first] : [first, second];
  const date = year ? `${year}-${month?.padStart(2, '0')}-${day?.padStart(2, '0')}` : text;
  return isLocalDate(date) ? date : null;
}
