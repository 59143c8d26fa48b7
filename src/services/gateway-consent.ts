import { config } from '@/config';
import { gatewayById } from '@/gateways';
import { pool } from '@/store/db';
import { insertConsent, takeConsent } from '@/store/gateways';
import type { Mode } from '@/store/site';
import { NotAllowed, requireRight, type Actor } from './actor';
import { keepAccount } from './connect-gateway';
import { refusedField, type Result } from './result';
import { currentSite, inMode } from './site';
import { hashToken, newToken } from './tokens';

/** Where the owner goes to let the site bill through a gateway; the gateway brings them back. */
export async function beginConsent(
  actor: Actor,
  gatewayId: string,
  asked?: Mode,
): Promise<Result<{ url: string }>> {
  requireRight(actor, 'manage money');
  const mode = asked ?? (await currentSite()).mode;
  if (!actor.memberId) throw new NotAllowed('Sign in first.');
  const { token, hash } = newToken();
  await insertConsent(pool(), {
    stateHash: hash,
    gateway: gatewayId,
    mode,
    staffId: actor.memberId,
  });
  const url = gatewayById(gatewayId).consentUrl({ back: consentBack(), state: token, mode });
  return url
    ? { ok: true, value: { url } }
    : refusedField('', 'This gateway is connected by keys, not by consent.');
}

/** Takes up what the gateway's consent page sent back: only for whoever asked, once, and in the mode that was asked for. */
export async function finishConsent(
  actor: Actor,
  back: { state: string; code: string | null },
): Promise<Result<{ id: string }>> {
  requireRight(actor, 'manage money');
  const asked = await takeConsent(pool(), hashToken(back.state));
  if (!asked || asked.staffId !== actor.memberId)
    return refusedField(
      '',
      'This answer belongs to no question of yours, or came too late. Connect once more.',
    );
  if (!back.code) return refusedField('', 'The gateway was not given consent. Nothing has changed.');
  const site = await currentSite();
  const gateway = gatewayById(asked.gateway);
  const traded = await gateway.keysFromConsent(back.code);
  if (!traded.ok) return refusedField('', `${traded.reason}. Nothing was saved; connect once more.`);
  if (traded.mode !== asked.mode)
    return refusedField(
      '',
      `Consent was given for ${traded.mode} mode, and ${asked.mode} mode was asked for. Connect once more.`,
    );
  return keepAccount(actor, inMode(site, asked.mode), gateway, traded.keys);
}

const consentBack = (): string => `${config().SITE_URL}/desk/money/gateways/consent`;
