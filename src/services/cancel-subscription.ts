import { uuid } from '@/platform/inputs';
import { memberUse, staffUse } from '@/platform/use';
import { findAgreementOf } from '@/store/agreements';
import { changeSubscription } from './lib/change-subscription';
import { ownerOfSubscription as owner } from './lib/owners';

/** Cancels a subscription at the end of what is paid. By the member, or by staff who manage members. */
export const cancelSubscription = memberUse(
  'cancel-subscription',
  uuid,
  (actor, id) => changeSubscription(actor, id, { type: 'cancel' }),
  { owner, staff: 'manage members' },
);

/** Takes a cancellation back, until the end has come. What was agreed with a wallet has ended, and is agreed anew. */
export const undoCancel = memberUse(
  'undo-cancel',
  uuid,
  (actor, id) =>
    changeSubscription(actor, id, { type: 'undo-cancel' }, async (_, db) =>
      (await findAgreementOf(db, id, ['ending', 'ended']))
        ? 'The wallet bills no more for this, and only you can approve it again there. Choose a payment method in your account, then undo the cancellation.'
        : null,
    ),
  { owner, staff: 'manage members' },
);

/** Ends a subscription and what it holds at once. */
export const endSubscription = staffUse('manage members')('end-subscription', uuid, (actor, id) =>
  changeSubscription(actor, id, { type: 'end-now' }),
);
