import { uuid } from '@/platform/inputs';
import { memberUse } from '@/platform/use';
import { ownerOfSubscription as owner } from './lib/owners';
import { changeSubscription } from './lib/change-subscription';

/** A member pays at once what is overdue. Refused, it leaves everything as it was. */
export const payOwed = memberUse('pay-owed', uuid, (actor, id) => changeSubscription(actor, id, 'pay-now'), {
  owner,
});
