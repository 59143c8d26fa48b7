import { currentSite, deskWords } from '@/platform/site';
import { unknownItems } from '@/access/services/lib/desk-items';
import { listItemReads, type ItemRead } from '@/content/store/item-reads';
import type { Actor } from '@/platform/actor';
import { laneWindow, monthsOf, partsOf, placeOf, type LanePart, type LaneWindow } from '@/core/reports/lanes';
import { compare, type Instant } from '@/core/instants';
import { declineWords } from '@/billing/gateways/contract';
import { listAudit } from '@/platform/store/audit';
import { pool } from '@/platform/store/db';
import { listAnswers } from '@/billing/store/checkouts';
import type { JoinAnswer } from '@/core/tiers/join-fields';
import { listMailsTo } from '@/mail/store/mails';
import { listNotes, type MemberNote } from '@/members/store/member-notes';
import { findMember, listMergedInto, type Member } from '@/people/store/members';
import { memberAccount, type MemberAccount } from '@/billing/services/lib/member-account';
import { staffUse } from '@/platform/use';
import { uuid } from '@/platform/inputs';
import { found } from '@/platform/result';

export type TimelineEntry = {
  id: string;
  at: Instant;
  isFuture: boolean;
  /** A day is enough, where the hour says nothing. */
  isDay: boolean;
  words: string;
  note?: string;
  money?: { amount: number; currency: string };
  tone: 'plain' | 'good' | 'bad' | 'mail';
  /** What more is known of, by this id. */
  of?: 'payment' | 'mail';
};

/** What is held and paid over time; places in per cent of the width. Amounts in minor units. */
export type Lanes = {
  window: LaneWindow;
  months: { at: Instant; left: number }[];
  now: number;
  holds: { id: string; name: string; parts: LanePart[] }[];
  money: {
    id: string;
    left: number;
    at: Instant;
    amount: number;
    currency: string;
    is: 'paid' | 'declined' | 'ahead';
  }[];
  /** When they first opened an item; null where reads are not counted. */
  reads: { id: string; left: number; title: string; at: Instant }[] | null;
};

function lanesOf(account: MemberAccount, joined: Instant, reads: ItemRead[] | null): Lanes {
  const { now, zone } = account;
  const first = account.holdings.map(({ fromAt }) => fromAt).sort(compare)[0] ?? joined;
  const window = laneWindow(first, now, zone);
  const isIn = (at: Instant): boolean => compare(window.from, at) <= 0 && compare(at, window.to) < 0;
  const past = account.payments.flatMap(({ id, at, amount, currency, state }): Lanes['money'] =>
    (state === 'succeeded' || state === 'declined') && isIn(at)
      ? [{ id, at, left: placeOf(window, at), amount, currency, is: state === 'succeeded' ? 'paid' : state }]
      : [],
  );
  const ahead = account.subscriptions.flatMap(({ subscription, offer, ahead: charges }): Lanes['money'] =>
    charges
      .filter(({ at }) => isIn(at))
      .map(({ at, amount }) => ({
        id: `${subscription.id}:${at}`,
        at,
        left: placeOf(window, at),
        amount,
        currency: offer.definition.currency,
        is: 'ahead' as const,
      })),
  );
  return {
    window,
    months: monthsOf(window, zone),
    now: placeOf(window, now),
    holds: account.holdings.flatMap(({ id, tier, tierId, fromAt, untilAt }) => {
      const parts = partsOf(window, fromAt, untilAt);
      return parts.length > 0 ? [{ id, name: tier?.name ?? tierId, parts }] : [];
    }),
    money: [...past, ...ahead],
    reads:
      reads &&
      reads
        .filter(({ firstAt }) => isIn(firstAt))
        .map(({ itemId: id, title, firstAt: at }) => ({ id, title, at, left: placeOf(window, at) })),
  };
}

/** Reads that the time line and the lanes show, the latest. */
const MOST_READS = 200;

/** Everything about a member on one time line, what is to come on top. Null: nobody has this id. */
async function readFile(
  actor: Actor,
  id: string,
): Promise<{
  member: Member;
  account: MemberAccount;
  timeline: TimelineEntry[];
  lanes: Lanes;
  /** What they answered when they joined, newest first. */
  answers: (JoinAnswer & { at: Instant })[];
  notes: MemberNote[];
} | null> {
  const member = await findMember(pool(), id);
  if (!member) return null;
  const account = await memberAccount(member, await deskWords());
  const subjects = [
    ...[id, ...(await listMergedInto(pool(), id))].map((one) => `member:${one}`),
    ...account.subscriptions.map(({ subscription }) => `subscription:${subscription.id}`),
  ];
  const [audit, mails] = [await listAudit(pool(), subjects, 200), await listMailsTo(pool(), id)];
  const reads = (await currentSite()).countsOpens
    ? await listItemReads(pool(), id, await unknownItems(actor), MOST_READS)
    : null;
  // In the order in which things follow from one another at one instant: payment, what it did, the mail about it.
  const timeline: TimelineEntry[] = [
    ...account.subscriptions.flatMap(({ subscription: s, next, tier, offer }): TimelineEntry[] => {
      const name = tier?.name ?? offer.name;
      const coming: TimelineEntry[] = [];
      if (next)
        coming.push({
          id: `next:${s.id}`,
          at: next.at,
          isFuture: true,
          isDay: true,
          words: `${s.state === 'overdue' ? 'Next retry' : 'Next charge'} for ${name}`,
          money: next,
          tone: 'plain',
        });
      if (s.state === 'cancelling' && s.paidThrough)
        coming.push({
          id: `end:${s.id}`,
          at: s.paidThrough,
          isFuture: true,
          isDay: true,
          words: `${name} ends`,
          tone: 'plain',
        });
      return coming;
    }),
    ...account.payments.map((p): TimelineEntry => ({
      id: p.id,
      at: p.at,
      isFuture: false,
      isDay: false,
      money: { amount: p.amount, currency: p.currency },
      words:
        p.state === 'succeeded'
          ? `Paid for ${p.tierName}`
          : p.state === 'declined'
            ? `A payment for ${p.tierName} failed, attempt ${p.attempt}`
            : `A payment for ${p.tierName} is in progress`,
      note: p.declineCode ? declineWords(p.declineCode) : undefined,
      tone: p.state === 'succeeded' ? 'good' : p.state === 'declined' ? 'bad' : 'plain',
      of: 'payment',
    })),
    ...[...audit]
      .reverse()
      .filter((entry) => !entry.action.startsWith('payment '))
      .map((entry): TimelineEntry => ({
        id: `audit:${entry.id}`,
        at: entry.at,
        isFuture: false,
        isDay: false,
        words: capital(entry.action),
        note: entry.actorKind === 'staff' ? 'by staff' : undefined,
        tone: 'plain',
      })),
    ...mails.map((mail): TimelineEntry => ({
      id: mail.id,
      at: mail.at,
      isFuture: false,
      isDay: false,
      words: `Mail: ${mail.subject}`,
      note: mail.state === 'sent' ? undefined : mail.state,
      tone: 'mail',
      of: 'mail',
    })),
  ];
  for (const { itemId, title, firstAt } of reads ?? [])
    timeline.push({
      id: `read:${itemId}`,
      at: firstAt,
      isFuture: false,
      isDay: false,
      words: `Read “${title}”`,
      tone: 'plain',
    });
  const answers = await listAnswers(pool(), id);
  const notes = await listNotes(pool(), id, false);
  return {
    member,
    account,
    answers,
    notes,
    lanes: lanesOf(account, member.joinedAt, reads),
    timeline: timeline.reverse().sort((a, b) => compare(b.at, a.at)),
  };
}

const capital = (text: string): string => text.charAt(0).toUpperCase() + text.slice(1);

export const memberFile = staffUse('see members')('member-file', uuid, async (actor, id) =>
  found(await readFile(actor, id)),
);
