import { z } from 'zod';
import { may } from '@/core/staff';
import { pool } from '@/store/db';
import { findDocument, findInvoiceOf, type StoredDocument } from '@/store/documents';
import type { Actor } from './actor';
import { issueDocuments } from './issue-documents';

/** Whether somebody may read a document: it is theirs, or they are staff. */
const mayRead = (actor: Actor, document: StoredDocument): boolean =>
  may(actor.staffRole, 'look') || (actor.memberId !== null && document.memberId === actor.memberId);

/** A document, or null where there is none that this person may read: the two are not told apart. */
export async function readDocument(actor: Actor, id: string): Promise<StoredDocument | null> {
  const document = z.uuid().safeParse(id).success ? await findDocument(pool(), id) : undefined;
  return document && mayRead(actor, document) ? document : null;
}

/** The invoice of what a payment was for; made first, where the worker has not come to it yet. */
export async function invoiceOfPayment(actor: Actor, paymentId: string): Promise<StoredDocument | null> {
  if (!z.uuid().safeParse(paymentId).success) return null;
  await issueDocuments();
  const document = await findInvoiceOf(pool(), paymentId);
  return document && mayRead(actor, document) ? document : null;
}
