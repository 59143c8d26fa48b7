import { config } from '@/platform/config';
import { gatewayById, gatewayConnectedBy } from '@/billing/gateways';
import { pool } from '@/platform/store/db';
import { insertConsent, takeConsent } from '@/billing/store/gateways';
import { NotAllowed } from '@/platform/actor';
import { keepAccount } from './lib/gateway-account';
import { missing, refusedField, type Result } from '@/platform/result';
import { currentSite, inMode } from '@/platform/site';
import { hashToken, newToken } from '@/platform/tokens';
import { z } from 'zod';
import { staffUse } from '@/platform/use';
import { mode as asksMode, passwordAgain } from '@/platform/inputs';
import { confirmStaff } from '@/people/services/lib/confirm-password';
import { problem } from '@/words/problems';

/** Where the owner goes to let the site bill through a gateway; the gateway brings them back. */
const beginSchema = z.object({
  gateway: z.string().max(60),
  mode: asksMode,
  password: passwordAgain,
});

export const beginConsent = staffUse('connect gateways')(
  'begin-consent',
  beginSchema,
  async (actor, { gateway: gatewayId, mode: asked, password }): Promise<Result<{ url: string }>> => {
    const site = await currentSite();
    const mode = asked ?? site.mode;
    const gateway = gatewayConnectedBy('consent', gatewayId);
    if (!gateway) return missing();
    if (!actor.memberId) throw new NotAllowed(problem('staff.not-signed-in'));
    const confirmed = await confirmStaff(actor, password);
    if (!confirmed.ok) return confirmed;
    const { token, hash } = newToken();
    await insertConsent(pool(), {
      stateHash: hash,
      gateway: gatewayId,
      mode,
      staffId: actor.memberId,
    });
    const url = gateway.consentUrl({ back: consentBack(), state: token, mode, siteName: site.name });
    return url ? { ok: true, value: { url } } : refusedField('', 'consent.not-this-way');
  },
);

/** Uses what the gateway's consent page sent back: once, only for the person who asked, and in the mode they asked for. */
const backSchema = z.object({ state: z.string().max(200), code: z.string().max(300).nullable() });

export const finishConsent = staffUse('connect gateways')(
  'finish-consent',
  backSchema,
  async (actor, back): Promise<Result<{ id: string }>> => {
    const asked = await takeConsent(pool(), hashToken(back.state));
    if (!asked || asked.staffId !== actor.memberId) return refusedField('', 'consent.expired');
    if (!back.code) return refusedField('', 'consent.not-given');
    const site = await currentSite();
    const gateway = gatewayById(asked.gateway);
    const traded = await gateway.keysFromConsent(back.code);
    if (!traded.ok) return refusedField('', 'consent.not-traded');
    if (traded.mode !== asked.mode) return refusedField('', 'consent.mode');
    return keepAccount(actor, inMode(site, asked.mode), gateway, traded.keys);
  },
);

const consentBack = (): string => `${config().SITE_URL}/desk/money/gateways/consent`;
