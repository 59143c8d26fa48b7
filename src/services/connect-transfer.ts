import { z } from 'zod';
import { gatewayById } from '@/gateways';
import { requireRight, type Actor } from './actor';
import { keepAccount } from './connect-gateway';
import { problemsOf, refused, type Result } from './result';
import { currentSite, inMode } from './site';

const inputSchema = z.object({
  payee: z.string().trim().min(1, 'Type the name on the account.').max(120, 'At most 120 characters.'),
  account: z
    .string()
    .trim()
    .min(4, 'Type the number of the account, as people write it on a transfer.')
    .max(60, 'At most 60 characters.'),
  bank: z.string().trim().max(120, 'At most 120 characters.').default(''),
  daysToPay: z.coerce
    .number({ error: 'Type a number of days.' })
    .int('Whole days only.')
    .min(1, 'Give people a day at least.')
    .max(60, 'At most 60 days.'),
  /** Left out, the site's. */
  mode: z.enum(['test', 'live']).optional(),
});

/** Takes payment by bank transfer: whom and where people pay, and how long a transfer may take. */
export async function connectTransfer(actor: Actor, raw: unknown): Promise<Result<{ id: string }>> {
  requireRight(actor, 'manage money');
  const parsed = inputSchema.safeParse(raw);
  if (!parsed.success) return refused(problemsOf(parsed.error));
  const own = await currentSite();
  const { mode, ...settings } = parsed.data;
  const site = inMode(own, mode ?? own.mode);
  // Test and live can be paid to one account, and are two accounts here all the same.
  const keys = { siteKey: `${site.mode} ${parsed.data.account}`, secretKey: '' };
  return keepAccount(actor, site, gatewayById('bank-transfer'), keys, settings);
}
