import type { Instant } from '@/core/calendar';
import type { Event } from '@/core/subscriptions/subscription';
import { transition } from '@/core/subscriptions/transition';
import type { Transaction } from '@/platform/store/db';
import type { Site } from '@/platform/store/site';
import type { StoredSubscription } from '@/store/subscriptions';
import type { Actor } from '@/platform/actor';
import { applyTransition } from './apply-transition';
import { done, refusedField, type Result } from '@/platform/result';
import { termsOf } from './terms';

/**
 * Something happens to a subscription, which the caller has locked: what follows from it by the table of its life is
 * stored. Refused, with the reason, where by that table it cannot happen now.
 */
export async function happen(
  db: Transaction,
  site: Site,
  actor: Actor,
  subscription: StoredSubscription,
  event: Event,
  at: Instant,
): Promise<Result<null>> {
  const { memberId } = subscription;
  if (memberId === null) return refusedField('', 'Nobody has joined by this yet.');
  const bought = await termsOf(db, site, subscription);
  const next = transition(subscription, event, bought.terms, at);
  if (!next.ok) return refusedField('', next.reason);
  await applyTransition(db, site, actor, { ...subscription, memberId }, next, bought, at);
  return done(null);
}
