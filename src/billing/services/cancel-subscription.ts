import { findSubscription } from '@/billing/store/subscriptions';
import { uuid } from '@/platform/inputs';
import { refusedField } from '@/platform/result';
import { pool } from '@/platform/store/db';
import { memberUse, staffUse } from '@/platform/use';
import { ownerOfSubscription as owner } from './lib/owners';
import { changeSubscription } from './lib/change-subscription';

/** Cancels a subscription at the end of what is paid. By the member, or by staff who manage members. */
export const cancelSubscription = memberUse(
  'cancel-subscription',
  uuid,
  (actor, id) => changeSubscription(actor, id, 'cancel'),
  { owner, staff: 'manage members' },
);

/** Takes a cancellation back, until the end has come. What was agreed with a wallet has ended, and is agreed anew. */
export const undoCancel = memberUse(
  'undo-cancel',
  uuid,
  async (actor, id) =>
    (await findSubscription(pool(), id))?.method?.nature === 'wallet'
      ? refusedField('', 'wallet.not-undone')
      : changeSubscription(actor, id, 'undo'),
  { owner, staff: 'manage members' },
);

/** Ends a subscription and what it holds at once. */
export const endSubscription = staffUse('manage members')('end-subscription', uuid, (actor, id) =>
  changeSubscription(actor, id, 'take-away'),
);
