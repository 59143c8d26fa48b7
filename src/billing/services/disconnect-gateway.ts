import { z } from 'zod';
import { confirmStaff } from '@/people/services/lib/confirm-password';
import { countOnAccount, findGatewayAccount, setDisconnected } from '@/billing/store/gateways';
import { realNow, siteNow } from '@/platform/clock';
import { passwordAgain, uuid } from '@/platform/inputs';
import { record } from '@/platform/record';
import { done, refusedField, type Result } from '@/platform/result';
import { currentSite } from '@/platform/site';
import { lock, transaction } from '@/platform/store/db';
import { staffUse } from '@/platform/use';

const inputSchema = z.object({ accountId: uuid, password: passwordAgain });

/** Forgets the keys of a gateway's account. Refused while anything is still to be charged or refunded through it. */
export const disconnectGateway = staffUse('connect gateways')(
  'disconnect-gateway',
  inputSchema,
  async (actor, { accountId, password }): Promise<Result<null>> => {
    const confirmed = await confirmStaff(actor, password);
    if (!confirmed.ok) return confirmed;
    const site = await currentSite();
    return transaction(async (db) => {
      await lock(db, `gateway:${accountId}`);
      const account = await findGatewayAccount(db, accountId);
      if (!account) return refusedField('', 'gateway.not-connected');
      const { subscriptions, payments, refunds } = await countOnAccount(db, accountId);
      if (subscriptions + payments + refunds > 0)
        return refusedField('', 'gateway.in-use', { subscriptions, payments, refunds });
      await setDisconnected(db, accountId, realNow());
      await record(db, actor, siteNow(site), 'gateway disconnected', `gateway:${accountId}`, {
        gateway: account.gateway,
        mode: account.mode,
      });
      return done(null);
    });
  },
);
