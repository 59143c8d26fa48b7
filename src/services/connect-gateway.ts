import { config } from '@/config';
import { gatewayById } from '@/gateways';
import type { Gateway, Keys, Nature } from '@/gateways/contract';
import { pool, transaction } from '@/store/db';
import {
  findGatewayAccount,
  noteAccountError,
  saveGatewayAccount,
  setChecked,
  setWebhook,
  type GatewayAccount,
  type TransferSettings,
} from '@/store/gateways';
import type { Mode, Site } from '@/store/site';
import { requireRight, type Actor } from './actor';
import { siteNow } from './clock';
import { record } from './record';
import { done, refused, type Result } from './result';
import { seal, unseal } from './seal';
import { currentSite, inMode } from './site';

/** The account's keys, opened. */
export function keysOf(account: GatewayAccount): { siteKey: string; secretKey: string } {
  return { siteKey: account.siteKey, secretKey: unseal(account.secretKeySealed) };
}

/**
 * Connects a gateway by its keys: looks at their form, asks the gateway, keeps them sealed, and registers the
 * webhook address. `mode`: left out, the site's. A webhook that could not be registered does not undo the connection; it is shown and tried again.
 */
export async function connectGateway(
  actor: Actor,
  gatewayId: string,
  pasted: { siteKey: string; secretKey: string },
  mode?: Mode,
): Promise<Result<{ id: string }>> {
  requireRight(actor, 'manage money');
  const own = await currentSite();
  const site = inMode(own, mode ?? own.mode);
  const gateway = gatewayById(gatewayId);
  const keys = { siteKey: pasted.siteKey.trim(), secretKey: pasted.secretKey.trim() };
  const problem = gateway.inspectKeys(keys, site.mode);
  if (problem) return refused({ [problem.field]: problem.message });
  const checked = await gateway.checkKeys(keys);
  if (!checked.ok) return refused({ [checked.field ?? '']: checked.message });

  return keepAccount(actor, site, gateway, keys);
}

/** Keeps an account whose keys were found right, with its secret sealed, and registers the webhook address. */
export async function keepAccount(
  actor: Actor,
  site: Site,
  gateway: Gateway,
  keys: Keys,
  settings: TransferSettings | Record<string, never> = {},
): Promise<Result<{ id: string }>> {
  const account = await transaction(async (db) => {
    const saved = await saveGatewayAccount(db, {
      gateway: gateway.id,
      mode: site.mode,
      label: LABELS[gateway.nature],
      siteKey: keys.siteKey,
      secretKeySealed: seal(keys.secretKey),
      settings,
    });
    await record(db, actor, siteNow(site), 'gateway connected', `gateway:${saved.id}`, {
      gateway: gateway.id,
      mode: site.mode,
    });
    return saved;
  });
  if (gateway.hasWebhooks) await registerWebhook(actor, account.id);
  return done({ id: account.id });
}

/** What a way to pay is called at checkout until the owner says otherwise. */
const LABELS: Record<Nature, string> = { card: 'Card', wallet: 'Dunlin Wallet', transfer: 'Bank transfer' };

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

/** Asks the gateway once more whether the keys of an account are right. */
export async function checkAccount(actor: Actor, accountId: string): Promise<Result<null>> {
  requireRight(actor, 'manage money');
  const account = await findGatewayAccount(pool(), accountId);
  if (!account) return refused({ '': 'This gateway is not connected any more.' });
  const checked = await gatewayById(account.gateway).checkKeys(keysOf(account));
  if (checked.ok) await setChecked(pool(), accountId);
  else await noteAccountError(pool(), accountId, checked.message);
  return checked.ok ? done(null) : refused({ '': checked.message });
}

/** Keeps the secret of an address that the owner registered by hand, and asks for a test message. */
export async function keepWebhookSecret(
  actor: Actor,
  accountId: string,
  pasted: string,
): Promise<Result<null>> {
  requireRight(actor, 'manage money');
  const site = await currentSite();
  const secret = pasted.trim();
  const account = await findGatewayAccount(pool(), accountId);
  if (!account) return refused({ '': 'This gateway is not connected any more.' });
  // The form of secrets in the Standard Webhooks specification 1.0.
  if (!/^whsec_[A-Za-z0-9+/]{16,}={0,2}$/.test(secret))
    return refused({
      secret: 'A signing secret begins with whsec_ and is copied whole. Copy it from the gateway’s page.',
    });
  await transaction(async (db) => {
    await setWebhook(db, accountId, { ref: '', secretSealed: seal(secret) });
    await record(db, actor, siteNow(site), 'webhook registered by hand', `gateway:${accountId}`);
  });
  const pinged = await gatewayById(account.gateway).requestPing(keysOf(account), null);
  return pinged.ok
    ? done(null)
    : refused({ '': `Kept, but no test message could be asked for: ${pinged.reason}.` });
}

export function webhookAddress(accountId: string): string {
  return `${config().SITE_URL}/api/gateways/${accountId}/events`;
}
