import type { Instant } from '@/core/calendar';
import type { Notice, Transition } from '@/core/subscriptions/subscription';
import { endAgreementsOf } from '@/store/agreements';
import { releaseCredit } from '@/store/credits';
import type { Transaction } from '@/platform/store/db';
import { holdTier, holdUntil, releaseHoldings } from '@/store/holdings';
import { findMember } from '@/store/members';
import type { Site } from '@/platform/store/site';
import { completeMove, saveLife, type StoredSubscription } from '@/store/subscriptions';
import { findTier, listTierNames } from '@/store/tiers';
import { reminderOf } from '@/core/subscriptions/reminders';
import { offerSentence } from '@/core/offers/sentence';
import type { Actor } from '@/platform/actor';
import { record } from '@/platform/record';
import type { Bought } from './terms';
import { writeMail } from './write-mail';

const DONE: Record<Notice, string> = {
  'payment-failed': 'payment failed',
  'begun-anew': 'begun anew by a late payment',
  cancelled: 'cancelled',
  'dispute-opened': 'stopped by a dispute',
  'dispute-won': 'goes on after a dispute',
  'dispute-lost': 'ended by a dispute',
  'cancel-undone': 'cancelling undone',
  ended: 'subscription ended',
  'ended-unpaid': 'subscription ended unpaid',
  finished: 'schedule finished',
  moved: 'moved to another offer',
  'pause-asked': 'pause asked for',
  paused: 'paused',
  resumed: 'resumed',
  renewed: 'renewed',
  switched: 'left for another offer',
};

export type HeldSubscription = StoredSubscription & { memberId: string };

/** Stores what a transition decided: the subscription, its holdings, the audit and the mails. Charges are the caller's. */
export async function applyTransition(
  db: Transaction,
  site: Site,
  actor: Actor,
  before: HeldSubscription,
  { subscription: after, effects }: Extract<Transition, { ok: true }>,
  { offer, movesTo, terms }: Bought,
  at: Instant,
): Promise<void> {
  const hasMoved = effects.some((effect) => effect.do === 'move');
  const under = hasMoved && terms.movesTo ? { ...terms, offer: terms.movesTo, movesTo: undefined } : terms;
  await saveLife(db, before.id, after, reminderOf(after, under)?.remindAt ?? null);
  // Credit that was set against a charge which now will never be paid is the member's again.
  if (after.state === 'ended') await releaseCredit(db, before.id);
  // A wallet that bills by itself must not go on where we would not charge, or would charge something else.
  const isOver = after.state === 'ended' || after.state === 'cancelling' || after.state === 'paused';
  if (isOver || after.disputedAt) await endAgreementsOf(db, before.id);
  else if (hasMoved) await endAgreementsOf(db, before.id, { version: before.movesTo });
  for (const effect of effects) {
    if (effect.do === 'hold') {
      await holdTier(db, {
        memberId: before.memberId,
        mode: before.mode,
        subscriptionId: before.id,
        tierId: effect.tier,
        isPaid: offer.isPaid,
        from: effect.from,
        until: effect.until,
      });
    } else if (effect.do === 'hold-until') {
      await holdUntil(db, before.id, effect.until);
    } else if (effect.do === 'release') {
      await releaseHoldings(db, before.id, effect.at);
    } else if (effect.do === 'move') {
      await completeMove(db, before.id);
    } else if (effect.do === 'tell') {
      await record(db, actor, at, DONE[effect.notice], `subscription:${before.id}`, {
        member: before.memberId,
      });
      await tell(
        db,
        site,
        { ...before, ...after, memberId: before.memberId },
        effect.notice,
        { offer, movesTo },
        at,
      );
    }
  }
}

/** News that is worth a mail of its own; the rest is told by a receipt or a page. */
const MAILED = [
  'payment-failed',
  'cancelled',
  'ended',
  'ended-unpaid',
  'moved',
  'paused',
  'resumed',
  'dispute-lost',
] as const;
const isMailed = (notice: Notice): notice is (typeof MAILED)[number] =>
  (MAILED as readonly string[]).includes(notice);

async function tell(
  db: Transaction,
  site: Site,
  s: HeldSubscription,
  notice: Notice,
  { offer, movesTo }: Pick<Bought, 'offer' | 'movesTo'>,
  at: Instant,
): Promise<void> {
  if (!isMailed(notice)) return;
  const told = notice === 'moved' && movesTo ? movesTo : offer;
  const member = await findMember(db, s.memberId);
  const tier = await findTier(db, told.definition.steps[s.period?.step ?? 0]?.tier ?? told.tierId);
  if (!member || !tier) return;
  const content = {
    template: notice,
    tierName: tier.name,
    nextTry: s.dueAt,
    until: s.paidThrough,
    sentence: offerSentence(told.definition, {
      skipTrial: true,
      skipFee: true,
      tierNames: await listTierNames(db),
    }),
  };
  // The count of failures and the instant make the key: the same news about the same moment is sent once.
  await writeMail(db, site, member, content, `${notice}:${s.id}:${s.failures}:${at}`, at);
}
