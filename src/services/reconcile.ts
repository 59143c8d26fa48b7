import { gatewayById } from '@/gateways';
import { pool } from '@/store/db';
import { findGatewayAccount } from '@/store/gateways';
import { listAllPayments } from '@/store/payments';
import { keysOf } from './connect-gateway';

export type Difference = { key: string; ours: string; theirs: string };
export type Reconciliation =
  { ok: true; compared: number; open: number; differences: Difference[] } | { ok: false; reason: string };

/** Compares every payment in the books of an account with the gateway's own list, both ways. */
export async function reconcile(accountId: string): Promise<Reconciliation> {
  const account = await findGatewayAccount(pool(), accountId);
  if (!account) return { ok: false, reason: 'This gateway is not connected any more.' };
  // Ours first: a payment made while we look is then missing here, never there, and shows as open below.
  const ours = await listAllPayments(pool(), accountId);
  const listed = await gatewayById(account.gateway).listPayments(keysOf(account));
  if (!listed.ok) return listed;
  const theirs = new Map(listed.payments.map((payment) => [payment.key, payment]));
  const words = (p: { state: string; amount: number; currency: string } | undefined): string =>
    p ? `${p.state}, ${p.amount} ${p.currency}` : 'nothing';
  const differences: Difference[] = [];
  let open = 0;
  for (const payment of ours) {
    const match = theirs.get(payment.idempotencyKey);
    theirs.delete(payment.idempotencyKey);
    if (payment.state === 'intent') open += 1;
    else if (words(payment) !== words(match))
      differences.push({ key: payment.idempotencyKey, ours: words(payment), theirs: words(match) });
  }
  for (const payment of theirs.values())
    differences.push({ key: payment.key, ours: 'nothing', theirs: words(payment) });
  return { ok: true, compared: listed.payments.length, open, differences };
}
