import { z } from 'zod';
import { transaction } from '@/store/db';
import { markSentByHand } from '@/store/refunds';
import { requireRight, type Actor } from './actor';
import { realNow } from './clock';
import { record } from './record';
import { done, refusedField, type Result } from './result';

/** Staff say that they have sent money back by their bank, where the gateway gives nothing back by a call. */
export async function refundWasSent(actor: Actor, refundId: string): Promise<Result<null>> {
  requireRight(actor, 'manage money');
  return transaction(async (db) => {
    const at = realNow();
    const isOpen = z.uuid().safeParse(refundId).success && (await markSentByHand(db, refundId, at));
    if (!isOpen) return refusedField('', 'This was marked as sent already.');
    await record(db, actor, at, 'refund sent by hand', `refund:${refundId}`);
    return done(null);
  });
}
