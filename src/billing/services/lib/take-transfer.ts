import type { Ask } from '@/core/billing/book';
import type { Event } from '@/core/billing/event';
import type { Refusal } from '@/core/billing/work';
import type { StoredBook } from '@/billing/store/book';
import type { Actor } from '@/platform/actor';
import { currentSite } from '@/platform/site';
import type { Transaction } from '@/platform/store/db';
import type { Payment } from '@/billing/store/payments';
import { happen, openBook } from './open-book';

/** What a transfer brought into its book; refused where the book cannot take it up now. */
export type TakenTransfer = { ok: true; stored: StoredBook; asks: Ask[] } | { ok: false; why: Refusal };

/**
 * The money of a transfer has come, in the caller's transaction: for what is awaited, or, where that was given up, as late
 * money; what can no longer begin anything is returned. `ref` is what it is known by.
 */
export async function takeTransfer(
  db: Transaction,
  actor: Actor,
  payment: Payment,
  ref: string,
): Promise<TakenTransfer> {
  const site = await currentSite(db);
  const open = await openBook(db, site, actor, payment, { charges: [payment.chargeId] });
  const answer = { charge: payment.chargeId, attempt: payment.id, ref };
  const isLate = payment.state !== 'intent';
  const events: Event[] = isLate
    ? [
        { do: 'late-success', ...answer },
        { do: 'unusable', ...answer },
      ]
    : [{ do: 'paid', ...answer }];
  let why: Refusal = 'known';
  for (const event of events) {
    const happened = await happen(open, event);
    if (happened.ok) return { ok: true, stored: open.stored, asks: happened.asks };
    why = happened.why;
    if (why === 'under-way' || why === 'disputed') break;
  }
  return { ok: false, why };
}
