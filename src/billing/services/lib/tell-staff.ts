import type { Notice, NoticeKind } from '@/core/billing/book';
import type { StaffMail } from '@/core/staff-mails';
import type { StaffLetter } from '@/mail/services/lib/write-staff-mail';
import { findPurchase } from '@/billing/store/purchases';
import { mailStaff } from '@/people/services/lib/mail-staff';
import type { Webhook } from '@/billing/store/webhooks';
import type { StaffReader } from '@/people/store/staff-mails';
import type { Transaction } from '@/platform/store/db';
import type { Site } from '@/platform/store/site';
import type { MemberId } from '@/core/ids';
import type { Instant } from '@/core/instants';
import { deskWordsOf } from '@/words/desk';
import type { OpenBook } from './opened';
import type { Member } from '@/people/store/members';

/** Who a book's news may be written to, and about whom. */
export type Readers = {
  member: Member | undefined;
  tierNames: Map<string, string>;
  /** Staff who asked for news. */
  staff: StaffReader[];
  /** Addresses that are told of such news. */
  hooks: Webhook[];
};

/** What of a book's news staff can ask for. */
const NEWS: Partial<Record<NoticeKind, Exclude<StaffMail, 'bought' | 'transfer' | 'comment' | 'weekly'>>> = {
  joined: 'joined',
  'payment-failed': 'failed',
  'dispute-opened': 'disputed',
  cancelled: 'left',
  ended: 'left',
  'ended-unpaid': 'left',
};

/** The same of what was bought once. */
const OF_PURCHASES: Partial<Record<NoticeKind, 'bought' | 'disputed'>> = {
  paid: 'bought',
  'dispute-opened': 'disputed',
};

async function tellOfPurchase(
  { db, site, stored, at }: OpenBook,
  { kind, charge: chargeId }: Notice,
  { member, staff }: Readers,
): Promise<void> {
  const about = OF_PURCHASES[kind];
  const charge = stored.book.charges.find((one) => one.id === chargeId);
  const purchase = charge?.purchase ? await findPurchase(db, charge.purchase) : undefined;
  const payment = stored.book.payments.find((one) => one.charge === chargeId);
  if (!about || !charge || !purchase || !member) return;
  const t = deskWordsOf(site);
  const of = {
    name: member.name || member.email,
    tier: purchase.name,
    email: member.email,
    amount: t.money(charge.amount, charge.currency),
    date: t.dateTime(at),
  };
  const letter: StaffLetter = {
    subject: t(`staff-mail.${about}`, of),
    lines: [t(about === 'bought' ? 'staff-mail.bought-words' : 'staff-mail.disputed-purchase', of)],
    link: {
      label: t('staff-mail.open'),
      path: payment ? `/desk/money/payments?open=${payment.id}` : '/desk/money/payments',
    },
    aboutId: member.id,
    key: `${kind}:${purchase.id}`,
    at,
  };
  await mailStaff(db, site, about, letter, staff);
}

/** Mails a book's news to those of the staff who asked for it. */
export async function tellStaff(open: OpenBook, notice: Notice, readers: Readers): Promise<void> {
  const { db, site, stored, at } = open;
  const { kind, subscription: id } = notice;
  const { member, tierNames, staff } = readers;
  if (id === null) return tellOfPurchase(open, notice, readers);
  const about = NEWS[kind];
  const s = stored.book.subscriptions.find((one) => one.id === id);
  if (!about || !s || !member) return;
  const offer = stored.offers[s.offer];
  const tierId = offer?.steps[s.place.last?.step ?? 0]?.tier ?? offer?.tier ?? '';
  const of = { name: member.name || member.email, tier: tierNames.get(tierId) ?? '' };
  const t = deskWordsOf(site);
  const letter: StaffLetter = {
    subject: t(`staff-mail.${about}`, of),
    lines: [t(`staff-mail.${about}-words`, { ...of, email: member.email, date: t.dateTime(at) })],
    link: { label: t('staff-mail.open'), path: `/desk/money?open=${s.id}` },
    aboutId: member.id,
    key: `${kind}:${s.id}:${s.events}`,
    at,
  };
  await mailStaff(db, site, about, letter, staff);
}

type Transfer = {
  memberId: MemberId;
  name: string;
  amount: number;
  currency: string;
  reference: string;
  n: number;
};

/** Mails staff that a transfer is on its way, to be matched when it arrives. */
export async function tellStaffOfTransfer(
  db: Transaction,
  site: Site,
  of: Transfer,
  at: Instant,
): Promise<void> {
  const t = deskWordsOf(site);
  const told = { name: of.name, amount: t.money(of.amount, of.currency), reference: of.reference };
  const letter = {
    subject: t('staff-mail.transfer', told),
    lines: [t('staff-mail.transfer-words', told)],
    link: { label: t('staff-mail.open'), path: '/desk/money/transfers' },
    aboutId: of.memberId,
    key: `transfer:${of.reference}:${of.n}`,
    at,
  };
  await mailStaff(db, site, 'transfer', letter);
}
