import { parse } from 'csv-parse/sync';
import fc from 'fast-check';
import { expect, it } from 'vitest';
import { toCsv } from './csv';

it('is read back as it was, whatever is in it', () => {
  const cells = fc.string({ unit: 'grapheme' }).filter((text) => !/^[^\p{L}\p{N}]/u.test(text));
  fc.assert(
    fc.property(fc.array(fc.array(cells, { minLength: 3, maxLength: 3 }), { maxLength: 5 }), (records) => {
      const read = parse(toCsv(['a', 'b', 'c'], records), { skip_empty_lines: false });
      expect(read).toEqual([['a', 'b', 'c'], ...records]);
    }),
  );
});

it('keeps what a spreadsheet would take for a formula as text, and leaves amounts alone', () => {
  for (const text of [
    '=1+1',
    ' =1',
    '\u200b=1',
    '\ufeff@x',
    '＝1+1',
    '＋1',
    '－1',
    '＠x',
    '\t=1',
    '\r=1',
    '|calc',
    ';=1',
    '-1+1',
  ])
    expect(toCsv(['x'], [[text]])).toMatch(/^x\r\n"?'/);
  expect(toCsv(['x'], [['=1+1'], ['-2.50'], ['@sum']])).toBe("x\r\n'=1+1\r\n-2.50\r\n'@sum\r\n");
});
