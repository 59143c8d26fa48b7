/**
 * Records as CSV (RFC 4180: CRLF, quotes doubled). What a spreadsheet would take for a formula is kept as text.
 */
export function toCsv(head: string[], records: (string | number)[][]): string {
  return [head, ...records].map((record) => record.map(cell).join(',')).join('\r\n') + '\r\n';
}

function cell(value: string | number): string {
  if (typeof value === 'number') return String(value);
  const text = /^[=+@\t\r-]/.test(value) && !/^-?[\d.]+$/.test(value) ? `'${value}` : value;
  return /[",\r\n]/.test(text) ? `"${text.replaceAll('"', '""')}"` : text;
}
