import { z } from 'zod';
import { transaction } from '@/store/db';
import { reopenGatewayEvent } from '@/store/gateways';
import { requireRight, type Actor } from './actor';
import { siteNow } from './clock';
import { record } from './record';
import { done, refusedField, type Result } from './result';
import { currentSite } from './site';

/** Has the worker process a gateway's message once more, from the beginning; whatever it did, it does not do twice. */
export async function processAgain(actor: Actor, eventId: string): Promise<Result<null>> {
  requireRight(actor, 'manage money');
  const site = await currentSite();
  return transaction(async (db) => {
    if (!z.uuid().safeParse(eventId).success || !(await reopenGatewayEvent(db, eventId)))
      return refusedField('', 'A message that was refused proves nothing, and is not processed.');
    await record(db, actor, siteNow(site), 'message processed again', `message:${eventId}`);
    return done(null);
  });
}
