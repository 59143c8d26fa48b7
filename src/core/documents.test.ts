import { expect, it } from 'vitest';
import { documentLabel, draftInvoice, draftReturn } from './documents';

const parties = {
  seller: { name: 'Lantern Moor', words: '', taxNumber: '' },
  buyer: { name: 'Maren Oakley', email: 'maren.oakley@moor.example', words: '' },
  keyCut: { notches: [1, 2], tint: 'brass' as const },
};
const vat = { name: 'VAT', rate: 20_000 };

it('an invoice has a line for the joining fee, and each line its tax', () => {
  const { total, tax, content } = draftInvoice(
    parties,
    { words: 'Star Warden', feeWords: 'Joining fee', amount: 2500, joiningFee: 1000 },
    vat,
    [{ words: 'card ending 0000', amount: 2500 }],
  );
  expect([total, tax]).toEqual([2500, 417]);
  expect(content.lines).toEqual([
    { words: 'Star Warden', amount: 1500, tax: 250 },
    { words: 'Joining fee', amount: 1000, tax: 167 },
  ]);
});

it('where nothing is taxed there is no tax', () => {
  const { tax, content } = draftInvoice(
    parties,
    { words: 'Observer', feeWords: '', amount: 600, joiningFee: 0 },
    null,
    [],
  );
  expect(tax).toBe(0);
  expect(content.tax).toBeNull();
  expect(content.lines).toHaveLength(1);
});

it('refunds in several parts come to the whole tax', () => {
  const invoice = { label: 'I-0001', total: 1000, tax: 167, rate: vat };
  const piece = { words: 'Refunded', settled: 'the way it came' };
  const parts = [333, 333, 334].map((amount, index) =>
    draftReturn(parties, invoice, index * 333, { ...piece, amount }),
  );
  expect(parts.map((part) => part.tax)).toEqual([56, 55, 56]);
  expect(parts[0]?.content.about).toBe('I-0001');
  // A dispute may take more than was left: beyond the invoice nothing is taxed.
  expect(draftReturn(parties, invoice, 900, { ...piece, amount: 300 }).tax).toBe(17);
  expect(draftReturn(parties, invoice, 1000, { ...piece, amount: 300 }).tax).toBe(0);
});

it('tells test and live, and the kinds, apart by the number', () => {
  expect(documentLabel('LM-', 'live', 'invoice', 12)).toBe('LM-I-0012');
  expect(documentLabel('', 'test', 'refund', 3)).toBe('TEST-R-0003');
  expect(documentLabel('', 'live', 'credit', 12_345)).toBe('C-12345');
});
