import { z } from 'zod';
import { transaction } from '@/platform/store/db';
import { arrangeAccount, listGatewayAccounts } from '@/billing/store/gateways';
import { siteNow } from '@/platform/clock';
import { record } from '@/platform/record';
import { done, refusedField, type Result } from '@/platform/result';
import { currentSite } from '@/platform/site';
import { staffUse } from '@/platform/use';
import { say } from '@/words/problems';

const inputSchema = z.object({
  accountId: z.uuid(),
  label: z.string().trim().min(1, say('method.no-label')).max(60),
  atCheckout: z.boolean(),
  move: z.enum(['stay', 'up', 'down']).default('stay'),
});

/** An account at checkout: its name, its place in the order, and whether people can choose it. */
export const arrangeGateway = staffUse('connect gateways')(
  'arrange-gateway',
  inputSchema,
  async (actor, input): Promise<Result<null>> => {
    const { accountId, label, atCheckout, move } = input;
    const site = await currentSite();
    return transaction(async (db) => {
      const all = await listGatewayAccounts(db);
      const mode = all.find((account) => account.id === accountId)?.mode;
      const own = all.filter((account) => account.mode === mode);
      const from = own.findIndex((account) => account.id === accountId);
      const account = own[from];
      if (!account) return refusedField('', 'gateway.not-connected');
      const to =
        move === 'up' ? Math.max(0, from - 1) : move === 'down' ? Math.min(own.length - 1, from + 1) : from;
      own.splice(from, 1);
      own.splice(to, 0, { ...account, label, atCheckout });
      for (const [position, each] of own.entries()) await arrangeAccount(db, each.id, { ...each, position });
      await record(db, actor, siteNow(site), 'gateway arranged', `gateway:${accountId}`, {
        label,
        atCheckout,
      });
      return done(null);
    });
  },
);
