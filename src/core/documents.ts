import { z } from 'zod';
import { keyCutSchema } from './key-cut-schema';
import { taxIn, taxOfPart, type TaxRate } from './tax';

/** `invoice`: of a charge that was paid; `refund`: of money that went back; `credit`: of money owed to a member. */
export type DocumentKind = 'invoice' | 'refund' | 'credit';

const lineSchema = z.object({ words: z.string(), amount: z.number(), tax: z.number() });
export type DocumentLine = z.infer<typeof lineSchema>;
/** What a document says, as it was when it was made: nothing that changes later changes it. Minor units. */
export const documentContentSchema = z.object({
  seller: z.object({ name: z.string(), words: z.string(), taxNumber: z.string() }),
  buyer: z.object({ name: z.string(), email: z.string(), words: z.string() }),
  /** The key of the tier it is about, as it was cut then. */
  keyCut: keyCutSchema,
  lines: z.array(lineSchema),
  /** The tax that the amounts hold; null where nothing is taxed. */
  tax: z.object({ name: z.string(), rate: z.number() }).nullable(),
  /** How an invoice was paid, or how money went back. */
  settled: z.array(z.object({ words: z.string(), amount: z.number() })),
  /** The invoice that a refund or a credit is about. */
  about: z.string().nullable(),
});
export type DocumentContent = z.infer<typeof documentContentSchema>;
export type Drafted = { total: number; tax: number; content: DocumentContent };

type Parties = Pick<DocumentContent, 'seller' | 'buyer' | 'keyCut'>;

/** The invoice of a charge: what it is for and the joining fee apart, each with the tax it holds. */
export function draftInvoice(
  parties: Parties,
  /** `feeWords` name the joining fee on its line. */
  charge: { words: string; feeWords: string; amount: number; joiningFee: number },
  taxRate: TaxRate | null,
  settled: DocumentContent['settled'],
): Drafted {
  const taxOf = (amount: number): number => (taxRate ? taxIn(amount, taxRate.rate) : 0);
  const lines = [
    { words: charge.words, amount: charge.amount - charge.joiningFee },
    { words: charge.feeWords, amount: charge.joiningFee },
  ]
    .filter((line) => line.amount > 0)
    .map((line) => ({ ...line, tax: taxOf(line.amount) }));
  return {
    total: charge.amount,
    tax: lines.reduce((sum, line) => sum + line.tax, 0),
    content: { ...parties, lines, tax: taxRate, settled, about: null },
  };
}

/**
 * The document of a part of an invoice that went back, or is owed: with that part's tax. However an invoice is given
 * back piece by piece, the tax of the pieces adds up to its own.
 * @param goneBefore what earlier documents have taken off the invoice already
 */
export function draftReturn(
  parties: Parties,
  invoice: { label: string; total: number; tax: number; rate: TaxRate | null },
  goneBefore: number,
  part: { words: string; amount: number; settled: string },
): Drafted {
  // Never more than the invoice: what would be beyond it holds no tax.
  const within = Math.max(0, Math.min(part.amount, invoice.total - goneBefore));
  const tax = within > 0 ? taxOfPart(invoice, goneBefore, within) : 0;
  return {
    total: part.amount,
    tax,
    content: {
      ...parties,
      lines: [{ words: part.words, amount: part.amount, tax }],
      tax: invoice.rate,
      settled: [{ words: part.settled, amount: part.amount }],
      about: invoice.label,
    },
  };
}

const LETTER: Record<DocumentKind, string> = { invoice: 'I', refund: 'R', credit: 'C' };

/** The number as printed on the document: the owner's prefix, a letter for the kind, and the count. */
export function documentLabel(
  prefix: string,
  mode: 'test' | 'live',
  kind: DocumentKind,
  number: number,
): string {
  return `${mode === 'test' ? 'TEST-' : ''}${prefix}${LETTER[kind]}-${String(number).padStart(4, '0')}`;
}
