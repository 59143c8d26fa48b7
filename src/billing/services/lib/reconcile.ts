import { gatewayById } from '@/billing/gateways';
import type { GatewayPayment } from '@/billing/gateways/contract';
import { listStrayOf } from '@/billing/store/agreements';
import { pool } from '@/platform/store/db';
import { findGatewayAccount } from '@/billing/store/gateways';
import { listAllPayments } from '@/billing/store/payments';
import { listRefundsOf, type Refund } from '@/billing/store/refunds';
import { keysOf } from './gateway-account';
import { plainWords } from '@/words/desk';
import { problem } from '@/words/problems';
import type { GatewayAccountId } from '@/core/ids';

export type Difference = { key: string; ours: string; theirs: string };
export type Reconciliation =
  | { ok: true; compared: number; open: number; differences: Difference[] }
  | { ok: false; reason: string }
  /** A bank has no list of its own to compare with: its statements are matched instead. */
  | { ok: true; none: true };

type Line = { state: string; amount: number; currency: string; back: number };

/** Compares every payment in the books of an account, and what of it went back, with the gateway's own list, both ways. */
export async function reconcile(accountId: GatewayAccountId): Promise<Reconciliation> {
  const account = await findGatewayAccount(pool(), accountId);
  if (!account) return { ok: false, reason: plainWords.problem(problem('gateway.not-connected')) };
  const gateway = gatewayById(account.gateway);
  if (gateway.nature === 'transfer') return { ok: true, none: true };
  // Ours first: a payment made while we look is then missing here, never there, and shows as open below.
  const ours = await listAllPayments(pool(), accountId);
  const refunds = new Map<string, Refund[]>();
  for (const refund of await listRefundsOf(pool(), accountId))
    refunds.set(refund.paymentId, [...(refunds.get(refund.paymentId) ?? []), refund]);
  const stray = await listStrayOf(pool(), accountId);
  const listed = await gateway.listPayments(keysOf(account));
  if (!listed.ok) return listed;
  const theirs = new Map(listed.payments.map((payment) => [payment.key ?? payment.ref, payment]));
  const differences: Difference[] = [];
  let open = 0;
  const compareLine = (key: string, line: Line): void => {
    const match = theirs.get(key);
    theirs.delete(key);
    const there = match && { ...match, back: backOf(match) };
    if (words(line) !== words(there)) differences.push({ key, ours: words(line), theirs: words(there) });
  };
  for (const payment of ours) {
    // A try that never reached the gateway is not in its list: a wallet without an agreement, a transfer given up.
    const key = theirs.has(payment.idempotencyKey)
      ? payment.idempotencyKey
      : (payment.gatewayRef ?? payment.idempotencyKey);
    const own = refunds.get(payment.id) ?? [];
    if (payment.state === 'intent' || own.some((refund) => refund.state === 'intent')) {
      open += 1;
      theirs.delete(key);
    } else if (payment.state === 'succeeded' || payment.gatewayRef !== null) {
      const back = own.reduce((sum, refund) => sum + (refund.state === 'succeeded' ? refund.amount : 0), 0);
      compareLine(key, { ...payment, back });
    }
  }
  for (const money of stray) {
    if (money.state === 'kept') {
      open += 1;
      theirs.delete(money.gatewayRef);
    } else {
      // Returned: by us, at the gateway, or by a dispute that was lost there.
      const back =
        theirs.get(money.gatewayRef)?.dispute === 'lost'
          ? backOf(theirs.get(money.gatewayRef))
          : money.amount;
      compareLine(money.gatewayRef, { ...money, state: 'succeeded', back });
    }
  }
  for (const [key, payment] of theirs) {
    // A wallet that billed what had ended, and was refused: no money moved, and nothing here is it about.
    if (payment.agreementRef && payment.state === 'declined') continue;
    differences.push({ key, ours: 'nothing', theirs: words({ ...payment, back: backOf(payment) }) });
  }
  return { ok: true, compared: listed.payments.length, open, differences };
}

const backOf = (payment: GatewayPayment | undefined): number =>
  payment?.refunds.reduce((sum, refund) => sum + refund.amount, 0) ?? 0;

const words = (line: Line | undefined): string =>
  line
    ? `${line.state}, ${line.amount} ${line.currency}${line.back > 0 ? `, ${line.back} refunded` : ''}`
    : 'nothing';
