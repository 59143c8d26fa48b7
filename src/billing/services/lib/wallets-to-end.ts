import type { Subscription } from '@/core/billing/book';
import { CHARGED } from '@/core/billing/states';
import { endAgreementsOf, passAgreementsOn } from '@/billing/store/agreements';
import { type StoredBook } from '@/billing/store/book';
import { versionOf } from '@/billing/store/book-from-rows';
import type { OpenBook } from './opened';

/** A wallet that bills by itself must not bill where we would not charge, or would charge something else. */
export async function endWalletsThatMustNot({ db, stored }: OpenBook, before: StoredBook): Promise<void> {
  const wasOf = (s: Subscription) => before.book.subscriptions.find(({ id }) => id === s.id);
  // What was approved for a switch down goes with it, before what it leaves ends.
  for (const s of stored.book.subscriptions)
    if (!wasOf(s) && s.begunBy === 'down' && s.replaces)
      await passAgreementsOn(db, s.replaces, s.id, versionOf(s.offer).versionId);
  for (const s of stored.book.subscriptions) {
    const was = wasOf(s);
    if (!was || JSON.stringify(was) === JSON.stringify(s)) continue;
    if (mustNotBill(s) && !mustNotBill(was)) await endAgreementsOf(db, s.id);
    else if (s.offer !== was.offer && s.state !== 'pending')
      await endAgreementsOf(db, s.id, { version: versionOf(s.offer).versionId });
  }
}

const mustNotBill = ({ state, disputes, method }: Subscription): boolean =>
  (state !== 'pending' && !CHARGED.has(state)) ||
  disputes.length > 0 ||
  (method !== null && method.nature !== 'wallet');
