import { z } from 'zod';
import { transaction } from '@/platform/store/db';
import { markSentByHand } from '@/billing/store/refunds';
import { realNow } from '@/platform/clock';
import { record } from '@/platform/record';
import { done, refusedField, type Result } from '@/platform/result';
import { uuid } from '@/platform/inputs';
import { staffUse } from '@/platform/use';

/** Staff say that they have sent money back by their bank, where the gateway gives nothing back by a call. */
export const refundWasSent = staffUse('refund')(
  'refund-was-sent',
  uuid,
  async (actor, refundId): Promise<Result<null>> => {
    return transaction(async (db) => {
      const at = realNow();
      const isOpen = z.uuid().safeParse(refundId).success && (await markSentByHand(db, refundId, at));
      if (!isOpen) return refusedField('', 'refund.sent');
      await record(db, actor, at, 'refund sent by hand', `refund:${refundId}`);
      return done(null);
    });
  },
);
