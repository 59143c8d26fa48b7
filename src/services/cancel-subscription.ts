import { findAgreementOf } from '@/store/agreements';
import { requireRight, type Actor } from './actor';
import { changeSubscription } from './change-subscription';
import type { Result } from './result';

/** Cancels a subscription at the end of what is paid. By the member, or by staff who manage members. */
export function cancelSubscription(actor: Actor, id: string): Promise<Result<null>> {
  return changeSubscription(actor, id, { type: 'cancel' });
}

/** Takes a cancellation back, until the end has come. What was agreed with a wallet has ended, and is agreed anew. */
export function undoCancel(actor: Actor, id: string): Promise<Result<null>> {
  return changeSubscription(actor, id, { type: 'undo-cancel' }, async (_, db) =>
    (await findAgreementOf(db, id, ['ending', 'ended']))
      ? 'The wallet bills no more for this, and only you can approve it again there. Choose how it is paid in your account, then keep it.'
      : null,
  );
}

/** Ends a subscription and what it holds at once. By staff who manage members. */
export async function endSubscription(actor: Actor, id: string): Promise<Result<null>> {
  requireRight(actor, 'manage members');
  return changeSubscription(actor, id, { type: 'end-now' });
}
