import { siteNow } from '@/platform/clock';
import { uuid } from '@/platform/inputs';
import { record } from '@/platform/record';
import { done, missing, type Result } from '@/platform/result';
import { currentSite } from '@/platform/site';
import { transaction } from '@/platform/store/db';
import { memberUse } from '@/platform/use';
import { setMemberMove } from '@/store/offers';
import { lockSubscription } from '@/store/subscriptions';
import { ownerOfQuote, ownerOfSubscription } from './lib/owners';
import { acceptLater } from './lib/switch-later';

/** A member accepts a switch down that comes at the end of what is paid. */
export const switchLater = memberUse('switch-later', uuid, acceptLater, { owner: ownerOfQuote });

/** Takes a switch back that was asked for and has not come yet. */
export const undoSwitchLater = memberUse(
  'undo-switch-later',
  uuid,
  async (actor, subscriptionId): Promise<Result<null>> => {
    const site = await currentSite();
    return transaction(async (db) => {
      const subscription = await lockSubscription(db, subscriptionId);
      if (!subscription) return missing();
      await setMemberMove(db, subscriptionId, null);
      await record(db, actor, siteNow(site), 'switch taken back', `subscription:${subscriptionId}`);
      return done(null);
    });
  },
  { owner: ownerOfSubscription },
);
