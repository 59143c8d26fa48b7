import type { Charge, Notice, NoticeKind, Subscription, BillingContext } from '@/core/billing/book';
import { figuresOfNext } from '@/core/billing/figures';
import type { Offer } from '@/core/offers/offer';
import { plainText } from '@/core/content/prose';
import { offerSentence } from '@/words/offers';
import { wordsOf } from '@/words/words';
import { type StoredBook } from '@/billing/store/book';
import { versionOf } from '@/billing/store/book-from-rows';
import { findPurchase } from '@/billing/store/purchases';
import type { MailContent } from '@/mail/catalogue';
import type { NextChargeTold } from '@/mail/define';
import { record } from '@/platform/record';
import { writeMail } from '@/mail/services/lib/write-mail';
import { together, type Db } from '@/platform/store/db';
import { findMember, type Member } from '@/people/store/members';
import { findOfferVersion } from '@/tiers/store/offers';
import { findTier, listTierNames } from '@/tiers/store/tiers';
import { listStaffReaders } from '@/people/store/staff-mails';
import type { OpenBook } from './opened';
import { listWebhooks } from '@/billing/store/webhooks';
import type { Mode } from '@/platform/store/site';
import { followSubscription } from './come-into-groups';
import { purchaseCode } from './purchase-code';
import { tellStaff, type Readers } from './tell-staff';
import { writeWebhooks } from './write-webhooks';
import type { MemberId } from '@/core/ids';

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
  'switch-undone': 'switch undone',
  'refund-asked': 'refund asked for',
  refunded: 'refunded',
  'refund-refused': 'refund refused',
  'dispute-opened': 'stopped by a dispute',
  'dispute-won': 'restored after a dispute',
  'dispute-lost': 'ended by a dispute',
  finished: 'schedule finished',
  ended: 'subscription ended',
};

/** Whom a book is about, and how the tiers are called: read beside what is stored. */
export async function readersOf(db: Db, memberId: MemberId, mode: Mode): Promise<Readers> {
  const [member, tierNames, staff, hooks] = await together([
    findMember(db, memberId),
    listTierNames(db),
    listStaffReaders(db),
    listWebhooks(db, mode),
  ]);
  return { member, tierNames, staff, hooks: hooks.filter(({ isOn }) => isOn) };
}

/** Writes what happened into the audit, to the member where it is news to them, and to those outside who asked. */
export async function tellOf(
  open: OpenBook,
  context: BillingContext,
  notices: Notice[],
  readers: Readers,
): Promise<void> {
  const { member, tierNames } = readers;
  const told = { ...open, context, tierNames };
  for (const notice of notices) {
    await followSubscription(open, notice.kind, notice.subscription);
    await together([
      audit(open, notice),
      member ? write(told, member, notice) : null,
      readers.staff.length > 0 ? tellStaff(open, notice, readers) : null,
      member && readers.hooks.length > 0 ? writeWebhooks(open, notice, member, readers.hooks) : null,
    ]);
  }
}

/** What letters are written from. */
type Told = OpenBook & { context: BillingContext; tierNames: Map<string, string> };

async function write(told: Told, member: Member, notice: Notice): Promise<void> {
  const letter = await letterOf(told, notice);
  if (letter) await writeMail(told.db, told.site, { to: member, ...letter, at: told.at });
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
  const subject = id === null ? `member:${memberId}` : `subscription:${id}`;
  if (action) await record(db, actor, at, action, subject, detailOf(stored, notice));
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

async function letterOf(told: Told, notice: Notice): Promise<Letter | null> {
  const { book, offers } = told.stored;
  const s = book.subscriptions.find(({ id }) => id === notice.subscription);
  const offer = s && offers[s.offer];
  const charge = book.charges.find(({ id }) => id === notice.charge);
  if (notice.subscription === null) return boughtLetter(told, notice, charge);
  if (!s || !offer) return null;
  switch (notice.kind) {
    case 'joined':
    case 'switched':
      return welcome(told, notice.kind === 'joined' ? 'welcome' : 'switched', s, offer);
    case 'paid':
      return charge ? receipt(told, s, charge) : null;
    case 'refunded':
      return refunded(told, notice, s, offer);
    case 'payment-failed':
    case 'cancelled':
    case 'ended':
    case 'ended-unpaid':
    case 'moved':
    case 'paused':
    case 'resumed':
    case 'dispute-lost':
      return news(told, notice.kind, s, offer);
    default:
      return null;
  }
}

/** What the buyer of a pass or a gift card is told: that it is paid, with its code; or that it was refunded. */
async function boughtLetter(
  { db, stored }: Told,
  { kind, refund: refundId }: Notice,
  charge: Charge | undefined,
): Promise<Letter | null> {
  const { book } = stored;
  const refund = book.refunds.find(({ id }) => id === refundId);
  const refunded = book.payments.find(({ id }) => id === refund?.payment);
  const of = charge ?? book.charges.find(({ id }) => id === refunded?.charge);
  const purchase = of?.purchase ? await findPurchase(db, of.purchase) : undefined;
  if (!purchase || !of) return null;
  if (kind === 'paid') {
    const payment = book.payments.find((one) => one.charge === of.id && !one.isReturned);
    const held = book.holdings.find((one) => one.purchase === purchase.id);
    const code = purchaseCode(purchase);
    const content = {
      template: 'bought' as const,
      kind: purchase.kind,
      name: purchase.name,
      amount: payment?.amount ?? 0,
      currency: of.currency,
      at: payment?.at ?? purchase.at,
      until: held?.to ?? null,
      receiptPath: payment ? `/account/receipts/of/${payment.id}` : '/account/receipts',
      secret: { code, path: `/code?word=${code}` },
    };
    return { content, key: `bought:${purchase.id}` };
  }
  if (kind === 'dispute-lost') {
    const content = { template: kind, tierName: purchase.name, nextTry: null, until: null, sentence: '' };
    return { content, key: `dispute-lost:${purchase.id}` };
  }
  if (kind !== 'refunded' || !refund) return null;
  const content = {
    template: 'refunded' as const,
    tierName: purchase.name,
    amount: refund.amount,
    currency: of.currency,
    byHand: refund.ref === null,
    endsAccess: refund.access === 'take',
  };
  return { content, key: `refund:${refund.id}` };
}

const tierOf = (s: Subscription, offer: Offer): string =>
  offer.steps[s.place.last?.step ?? 0]?.tier ?? offer.tier;

/** What it costs: to who has just joined, or from now on. */
const sentenceOf = ({ site, tierNames }: Told, s: Subscription, offer: Offer, isNew: boolean): string =>
  offerSentence(offer, wordsOf(site), {
    skipTrial: !isNew || s.place.skipTrial,
    skipFee: !isNew || s.begunBy !== 'first',
    tierNames,
  });

async function welcome(
  told: Told,
  template: 'welcome' | 'switched',
  s: Subscription,
  offer: Offer,
): Promise<Letter> {
  const tier = await findTier(told.db, tierOf(s, offer));
  const content = {
    template,
    tierName: tier?.name ?? '',
    sentence: sentenceOf(told, s, offer, true),
    words: tier?.welcomeShown.includes('mail') ? plainText(tier.welcomeWords).trim() : '',
    nextCharge: nextOf(told, s, offer.currency),
  };
  return { content, key: `welcome:${s.id}` };
}

function nextOf({ context, stored, at }: Told, s: Subscription, currency: string): NextChargeTold | null {
  const next = figuresOfNext(stored.book, s, context, at);
  return next && { at: next.at, amount: next.due, credit: next.credit, currency };
}

function receipt(told: Told, s: Subscription, charge: Charge): Letter | null {
  const { stored, tierNames } = told;
  const payment = stored.book.payments.find((one) => one.charge === charge.id && !one.isReturned);
  if (!payment) return null;
  const content = {
    template: 'receipt' as const,
    tierName: tierNames.get(charge.period.tier) ?? '',
    amount: payment.amount,
    currency: charge.currency,
    joiningFee: charge.joiningFee,
    // What the money did not pay of the charge, credit did.
    credit: charge.amount - payment.amount,
    paidAt: payment.at,
    path: `/account/receipts/of/${payment.id}`,
    methodLabel: stored.accounts.get(s.id)?.methodLabel ?? null,
    nextCharge: nextOf(told, s, charge.currency),
  };
  return { content, key: `receipt:${payment.id}` };
}

function refunded(
  { stored, tierNames }: Told,
  { refund: id }: Notice,
  s: Subscription,
  offer: Offer,
): Letter | null {
  const refund = stored.book.refunds.find((one) => one.id === id);
  if (!refund) return null;
  const content = {
    template: 'refunded' as const,
    tierName: tierNames.get(tierOf(s, offer)) ?? '',
    amount: refund.amount,
    currency: offer.currency,
    // No gateway has a name for what staff send themselves.
    byHand: refund.ref === null,
    endsAccess: refund.access === 'take',
  };
  return { content, key: `refund:${refund.id}` };
}

function news(
  told: Told,
  template: Extract<MailContent, { nextTry: unknown }>['template'],
  s: Subscription,
  offer: Offer,
): Letter {
  const content = {
    template,
    tierName: told.tierNames.get(tierOf(s, offer)) ?? '',
    nextTry: s.dueAt,
    until: s.paidThrough,
    sentence: sentenceOf(told, s, offer, false),
  };
  // The count of events makes the key: the same news of the same moment is sent once.
  return { content, key: `${template}:${s.id}:${s.events}` };
}
