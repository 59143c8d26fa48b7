import { randomUUID } from 'node:crypto';
import type { Notice } from '@/core/billing/book';
import { topicOf, type WebhookTopic } from '@/core/webhooks';
import { versionOf } from '@/billing/store/book-from-rows';
import { findPurchase } from '@/billing/store/purchases';
import { insertMessages, type Webhook } from '@/billing/store/webhooks';
import { findOfferVersion } from '@/tiers/store/offers';
import type { Member } from '@/people/store/members';
import type { OpenBook } from './opened';

/**
 * Writes a message of a book's news for each webhook that asked for it, in the transaction in which it happened: none is lost,
 * and none is told of what did not come about. The form is that of Standard Webhooks; amounts are in minor units.
 */
export async function writeWebhooks(
  open: OpenBook,
  notice: Notice,
  member: Member,
  hooks: Webhook[],
): Promise<void> {
  const { db, site, stored, at } = open;
  const { kind, subscription: id, charge: chargeId, refund: refundId } = notice;
  const topic = topicOf(kind);
  const { book, offers } = stored;
  if (topic && id === null) return ofPurchase(open, notice, topic, member, hooks);
  const s = book.subscriptions.find((one) => one.id === id);
  const offer = s && offers[s.offer];
  if (!topic || !s || !offer) return;
  const tier = offer.steps[s.place.last?.step ?? 0]?.tier ?? offer.tier;
  const asked = hooks.filter(
    ({ topics, tiers }) => topics.includes(topic) && (tiers?.includes(tier) ?? true),
  );
  if (asked.length === 0) return;
  const bought = await findOfferVersion(db, versionOf(s.offer).versionId);
  const charge = book.charges.find((one) => one.id === chargeId);
  const payment = book.payments.find((one) => one.charge === chargeId && !one.isReturned);
  const refund = book.refunds.find((one) => one.id === refundId);
  const { currency } = offer;
  const body = JSON.stringify({
    type: `subscription.${topic}`,
    timestamp: at,
    data: {
      mode: site.mode,
      member: { id: member.id, email: member.email, name: member.name },
      subscription: {
        id: s.id,
        tier,
        offer: bought?.id ?? null,
        state: s.state,
        began_at: s.beganAt,
        paid_through: s.paidThrough,
        ended_at: s.endedAt,
      },
      ...(charge && {
        charge: {
          id: charge.id,
          amount: charge.due,
          currency,
          from: charge.period.from,
          to: charge.period.to,
        },
      }),
      ...(payment && { payment: { id: payment.id, amount: payment.amount, currency } }),
      ...(refund && { refund: { id: refund.id, amount: refund.amount, currency } }),
    },
  });
  await tell(open, asked, topic, body);
}

/** News of a purchase. A webhook limited to some tiers gets gift cards of those tiers and no passes. */
async function ofPurchase(
  open: OpenBook,
  { charge: chargeId, refund: refundId }: Notice,
  topic: WebhookTopic,
  member: Member,
  hooks: Webhook[],
): Promise<void> {
  const { db, site, at } = open;
  const { book } = open.stored;
  const refund = book.refunds.find((one) => one.id === refundId);
  const payment = book.payments.find((one) =>
    refund ? one.id === refund.payment : one.charge === chargeId && !one.isReturned,
  );
  const charge = book.charges.find((one) => one.id === (payment?.charge ?? chargeId));
  const purchase = charge?.purchase ? await findPurchase(db, charge.purchase) : undefined;
  if (!charge || !purchase) return;
  const tier = purchase.kind === 'gift-card' ? purchase.item : null;
  const asked = hooks.filter(
    ({ topics, tiers }) =>
      topics.includes(topic) && (tiers === null || (tier !== null && tiers.includes(tier))),
  );
  if (asked.length === 0) return;
  const { currency } = charge;
  const body = JSON.stringify({
    type: `purchase.${topic}`,
    timestamp: at,
    data: {
      mode: site.mode,
      member: { id: member.id, email: member.email, name: member.name },
      purchase: {
        id: purchase.id,
        product: purchase.productId,
        kind: purchase.kind,
        item: purchase.item,
        state: purchase.state,
      },
      ...(payment && { payment: { id: payment.id, amount: payment.amount, currency } }),
      ...(refund && { refund: { id: refund.id, amount: refund.amount, currency } }),
    },
  });
  await tell(open, asked, topic, body);
}

const tell = ({ db, at }: OpenBook, asked: Webhook[], topic: WebhookTopic, body: string): Promise<void> =>
  insertMessages(
    db,
    asked.map((hook) => ({ id: randomUUID(), webhookId: hook.id, topic, body, at })),
  );
