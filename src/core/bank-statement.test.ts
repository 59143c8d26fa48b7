import { describe, expect, it } from 'vitest';
import { readStatement } from './bank-statement';

describe('a bank statement', () => {
  it('is read by the names of its columns, in any order, with signs and dates as banks write them', () => {
    const read = readStatement(
      [
        ['Reference', 'Booking date', 'Paid in', 'Name', 'Currency'],
        ['AB2C-D3EF', '25/11/2026', '+6.00', 'M Oakley', ''],
        ['fees', '2026-11-26', '-1,234.50', 'Bank', 'eur'],
      ],
      'GBP',
      'en-GB',
    );
    expect(read).toEqual({
      ok: true,
      problems: [],
      rows: [
        {
          line: 2,
          bookedOn: '2026-11-25',
          amount: 600,
          currency: 'GBP',
          payer: 'M Oakley',
          words: 'AB2C-D3EF',
        },
        { line: 3, bookedOn: '2026-11-26', amount: -123450, currency: 'EUR', payer: 'Bank', words: 'fees' },
      ],
    });
  });

  it('names the lines that it cannot read, and the columns that are missing', () => {
    const head = ['date', 'amount', 'words'];
    const read = readStatement([head, ['31/02/2026', '1', 'x'], ['2026-02-28', 'much', 'x']], 'GBP', 'en-GB');
    expect(read).toMatchObject({
      ok: true,
      rows: [],
      problems: [
        { line: 2, problem: { code: 'statement.line-date' } },
        { line: 3, problem: { code: 'statement.line-amount' } },
      ],
    });
    expect(readStatement([['date', 'sum'], []], 'GBP', 'en-GB')).toMatchObject({
      ok: false,
      problem: {
        code: 'statement.no-columns',
        values: { missing: expect.stringMatching(/^amount .*; words/) as string },
      },
    });
  });
});

it('reads dates and amounts as the locale writes them, and names an amount with two readings', () => {
  const rows = [
    ['Buchungstag', 'Betrag', 'Verwendungszweck'],
    ['25.11.2026', '4,50', 'NK-AAAA'],
  ];
  expect(readStatement(rows, 'EUR', 'de-DE')).toMatchObject({
    rows: [{ bookedOn: '2026-11-25', amount: 450 }],
    problems: [],
  });
  expect(readStatement(rows, 'EUR', 'en-GB')).toMatchObject({
    rows: [],
    problems: [{ line: 2, problem: { code: 'amount.two-ways' } }],
  });
  expect(
    readStatement(
      [
        ['date', 'amount', 'words'],
        ['11/25/2026', '4.50', 'x'],
      ],
      'USD',
      'en-US',
    ),
  ).toMatchObject({
    rows: [{ bookedOn: '2026-11-25' }],
  });
});
