import { addLength } from '@/core/calendar';
import { isBefore } from '@/core/instants';
import { gatewayById } from '@/billing/gateways';
import { findSubscription } from '@/billing/store/subscriptions';
import { GATEWAY } from '@/platform/actor';
import { realNow, siteNow } from '@/platform/clock';
import { currentSite } from '@/platform/site';
import { pool, transaction } from '@/platform/store/db';
import { keysOf } from './gateway-account';
import { findAgreementByRef, setAgreementState, type StoredAgreement } from '@/billing/store/agreements';
import type { GatewayAccount } from '@/billing/store/gateways';
import { completeApproval } from './complete-approval';
import { happen, openBook } from './open-book';
import { takeUpBills } from './sync-payment';

/** Days after which a requested approval that was never given is withdrawn. */
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
    if (approved === 'done') return 'approved';
    return approved === 'waiting' ? 'approved; its first bill is awaited' : 'approved too late';
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
    await follow(agreement, wasRunning);
    return wasRunning ? 'the payer ended it at the wallet' : 'refused by the payer';
  }
  return 'known already';
}

async function isOld({ at, mode }: StoredAgreement): Promise<boolean> {
  const until = addLength(at, { n: ASKED_DAYS, unit: 'day' }, 'UTC');
  return isBefore(until, siteNow(await currentSite(), mode));
}

/** The payer wants no more bills: what is paid runs to its end. Who refused at checkout can press the button again. */
async function follow({ subscriptionId, ref }: StoredAgreement, wasRunning: boolean): Promise<void> {
  const site = await currentSite();
  const of = await findSubscription(pool(), subscriptionId);
  if (!of) return;
  await transaction(async (db) => {
    const open = await openBook(db, site, GATEWAY, of);
    const checkout = open.stored.book.checkouts.find((one) => one.subscription === of.id);
    if (!wasRunning) {
      if (checkout) await happen(open, { do: 'not-approved', checkout: checkout.id });
      return;
    }
    const s = open.stored.book.subscriptions.find(({ id }) => id === of.id);
    if (!s || s.state === 'overdue' || open.stored.accounts.get(of.id)?.methodRef !== ref) return;
    await happen(open, { do: 'cancel', subscription: of.id });
  });
}
