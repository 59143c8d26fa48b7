import { config } from '@/platform/config';
import { gatewayById } from '@/billing/gateways';
import type { Gateway, Keys } from '@/billing/gateways/contract';
import { pool, transaction } from '@/platform/store/db';
import {
  findGatewayAccount,
  saveGatewayAccount,
  setWebhook,
  type GatewayAccount,
  type TransferSettings,
} from '@/billing/store/gateways';
import type { Site } from '@/platform/store/site';
import type { Actor } from '@/platform/actor';
import { siteNow } from '@/platform/clock';
import { wordsOf } from '@/words/words';
import { record } from '@/platform/record';
import { done, refusedField, type Result } from '@/platform/result';
import { seal, unseal } from '@/platform/seal';
import { currentSite } from '@/platform/site';
import type { GatewayAccountId } from '@/core/ids';

/** The account's keys, opened. */
export function keysOf(account: GatewayAccount): { siteKey: string; secretKey: string } {
  return { siteKey: account.siteKey, secretKey: unseal(account.secretKeySealed) };
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
      nature: gateway.nature,
      label: gateway.payLabel ? wordsOf(site)(gateway.payLabel) : gateway.name,
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
  if (gateway.hasWebhooks) await registerWebhookOf(actor, account.id);
  return done({ id: account.id });
}

/** Tells the gateway where to send its messages, and asks for a test message. */
export async function registerWebhookOf(actor: Actor, accountId: GatewayAccountId): Promise<Result<null>> {
  const site = await currentSite();
  const account = await findGatewayAccount(pool(), accountId);
  if (!account) return refusedField('', 'gateway.not-connected');
  const gateway = gatewayById(account.gateway);
  const keys = keysOf(account);
  const made = await gateway.registerWebhook(keys, webhookAddress(accountId), site.name);
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
  if (!made.ok) return refusedField('', 'gateway.not-registered', { reason: made.reason });
  // The secret is stored by now, so the test message can be read when it comes.
  const pinged = await gateway.requestPing(keys, made.ref);
  return pinged.ok ? done(null) : refusedField('', 'gateway.no-ping-registered', { reason: pinged.reason });
}

export function webhookAddress(accountId: GatewayAccountId): string {
  return `${config().SITE_URL}/api/gateways/${accountId}/events`;
}
