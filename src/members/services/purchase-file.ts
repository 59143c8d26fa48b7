import { randomUUID } from 'node:crypto';
import { refundable } from '@/core/billing/credit';
import { readBook } from '@/billing/services/lib/open-book';
import { findBoughtPass, listDevicesOf } from '@/billing/store/held-passes';
import { ALL_PAYMENTS, listPayments } from '@/billing/store/payment-lists';
import { findPayment } from '@/billing/store/payments';
import { findPurchase } from '@/billing/store/purchases';
import { findMember } from '@/people/store/members';
import { siteNow } from '@/platform/clock';
import { uuid } from '@/platform/inputs';
import { done } from '@/platform/result';
import { currentSite, inMode } from '@/platform/site';
import { pool } from '@/platform/store/db';
import { staffUse } from '@/platform/use';

/** What a payment bought once, with what of it can be refunded; null where it was for something else. Amounts in minor units. */
export const purchaseOfPayment = staffUse('see members', 'see money')(
  'purchase-of-payment',
  uuid,
  async (_, id) => {
    const payment = await findPayment(pool(), id);
    const purchase = payment?.purchaseId ? await findPurchase(pool(), payment.purchaseId) : undefined;
    const member = purchase && (await findMember(pool(), purchase.memberId));
    if (!payment || !purchase || !member) return done(null);
    const own = await currentSite();
    const site = inMode(own, purchase.mode);
    const now = siteNow(site);
    const { book } = (await readBook(pool(), site, purchase, { payments: [id] })).stored;
    const received = book.payments.find((one) => one.id === id);
    const { rows } = await listPayments(pool(), purchase.mode, { ...ALL_PAYMENTS, ids: [id] });
    return done({
      member,
      purchase: {
        id: purchase.id,
        name: purchase.name,
        kind: purchase.kind,
        state: purchase.state,
        at: purchase.at,
        methodLabel: purchase.methodLabel,
        mostDevices: purchase.mostDevices,
      },
      until: purchase.kind === 'pass' ? (await findBoughtPass(pool(), purchase, now))?.until : null,
      devices: purchase.kind === 'pass' ? (await listDevicesOf(pool(), purchase, now)).length : 0,
      payment: rows[0] ?? null,
      refundable: received && !received.isReturned ? Math.max(0, refundable(book, received)) : 0,
      requestId: randomUUID(),
      refundAsksAbove: site.refundAsksAbove,
    });
  },
);
