import { BLANK_KEY } from '@/core/key-cut';
import { formatDays } from '@/core/calendar';
import {
  documentLabel,
  draftInvoice,
  draftReturn,
  type DocumentContent,
  type DocumentKind,
  type Drafted,
} from '@/core/documents';
import { rateFor } from '@/core/tax';
import { setDocumented } from '@/billing/store/payments';
import { pool, transaction } from '@/platform/store/db';
import {
  hasUndocumented,
  insertDocuments,
  listUndocumented,
  listUninvoiced,
  lockCounters,
  type NewDocument,
  type Uninvoiced,
} from '@/documents/store/documents';
import type { Mode, Site } from '@/platform/store/site';
import { currentSite } from '@/platform/site';
import { wordsOf } from '@/words/words';

const AT_ONCE = 200;

/**
 * Makes the documents of what was paid, went back, or is owed, and numbers them in order and without gaps: in one short
 * transaction that holds the counters, apart from those that move money. The answer is how many were made.
 */
export async function issueDocuments(only?: Mode): Promise<number> {
  const site = await currentSite();
  let made = 0;
  for (const mode of only ? [only] : (['test', 'live'] as const))
    while (await hasUndocumented(pool(), mode)) {
      const count = (await issue(site, mode, true)) + (await issue(site, mode, false));
      if (count === 0) break;
      made += count;
    }
  return made;
}

async function issue(site: Site, mode: Mode, invoices: boolean): Promise<number> {
  return transaction(async (db) => {
    const last = await lockCounters(db, mode);
    const drafts = invoices
      ? (await listUninvoiced(db, mode, AT_ONCE)).map((charge): Draft => invoiceOf(site, charge))
      : // One of a charge at a time: each takes its tax from what the ones before have left.
        firstOfEach(await listUndocumented(db, mode, AT_ONCE)).map((open): Draft => returnOf(site, open));
    if (drafts.length === 0) return 0;
    const documents = drafts.map(({ kind, ...draft }): NewDocument => {
      last[kind] += 1;
      const label = documentLabel(site.documentPrefix, mode, kind, last[kind]);
      return { ...draft, mode, kind, number: last[kind], label };
    });
    await insertDocuments(db, mode, last, documents);
    await setDocumented(db, {
      // Of a charge there are documents of what went back, too.
      charges: documents.flatMap((one) => (one.kind === 'invoice' ? one.chargeId : [])),
      refunds: documents.flatMap(({ refundId }) => refundId ?? []),
      disputes: documents.flatMap(({ disputeId }) => disputeId ?? []),
      credits: documents.flatMap(({ creditId }) => creditId ?? []),
    });
    return documents.length;
  });
}

type Draft = Omit<NewDocument, 'mode' | 'number' | 'label'> & { kind: DocumentKind };
type Open = Awaited<ReturnType<typeof listUndocumented>>[number];

function firstOfEach(open: Open[]): Open[] {
  return open.filter(
    (one, index) => open.findIndex((other) => other.invoice.chargeId === one.invoice.chargeId) === index,
  );
}

const sellerOf = ({ name, seller, taxNumber }: Site) => ({ name, words: seller, taxNumber });

/** What an invoice of a charge says, whether or not it is paid. */
export function draftOf(site: Site, c: Uninvoiced, settled: DocumentContent['settled']): Drafted {
  const taxRate = rateFor(site.tax, c.taxKindId, c.taxCountry || site.homeCountry);
  const parties = {
    seller: sellerOf(site),
    buyer: { name: c.memberName, email: c.memberEmail, words: c.invoiceWords },
    keyCut: c.keyCut ?? BLANK_KEY,
  };
  const t = wordsOf(site);
  const dates = c.to
    ? formatDays(c.from, c.to, site.zone, site.language)
    : t('document.from-on', { date: t.date(c.from) });
  const words =
    c.offerName === ''
      ? t('document.bought-line', { name: c.tierName, dates })
      : t('document.line', { tier: c.tierName, offer: c.offerName, dates });
  const feeWords = t('document.joining-fee');
  return draftInvoice(
    parties,
    { words, feeWords, amount: c.amount, joiningFee: c.joiningFee },
    taxRate,
    settled,
  );
}

function invoiceOf(site: Site, c: Uninvoiced): Draft {
  const t = wordsOf(site);
  const settled = [
    { words: c.through || t('document.by-payment'), amount: c.paid },
    { words: t('document.by-credit'), amount: c.amount - c.paid },
  ].filter((part) => part.amount > 0);
  return {
    ...draftOf(site, c, settled),
    kind: 'invoice',
    memberId: c.memberId,
    chargeId: c.chargeId,
    refundId: null,
    disputeId: null,
    creditId: null,
    currency: c.currency,
    at: c.at,
  };
}

function returnOf(site: Site, open: Open): Draft {
  const { invoice, kind, amount, reason, refundId, disputeId, creditId, at } = open;
  const { buyer, tax: taxRate, keyCut } = invoice.content;
  const t = wordsOf(site);
  const words =
    kind === 'credit'
      ? t('document.credit-for', { reason })
      : t('document.refund-of', { what: invoice.content.lines[0]?.words ?? invoice.label });
  const drafted: Drafted = draftReturn(
    { seller: sellerOf(site), buyer, keyCut },
    { label: invoice.label, total: invoice.total, tax: invoice.tax, rate: taxRate },
    open.goneBefore,
    {
      words,
      amount,
      settled:
        kind === 'credit'
          ? t('document.spent-later')
          : disputeId
            ? t('document.by-bank')
            : t('document.refunded-to'),
    },
  );
  const { memberId, chargeId, currency } = invoice;
  return { ...drafted, kind, memberId, chargeId, refundId, disputeId, creditId, currency, at };
}
