/**
 * Records as CSV (RFC 4180: CRLF, quotes doubled). What a spreadsheet would take for a formula is kept as text.
 */
export function toCsv(head: string[], records: (string | number)[][]): string {
  return [head, ...records].map(csvLine).join('');
}

/** One record, with its line end. */
export const csvLine = (record: (string | number)[]): string => `${record.map(cell).join(',')}\r\n`;

/**
 * What begins a formula in one spreadsheet or another, full-width forms included; and a tab or a line break, after which
 * some begin anew. Before it may come whatever they skip: spaces, and characters that nobody sees.
 */
const FORMULA =
  /^[\s\u0000-\u001f\u00ad\u200b-\u200f\u2028-\u202f\u2060-\u2064\ufeff]*[=+\-@|%\uff1d\uff0b\uff0d\uff20\u2212]/;
const SEPARATED = /^[\t\r\n;,|]/;
const AMOUNT = /^-?\d+(\.\d+)?$/;

function cell(value: string | number): string {
  if (typeof value === 'number') return String(value);
  const isText = (FORMULA.test(value) || SEPARATED.test(value)) && !AMOUNT.test(value);
  const text = isText ? `'${value}` : value;
  return /[",;\t\r\n]/.test(text) ? `"${text.replaceAll('"', '""')}"` : text;
}
