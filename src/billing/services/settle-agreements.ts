import { config } from '@/platform/config';
import { nothing } from '@/platform/inputs';
import { done } from '@/platform/result';
import { pool } from '@/platform/store/db';
import { systemUse } from '@/platform/use';
import { claimAgreements } from '@/billing/store/agreements';
import { findGatewayAccount } from '@/billing/store/gateways';
import { settleAgreement } from '@/billing/services/lib/settle-agreement';

/** Looks after agreements that were asked for and not answered, or are to be ended, until the wallet confirms. */
export const settleAgreements = systemUse('settle-agreements', nothing, async () => {
  const claimed = await claimAgreements(pool(), config().LEASE_SECONDS, 20);
  for (const agreement of claimed) {
    const account = await findGatewayAccount(pool(), agreement.gatewayAccountId);
    if (account) await settleAgreement(account, agreement);
  }
  return done(claimed.length);
});
