import { addLength, isBefore } from '@/core/calendar';
import { gatewayById } from '@/gateways';
import { findAgreementByRef, setAgreementState, type StoredAgreement } from '@/store/agreements';
import { pool, transaction } from '@/platform/store/db';
import { type GatewayAccount } from '@/store/gateways';
import { findOpenPayment } from '@/store/payments';
import { lockSubscription } from '@/store/subscriptions';
import { GATEWAY } from '@/platform/actor';
import { completeApproval } from '@/services/lib/approve-joining';
import { realNow, siteNow } from '@/platform/clock';
import { keysOf } from '@/services/lib/gateway-account';
import { happen } from '@/services/lib/happen';
import { currentSite } from '@/platform/site';
import { takeUpBills } from '@/services/lib/sync-payment';

/** Days after which an approval that was asked for and never given is taken back. */
const ASKED_DAYS = 1;

/** The same for one agreement that a message speaks of; null: it is not known here. */
export async function settleAgreementByRef(account: GatewayAccount, ref: string): Promise<string | null> {
  const agreement = await findAgreementByRef(pool(), account.id, ref);
  return agreement ? settleAgreement(account, agreement) : null;
}

/** Brings an agreement in line with the wallet's own. The answer says what was done. */
export async function settleAgreement(account: GatewayAccount, agreement: StoredAgreement): Promise<string> {
  const gateway = gatewayById(account.gateway);
  const keys = keysOf(account);
  const now = realNow();
  if (!agreement.ref) {
    // The wallet was not asked, or a crash came before its answer: nobody has the page on which to approve it.
    if (agreement.state === 'ending' || (await isOld(agreement)))
      await setAgreementState(pool(), agreement.id, 'ended', now);
    return 'was never asked for';
  }
  const found = await gateway.findAgreement(keys, agreement.ref);
  if (!found.ok) return found.reason;
  const theirs = found.agreement?.state ?? 'ended';
  if (agreement.state === 'ending') {
    if (theirs === 'asked' || theirs === 'running') await gateway.endAgreement(keys, agreement.ref);
    const after = await gateway.findAgreement(keys, agreement.ref);
    const isOver = after.ok && (!after.agreement || ['ended', 'refused'].includes(after.agreement.state));
    if (!isOver) return 'its end is not confirmed yet';
    await setAgreementState(pool(), agreement.id, 'ended', now);
    await takeUpBills(account, agreement.ref);
    return 'ended, as was asked';
  }
  // Approved, though it may have ended since: who has paid is a member, however late we look.
  if (agreement.state === 'asked' && (theirs === 'running' || theirs === 'ended')) {
    const listed = await gateway.listPayments(keys, agreement.ref);
    if (!listed.ok) return listed.reason;
    const approved = await completeApproval(account, agreement, listed.payments);
    if (approved === 'done' && theirs === 'ended')
      return settleAgreement(account, { ...agreement, state: 'running' });
    // What was owed comes with the first bill.
    if (approved === 'done') await takeUpBills(account, agreement.ref);
    return approved === 'done'
      ? 'approved'
      : approved === 'waiting'
        ? 'approved; its first bill is awaited'
        : 'approved too late';
  }
  if (agreement.state === 'asked' && theirs === 'asked') {
    if (await isOld(agreement)) await setAgreementState(pool(), agreement.id, 'ending', now);
    return 'not answered yet';
  }
  if (theirs === 'ended' || theirs === 'refused') {
    const wasRunning = agreement.state === 'running';
    // What was billed before the end was billed rightly.
    await takeUpBills(account, agreement.ref);
    await setAgreementState(pool(), agreement.id, 'ended', now);
    if (wasRunning) await cancelFor(agreement);
    return wasRunning ? 'the payer ended it at the wallet' : 'refused by the payer';
  }
  return 'known already';
}

async function isOld({ at, mode }: StoredAgreement): Promise<boolean> {
  const until = addLength(at, { n: ASKED_DAYS, unit: 'day' }, 'UTC');
  return isBefore(until, siteNow(await currentSite(), mode));
}

/** The payer wants no more bills: what is paid runs to its end. */
async function cancelFor(agreement: StoredAgreement): Promise<void> {
  const site = await currentSite();
  await transaction(async (db) => {
    const subscription = await lockSubscription(db, agreement.subscriptionId);
    if (!subscription?.memberId || subscription.state === 'overdue') return;
    if (subscription.methodRef !== agreement.ref || (await findOpenPayment(db, subscription.id))) return;
    await happen(db, site, GATEWAY, subscription, { type: 'cancel' }, siteNow(site, subscription.mode));
  });
}
