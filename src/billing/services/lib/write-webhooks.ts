import { randomUUID } from 'node:crypto';
import type { Notice } from '@/core/billing/book';
import { topicOf } from '@/core/webhooks';
import { versionOf } from '@/billing/store/book-rows';
import { insertMessages, type Webhook } from '@/billing/store/webhooks';
import { findOfferVersion } from '@/tiers/store/offers';
import type { Member } from '@/people/store/members';
import type { OpenBook } from './opened';

/**
 * Writes a message of a book's news for each webhook that asked for it, in the transaction in which it happened: none is lost,
 * and none is told of what did not come about. The form is that of Standard Webhooks; amounts are in minor units.
 */
export async function writeWebhooks(
  { db, site, stored, at }: OpenBook,
  { kind, subscription: id, charge: chargeId, refund: refundId }: Notice,
  member: Member,
  hooks: Webhook[],
): Promise<void> {
  const topic = topicOf(kind);
  const { book, offers } = stored;
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
  await insertMessages(
    db,
    asked.map((hook) => ({ id: randomUUID(), webhookId: hook.id, topic, body, at })),
  );
}
