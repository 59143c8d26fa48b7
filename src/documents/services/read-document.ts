import { z } from 'zod';
import { sheetOf, type Sheet } from '@/words/sheet';
import { uuid } from '@/platform/inputs';
import { done, found, missing } from '@/platform/result';
import { currentSite, siteWords } from '@/platform/site';
import { pool } from '@/platform/store/db';
import { memberUse } from '@/platform/use';
import { findDocument, findInvoiceOf } from '@/documents/store/documents';
import { memberDocuments } from './lib/document-list';
import { documentPdf } from './lib/document-pdf';
import { readInvoiceToPay } from './lib/invoice-to-pay';
import { issueDocuments } from './lib/issue-documents';
import { ownerOfPayment, ownerOfSubscription } from '@/billing/services/lib/owners';

const staff = 'look' as const;

const ownerOfDocument = async (id: string) => (await findDocument(pool(), id))?.memberId;

async function sheetFor(id: string): Promise<Sheet | null> {
  const document = await findDocument(pool(), id);
  return document ? sheetOf(document, await siteWords()) : null;
}

const pdfOf = async (sheet: Sheet | null) =>
  sheet ? done({ label: sheet.label, bytes: await documentPdf(sheet) }) : missing();

/** A receipt, a refund or a credit, for the member it was made out to and for staff. */
export const readDocument = memberUse('read-document', uuid, async (_, id) => found(await sheetFor(id)), {
  owner: ownerOfDocument,
  staff,
});
export const documentAsPdf = memberUse('document-as-pdf', uuid, async (_, id) => pdfOf(await sheetFor(id)), {
  owner: ownerOfDocument,
  staff,
});

/** The id of the invoice of what a payment was for; made first, where the worker has not come to it yet. */
export const invoiceOfPayment = memberUse(
  'invoice-of-payment',
  uuid,
  async (_, paymentId) => {
    await issueDocuments();
    return found((await findInvoiceOf(pool(), paymentId))?.id);
  },
  { owner: ownerOfPayment, staff },
);

/** The invoice that an awaited transfer is to pay, with its reference in place of a number. */
export const invoiceToPay = memberUse(
  'invoice-to-pay',
  uuid,
  async (_, subscriptionId) => found(await readInvoiceToPay(subscriptionId)),
  { owner: ownerOfSubscription, staff },
);
export const invoiceToPayAsPdf = memberUse(
  'invoice-to-pay-as-pdf',
  uuid,
  async (_, subscriptionId) => pdfOf(await readInvoiceToPay(subscriptionId)),
  { owner: ownerOfSubscription, staff },
);

/** The caller’s own documents, newest first. */
export const myDocuments = memberUse('my-documents', z.undefined(), async ({ memberId }) => {
  const { mode } = await currentSite();
  await issueDocuments(mode);
  return done(await memberDocuments(pool(), mode, memberId, await siteWords()));
});
