import { z } from 'zod';
import { transaction } from '@/platform/store/db';
import { reopenGatewayEvent } from '@/billing/store/gateways';
import { siteNow } from '@/platform/clock';
import { record } from '@/platform/record';
import { done, refusedField, type Result } from '@/platform/result';
import { currentSite } from '@/platform/site';
import { uuid } from '@/platform/inputs';
import { staffUse } from '@/platform/use';

/** Has the worker process a gateway's message once more, from the beginning; whatever it did, it does not do twice. */
export const processAgain = staffUse('manage money')(
  'process-again',
  uuid,
  async (actor, eventId): Promise<Result<null>> => {
    const site = await currentSite();
    return transaction(async (db) => {
      if (!z.uuid().safeParse(eventId).success || !(await reopenGatewayEvent(db, eventId)))
        return refusedField('', 'message.unsigned');
      await record(db, actor, siteNow(site), 'message processed again', `message:${eventId}`);
      return done(null);
    });
  },
);
