import { gatewayById } from '@/billing/gateways';
import type { NewAgreement } from '@/billing/gateways/contract';
import { setAgreementRef, type StoredAgreement } from '@/billing/store/agreements';
import { pool } from '@/platform/store/db';
import type { GatewayAccount } from '@/billing/store/gateways';
import type { Site } from '@/platform/store/site';
import { keysOf } from './gateway-account';
import { done, refusedField, type Result } from '@/platform/result';

/** Asks a wallet for the page on which the payer approves an agreement that was written down. The answer is that page. */
export async function beginAgreement(
  site: Site,
  account: GatewayAccount,
  agreement: StoredAgreement,
  asked: Omit<NewAgreement, 'zone' | 'retryDays' | 'idempotencyKey'>,
): Promise<Result<{ approveUrl: string }>> {
  const gateway = gatewayById(account.gateway);
  const keys = keysOf(account);
  if (account.mode === 'test') await gateway.setRehearsalTime(keys, agreement.at);
  const begun = await gateway.beginAgreement(keys, {
    ...asked,
    zone: site.zone,
    retryDays: site.retryDays,
    idempotencyKey: agreement.id,
  });
  if (!begun.ok) return refusedField('', 'card.not-saved', { reason: begun.reason });
  const { ref, approveUrl } = begun.agreement;
  await setAgreementRef(pool(), agreement.id, ref, approveUrl);
  return done({ approveUrl });
}
