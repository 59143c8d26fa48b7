import type { Charge, Notice, NoticeKind, Subscription } from '@/core/billing/book';
import { nextCharge } from '@/core/billing/upcoming';
import type { Offer } from '@/core/offers/offer';
import { plainText } from '@/core/content/document';
import { offerSentence } from '@/core/offers/sentence';
import { versionOf, type StoredBook } from '@/billing/store/book';
import type { MailContent } from '@/mail/content';
import { record } from '@/platform/record';
import { writeMail } from '@/services/lib/write-mail';
import { findMember } from '@/store/members';
import { findOfferVersion } from '@/store/offers';
import { findTier, listTierNames } from '@/store/tiers';
import type { OpenBook } from './opened';

/** What the audit says of what happened; what is not here says nothing of its own. */
const DONE: Partial<Record<NoticeKind, string>> = {
  left: 'left for another offer',
  paid: 'payment received',
  returned: 'payment without effect',
  declined: 'payment declined',
  'payment-failed': 'payment failed',
  'ended-unpaid': 'subscription ended unpaid',
  'begun-anew': 'begun anew by a late payment',
  renewed: 'renewed',
  moved: 'moved to another offer',
  cancelled: 'cancelled',
  'cancel-undone': 'cancelling undone',
  'pause-asked': 'pause asked for',
  'pause-undone': 'resumed',
  paused: 'paused',
  resumed: 'resumed',
  'switch-asked': 'switch asked for',
  'switch-undone': 'switch taken back',
  'refund-asked': 'refund asked for',
  refunded: 'refunded',
  'refund-refused': 'refund refused',
  'dispute-opened': 'stopped by a dispute',
  'dispute-won': 'restored after a dispute',
  'dispute-lost': 'ended by a dispute',
  finished: 'schedule finished',
  ended: 'subscription ended',
};

/** Writes what happened into the audit, and to the member where it is news to them. */
export async function tellOf(open: OpenBook, notices: Notice[]): Promise<void> {
  if (notices.length === 0) return;
  const { db, stored } = open;
  const member = await findMember(db, stored.memberId);
  for (const notice of notices) {
    await audit(open, notice);
    const letter = member && (await letterOf(open, notice));
    if (member && letter) await writeMail(db, open.site, member, letter.content, letter.key, open.at);
  }
}

async function audit({ db, actor, at, stored }: OpenBook, notice: Notice): Promise<void> {
  const { memberId, book } = stored;
  const { kind, subscription: id } = notice;
  const s = book.subscriptions.find((one) => one.id === id);
  if ((kind === 'joined' || kind === 'switched') && s) {
    const { versionId } = versionOf(s.offer);
    const offer = await findOfferVersion(db, versionId);
    const detail = { offer: offer?.id, version: offer?.version, subscription: s.id };
    return record(db, actor, at, kind, `member:${memberId}`, detail);
  }
  const action = DONE[kind];
  if (action) await record(db, actor, at, action, `subscription:${id}`, detailOf(stored, notice));
}

/** What is known of the money that a notice is about. */
function detailOf(
  { memberId, book }: StoredBook,
  { charge: chargeId, refund: refundId }: Notice,
): Record<string, unknown> {
  const charge = book.charges.find(({ id }) => id === chargeId);
  const attempt = charge?.attempts.at(-1);
  const refund = book.refunds.find(({ id }) => id === refundId);
  return {
    member: memberId,
    ...(charge &&
      attempt && {
        payment: attempt.id,
        amount: charge.due,
        currency: charge.currency,
        attempt: attempt.n,
        ...(attempt.code && { code: attempt.code }),
      }),
    ...(refund && {
      refund: refund.id,
      payment: refund.payment,
      amount: refund.amount,
      endsAccess: refund.access === 'take',
      ...(refund.reason && { reason: refund.reason }),
    }),
  };
}

type Letter = { content: MailContent; key: string };

async function letterOf(open: OpenBook, notice: Notice): Promise<Letter | null> {
  const { book, offers } = open.stored;
  const s = book.subscriptions.find(({ id }) => id === notice.subscription);
  const offer = s && offers[s.offer];
  if (!s || !offer) return null;
  const charge = book.charges.find(({ id }) => id === notice.charge);
  switch (notice.kind) {
    case 'joined':
    case 'switched':
      return welcome(open, notice.kind === 'joined' ? 'welcome' : 'switched', s, offer);
    case 'paid':
      return charge ? receipt(open, s, charge) : null;
    case 'refunded':
      return refunded(open, notice, s, offer);
    case 'payment-failed':
    case 'cancelled':
    case 'ended':
    case 'ended-unpaid':
    case 'moved':
    case 'paused':
    case 'resumed':
    case 'dispute-lost':
      return news(open, notice.kind, s, offer);
    default:
      return null;
  }
}

const tierOf = (s: Subscription, offer: Offer): string =>
  offer.steps[s.place.last?.step ?? 0]?.tier ?? offer.tier;

/** What it costs: to who has just joined, or from now on. */
async function sentenceOf({ db }: OpenBook, s: Subscription, offer: Offer, isNew: boolean): Promise<string> {
  return offerSentence(offer, {
    skipTrial: !isNew || s.place.skipTrial,
    skipFee: !isNew || s.begunBy !== 'first',
    tierNames: await listTierNames(db),
  });
}

async function welcome(
  open: OpenBook,
  template: 'welcome' | 'switched',
  s: Subscription,
  offer: Offer,
): Promise<Letter> {
  const tier = await findTier(open.db, tierOf(s, offer));
  const content = {
    template,
    tierName: tier?.name ?? '',
    sentence: await sentenceOf(open, s, offer, true),
    words: tier?.welcomeShown.includes('mail') ? plainText(tier.welcomeWords).trim() : '',
    nextCharge: nextOf(open, s, offer.currency),
  };
  return { content, key: `welcome:${s.id}` };
}

function nextOf({ site, stored }: OpenBook, s: Subscription, currency: string) {
  const next = nextCharge(s, { zone: site.zone, offers: stored.offers });
  return next && { at: next.at, amount: next.amount, currency };
}

async function receipt(open: OpenBook, s: Subscription, charge: Charge): Promise<Letter | null> {
  const { db, stored } = open;
  const payment = stored.book.payments.find((one) => one.charge === charge.id && !one.isReturned);
  if (!payment) return null;
  const tier = await findTier(db, charge.period.tier);
  const content = {
    template: 'receipt' as const,
    tierName: tier?.name ?? '',
    amount: payment.amount,
    currency: charge.currency,
    joiningFee: charge.joiningFee,
    // What the money did not pay of the charge, credit did.
    credit: charge.amount - payment.amount,
    paidAt: payment.at,
    path: `/account/receipts/of/${payment.id}`,
    methodLabel: stored.accounts.get(s.id)?.methodLabel ?? null,
    nextCharge: nextOf(open, s, charge.currency),
  };
  return { content, key: `receipt:${payment.id}` };
}

async function refunded(
  { db, stored }: OpenBook,
  { refund: id }: Notice,
  s: Subscription,
  offer: Offer,
): Promise<Letter | null> {
  const refund = stored.book.refunds.find((one) => one.id === id);
  if (!refund) return null;
  const tier = await findTier(db, tierOf(s, offer));
  const content = {
    template: 'refunded' as const,
    tierName: tier?.name ?? '',
    amount: refund.amount,
    currency: offer.currency,
    // No gateway has a name for what staff send themselves.
    byHand: refund.ref === null,
    endsAccess: refund.access === 'take',
  };
  return { content, key: `refund:${refund.id}` };
}

async function news(
  open: OpenBook,
  template: Extract<MailContent, { nextTry: unknown }>['template'],
  s: Subscription,
  offer: Offer,
): Promise<Letter> {
  const tier = await findTier(open.db, tierOf(s, offer));
  const content = {
    template,
    tierName: tier?.name ?? '',
    nextTry: s.dueAt,
    until: s.paidThrough,
    sentence: await sentenceOf(open, s, offer, false),
  };
  // The count of events makes the key: the same news of the same moment is sent once.
  return { content, key: `${template}:${s.id}:${s.events}` };
}
