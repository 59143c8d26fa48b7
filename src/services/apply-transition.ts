import type { Instant } from '@/core/calendar';
import type { Effect, Notice, Subscription } from '@/core/subscriptions/subscription';
import type { Transaction } from '@/store/db';
import type { Site } from '@/store/site';
import { holdTier, holdUntil } from '@/store/holdings';
import { findMember } from '@/store/members';
import { saveLife, type StoredSubscription } from '@/store/subscriptions';
import { findTier, type StoredOffer } from '@/store/tiers';
import type { Actor } from './actor';
import { record } from './record';
import { writeMail } from './write-mail';

const DONE: Record<Notice, string> = {
  'payment-failed': 'payment failed',
  cancelled: 'cancelled',
  'cancel-undone': 'cancelling undone',
  ended: 'subscription ended',
  'ended-unpaid': 'subscription ended unpaid',
  finished: 'schedule finished',
};

/** Stores what a transition decided: the subscription, its holdings, the audit and the mails. Charges are the caller's. */
export async function applyTransition(
  db: Transaction,
  site: Site,
  actor: Actor,
  before: StoredSubscription & { memberId: string },
  after: Subscription,
  effects: Effect[],
  offer: StoredOffer,
  at: Instant,
): Promise<void> {
  await saveLife(db, before.id, after);
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
    } else if (effect.do === 'tell') {
      await record(db, actor, at, DONE[effect.notice], `subscription:${before.id}`, {
        member: before.memberId,
      });
      await tell(db, site, { ...before, ...after, memberId: before.memberId }, effect.notice, offer, at);
    }
  }
}

async function tell(
  db: Transaction,
  site: Site,
  s: StoredSubscription & { memberId: string },
  notice: Notice,
  offer: StoredOffer,
  at: Instant,
): Promise<void> {
  if (notice === 'cancel-undone' || notice === 'finished') return;
  const member = await findMember(db, s.memberId);
  const tier = await findTier(db, offer.definition.steps[s.period?.step ?? 0]?.tier ?? offer.tierId);
  if (!member || !tier) return;
  // The count of failures and the instant make the key: the same news about the same moment is sent once.
  const dedupeKey = `${notice}:${s.id}:${s.failures}:${at}`;
  await writeMail(
    db,
    site,
    member,
    { template: notice, tierName: tier.name, nextTry: s.dueAt, until: s.paidThrough },
    dedupeKey,
    at,
  );
}
