import type { DocumentContent, DocumentKind } from '@/core/documents';
import type { Instant } from '@/core/instants';
import type { KeyCut } from '@/core/key-cut';
import type { TaxRate } from '@/core/tax';
import { methodWords } from './methods';
import type { Words } from './speak';

/** A document in words, the same for the page and for the PDF. */
export type Sheet = {
  locale: string;
  title: string;
  keyCut: KeyCut;
  label: string;
  date: string;
  heads: Record<'from' | 'to' | 'for' | 'tax' | 'amount', string>;
  seller: string[];
  buyer: string[];
  /** The invoice it is about. Why staff refunded is theirs, and in the Desk alone. */
  about: string | null;
  lines: { words: string; tax: string | null; amount: string }[];
  totals: { words: string; amount: string; isMain: boolean }[];
  settled: string[];
};

type Document = {
  kind: DocumentKind;
  label: string;
  currency: string;
  total: number;
  tax: number;
  at: Instant;
  content: DocumentContent;
};

/** "VAT 20%"; a rate is in thousandths of a percent. */
export const rateWords = ({ name, rate }: TaxRate, t: Words): string =>
  t('document.rate', { tax: name, rate: rate / 1000 });

const linesOf = (words: string): string[] =>
  words
    .split('\n')
    .map((line) => line.trim())
    .filter(Boolean);

export function sheetOf(document: Document, t: Words): Sheet {
  const { kind, currency } = document;
  const money = (amount: number): string => t.money(amount, currency);
  const { seller, buyer, lines, tax, settled, about } = document.content;
  return {
    locale: t.locale,
    title: t(`document.${kind}`),
    keyCut: document.content.keyCut,
    label: document.label,
    date: t.date(document.at),
    heads: {
      from: t('document.from'),
      to: t('document.to'),
      for: t('document.for'),
      tax: t('document.tax-included'),
      amount: t('document.amount'),
    },
    // The owner's own words begin with a name, where there are any.
    seller: [
      ...(seller.words ? linesOf(seller.words) : [seller.name]),
      ...(seller.taxNumber ? [t('document.tax-number', { number: seller.taxNumber })] : []),
    ],
    buyer: [buyer.name, ...linesOf(buyer.words), buyer.email].filter(Boolean),
    about: about && t('document.about', { number: about }),
    lines: lines.map((line) => ({
      words: line.words,
      tax: tax && money(line.tax),
      amount: money(line.amount),
    })),
    totals: [
      ...(tax
        ? [
            { words: t('document.net'), amount: money(document.total - document.tax), isMain: false },
            { words: rateWords(tax, t), amount: money(document.tax), isMain: false },
          ]
        : []),
      { words: totalWords(kind, t), amount: money(document.total), isMain: true },
    ],
    settled: settled.map((part) =>
      kind === 'invoice'
        ? t('document.paid', { amount: money(part.amount), how: methodWords(part.words, t) })
        : part.words,
    ),
  };
}

function totalWords(kind: DocumentKind, t: Words): string {
  if (kind === 'invoice') return t('document.total');
  return kind === 'refund' ? t('document.refunded') : t('document.credit');
}
