import { uuid } from '@/platform/inputs';
import { memberUse } from '@/platform/use';
import { chargeNow } from '@/services/lib/charge-now';
import { ownerOfSubscription as owner } from './lib/owners';

/** A member pays at once what is overdue. Refused, it leaves everything as it was. */
export const payOwed = memberUse('pay-owed', uuid, (actor, id) => chargeNow(actor, id, 'due'), { owner });
