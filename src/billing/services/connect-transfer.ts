import { z } from 'zod';
import { transferGateway } from '@/billing/gateways';
import { keepAccount } from './lib/gateway-account';
import { type Result } from '@/platform/result';
import { currentSite, inMode } from '@/platform/site';
import { staffUse } from '@/platform/use';
import { confirmStaff } from '@/people/services/lib/confirm-password';
import { mode, passwordAgain } from '@/platform/inputs';
import { say } from '@/words/problems';

const inputSchema = z.object({
  payee: z.string().trim().min(1, say('transfer.no-payee')).max(120),
  account: z.string().trim().min(4, say('transfer.no-number')).max(60),
  bank: z.string().trim().max(120).default(''),
  daysToPay: z.coerce
    .number({ error: say('number.days') })
    .int(say('number.whole-days'))
    .min(1, say('transfer.at-least-a-day'))
    .max(60, say('days.too-many')),
  /** Left out, the site's. */
  mode,
  password: passwordAgain,
});

/** Takes payment by bank transfer: whom and where people pay, and how long a transfer may take. */
export const connectTransfer = staffUse('connect gateways')(
  'connect-transfer',
  inputSchema,
  async (actor, input): Promise<Result<{ id: string }>> => {
    const own = await currentSite();
    const { mode: asked, password, ...settings } = input;
    const confirmed = await confirmStaff(actor, password);
    if (!confirmed.ok) return confirmed;
    const site = inMode(own, asked ?? own.mode);
    // Test and live can be paid to one account, and are two accounts here all the same.
    const keys = { siteKey: `${site.mode} ${input.account}`, secretKey: '' };
    return keepAccount(actor, site, transferGateway(), keys, settings);
  },
);
