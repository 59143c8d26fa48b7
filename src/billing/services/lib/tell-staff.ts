import type { Notice, NoticeKind } from '@/core/billing/book';
import type { StaffMail } from '@/core/staff-mails';
import type { StaffLetter } from '@/mail/services/lib/write-staff-mail';
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
const NEWS: Partial<Record<NoticeKind, Exclude<StaffMail, 'transfer' | 'comment' | 'weekly'>>> = {
  joined: 'joined',
  'payment-failed': 'failed',
  'dispute-opened': 'disputed',
  cancelled: 'left',
  ended: 'left',
  'ended-unpaid': 'left',
};

/** Mails a book's news to those of the staff who asked for it. */
export async function tellStaff(
  { db, site, stored, at }: OpenBook,
  { kind, subscription: id }: Notice,
  { member, tierNames, staff }: Readers,
): Promise<void> {
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
