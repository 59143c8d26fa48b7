import type { Deed } from '@/core/billing/deeds';
import { findSubscription } from '@/billing/store/subscriptions';
import type { Actor } from '@/platform/actor';
import { done, missing, type Result } from '@/platform/result';
import { pool } from '@/platform/store/db';
import { inBookForPerson } from './in-book';

/** Has one thing happen to a subscription, where its state allows that. */
export async function changeSubscription(
  actor: Actor,
  id: string,
  what: Exclude<Deed, 'renew'>,
): Promise<Result<null>> {
  const found = await findSubscription(pool(), id);
  if (!found) return missing();
  const ended = await inBookForPerson(actor, found, {}, { do: what, subscription: id });
  return ended.ok ? done(null) : ended;
}
