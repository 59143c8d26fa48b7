import { uuid } from '@/platform/inputs';
import { memberUse } from '@/platform/use';
import { ownerOfQuote, ownerOfSubscription } from './lib/owners';
import { acceptLater } from './lib/accept-later';
import { changeSubscription } from './lib/change-subscription';

/** A member accepts a switch down that comes at the end of what is paid. */
export const switchLater = memberUse('switch-later', uuid, acceptLater, { owner: ownerOfQuote });

/** Takes a switch back that was asked for and has not come yet. */
export const undoSwitchLater = memberUse(
  'undo-switch-later',
  uuid,
  (actor, id) => changeSubscription(actor, id, 'take-back'),
  { owner: ownerOfSubscription },
);
