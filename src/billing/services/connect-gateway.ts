import { z } from 'zod';
import { gatewayById, gatewayConnectedBy } from '@/billing/gateways';
import { siteNow } from '@/platform/clock';
import { mode, passwordAgain, uuid } from '@/platform/inputs';
import { record } from '@/platform/record';
import { done, missing, type Result, refusedField, refusedWith } from '@/platform/result';
import { seal } from '@/platform/seal';
import { currentSite, deskWords, inMode } from '@/platform/site';
import { pool, transaction } from '@/platform/store/db';
import { staffUse } from '@/platform/use';
import { findGatewayAccount, noteAccountError, setChecked, setWebhook } from '@/billing/store/gateways';
import { keepAccount, keysOf, registerWebhookOf } from './lib/gateway-account';
import { confirmStaff } from '@/people/services/lib/confirm-password';
import { say } from '@/words/problems';

const byMoney = staffUse('connect gateways');
const key = z.string().trim().max(300, say('gateway.key-too-long'));
const keysSchema = z.object({
  gateway: z.string().max(60),
  siteKey: key,
  secretKey: key,
  /** Left out, the site's. */
  mode,
  password: passwordAgain,
});

/**
 * Connects a gateway by its keys: looks at their form, asks the gateway, keeps them sealed, and registers the webhook
 * address. A webhook that could not be registered does not undo the connection; it is shown and tried again.
 */
export const connectGateway = byMoney(
  'connect-gateway',
  keysSchema,
  async (actor, { mode: asked, password, ...input }): Promise<Result<{ id: string }>> => {
    const own = await currentSite();
    const site = inMode(own, asked ?? own.mode);
    const gateway = gatewayConnectedBy('keys', input.gateway);
    if (!gateway) return missing();
    const keys = { siteKey: input.siteKey, secretKey: input.secretKey };
    const wrong = gateway.inspectKeys(keys, site.mode);
    if (wrong) return refusedWith(wrong.problem, wrong.field);
    const confirmed = await confirmStaff(actor, password);
    if (!confirmed.ok) return confirmed;
    const checked = await gateway.checkKeys(keys);
    if (!checked.ok) return refusedWith(checked.problem, checked.field ?? '');
    return keepAccount(actor, site, gateway, keys);
  },
);

export const registerWebhook = byMoney('register-webhook', uuid, registerWebhookOf);

/** Asks the gateway once more whether the keys of an account are right. */
export const checkAccount = byMoney('check-account', uuid, async (_, accountId): Promise<Result<null>> => {
  const account = await findGatewayAccount(pool(), accountId);
  if (!account) return refusedField('', 'gateway.not-connected');
  const checked = await gatewayById(account.gateway).checkKeys(keysOf(account));
  if (checked.ok) await setChecked(pool(), accountId);
  else await noteAccountError(pool(), accountId, (await deskWords()).problem(checked.problem));
  return checked.ok ? done(null) : refusedWith(checked.problem);
});

const secretSchema = z.object({
  accountId: uuid,
  // The form of secrets in the Standard Webhooks specification 1.0.
  secret: z
    .string()
    .trim()
    .regex(/^whsec_[A-Za-z0-9+/]{16,300}={0,2}$/, say('webhook.no-secret')),
  password: passwordAgain,
});

/** Keeps the secret of an address that the owner registered by hand, and asks for a test message. */
export const keepWebhookSecret = byMoney(
  'keep-webhook-secret',
  secretSchema,
  async (actor, { accountId, secret, password }): Promise<Result<null>> => {
    const confirmed = await confirmStaff(actor, password);
    if (!confirmed.ok) return confirmed;
    const site = await currentSite();
    const account = await findGatewayAccount(pool(), accountId);
    if (!account) return refusedField('', 'gateway.not-connected');
    await transaction(async (db) => {
      await setWebhook(db, accountId, { ref: '', secretSealed: seal(secret) });
      await record(db, actor, siteNow(site), 'webhook registered by hand', `gateway:${accountId}`);
    });
    const pinged = await gatewayById(account.gateway).requestPing(keysOf(account), null);
    return pinged.ok ? done(null) : refusedField('', 'gateway.no-ping', { reason: pinged.reason });
  },
);
