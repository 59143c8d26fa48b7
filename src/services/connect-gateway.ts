import { config } from '@/config';
import { gatewayById } from '@/gateways';
import { pool, transaction } from '@/store/db';
import { findGatewayAccount, saveGatewayAccount, setWebhook, type GatewayAccount } from '@/store/gateways';
import { requireRight, type Actor } from './actor';
import { siteNow } from './clock';
import { record } from './record';
import { done, refused, type Result } from './result';
import { seal, unseal } from './seal';
import { currentSite } from './site';

/** The account's keys, opened. */
export function keysOf(account: GatewayAccount): { siteKey: string; secretKey: string } {
  return { siteKey: account.siteKey, secretKey: unseal(account.secretKeySealed) };
}

/**
 * Connects a gateway by its keys: looks at their form, asks the gateway, keeps them sealed, and registers the
 * webhook address. A webhook that could not be registered does not undo the connection; it is shown and tried again.
 */
export async function connectGateway(
  actor: Actor,
  gatewayId: string,
  pasted: { siteKey: string; secretKey: string },
): Promise<Result<{ id: string }>> {
  requireRight(actor, 'manage money');
  const site = await currentSite();
  const gateway = gatewayById(gatewayId);
  const keys = { siteKey: pasted.siteKey.trim(), secretKey: pasted.secretKey.trim() };
  const problem = gateway.inspectKeys(keys, site.mode);
  if (problem) return refused({ [problem.field]: problem.message });
  const checked = await gateway.checkKeys(keys);
  if (!checked.ok) return refused({ [checked.field ?? '']: checked.message });

  const account = await transaction(async (db) => {
    const saved = await saveGatewayAccount(db, {
      gateway: gatewayId,
      mode: site.mode,
      label: gateway.name,
      siteKey: keys.siteKey,
      secretKeySealed: seal(keys.secretKey),
    });
    await record(db, actor, siteNow(site), 'gateway connected', `gateway:${saved.id}`, {
      gateway: gatewayId,
      mode: site.mode,
    });
    return saved;
  });
  await registerWebhook(actor, account.id);
  return done({ id: account.id });
}

/** Tells the gateway where to send its messages, and asks for a test message. */
export async function registerWebhook(actor: Actor, accountId: string): Promise<Result<null>> {
  requireRight(actor, 'manage money');
  const site = await currentSite();
  const account = await findGatewayAccount(pool(), accountId);
  if (!account) return refused({ '': 'This gateway is not connected any more.' });
  const gateway = gatewayById(account.gateway);
  const keys = keysOf(account);
  const made = await gateway.registerWebhook(keys, webhookAddress(accountId));
  await transaction(async (db) => {
    await setWebhook(
      db,
      accountId,
      made.ok ? { ref: made.ref, secretSealed: seal(made.secret) } : { error: made.reason },
    );
    await record(
      db,
      actor,
      siteNow(site),
      made.ok ? 'webhook registered' : 'webhook not registered',
      `gateway:${accountId}`,
    );
  });
  if (!made.ok)
    return refused({ '': `The webhook address could not be registered: ${made.reason}. Try again.` });
  // The secret is stored by now, so the test message can be read when it comes.
  const pinged = await gateway.requestPing(keys, made.ref);
  return pinged.ok
    ? done(null)
    : refused({ '': `The address is registered, but no test message could be asked for: ${pinged.reason}.` });
}

export function webhookAddress(accountId: string): string {
  return `${config().SITE_URL}/api/gateways/${accountId}/events`;
}
