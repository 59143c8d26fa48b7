import { randomId, refuse, type Answer, type Body } from './http';
import { escape, paymentButton } from './pages';

/** A payment at a stand-in, with its outcome. Amounts in minor units. */
export type Payment = {
  id: string;
  account: string;
  /** The idempotency key it was asked for with; null where the gateway bills by itself. */
  key: string | null;
  agreement: string | null;
  state: 'succeeded' | 'declined';
  code: string | null;
  amount: number;
  currency: string;
  note: string;
  at: string;
  refunds: { id: string; key: string | null; amount: number; at: string }[];
  dispute: 'open' | 'won' | 'lost' | null;
};

export const refundedOf = ({ refunds }: Payment): number => refunds.reduce((sum, one) => sum + one.amount, 0);

/** Gives money back, once for a key. Refused where less than that is left. */
export function refundPayment(payment: Payment | undefined, key: string | null, body: Body): Answer {
  if (!payment) return refuse(404, 'unknown-payment', 'no such payment');
  const known = key !== null && payment.refunds.find((refund) => refund.key === key);
  if (known) return { status: 201, body: known };
  const amount = Number(body.amount);
  const left =
    payment.state === 'succeeded' && payment.dispute !== 'lost' ? payment.amount - refundedOf(payment) : 0;
  if (!Number.isSafeInteger(amount) || amount <= 0 || amount > left)
    return refuse(422, 'too-much', `at most ${left} can be refunded`);
  const refund = { id: randomId('ref'), key, amount, at: new Date().toISOString() };
  payment.refunds.push(refund);
  return { status: 201, body: refund };
}

/** What the payer, their bank or the gateway's staff do to a payment from the stand-in's own page. */
export function actOnPayment(payment: Payment, what: string): string | null {
  if (what === 'refund') {
    const left = payment.amount - refundedOf(payment);
    return refundPayment(payment, null, { amount: left }).status === 201 ? 'payment.refunded' : null;
  }
  const dispute = ({ dispute: 'open', win: 'won', lose: 'lost' } as const)[what];
  const isFit = what === 'dispute' ? payment.dispute === null : payment.dispute === 'open';
  if (!dispute || !isFit || payment.state !== 'succeeded') return null;
  payment.dispute = dispute;
  return dispute === 'open' ? 'payment.disputed' : 'payment.dispute-closed';
}

export function paymentTable(payments: Payment[]): string {
  if (payments.length === 0) return '<p class="soft">None yet.</p>';
  const rows = payments
    .slice(-100)
    .reverse()
    .map((p) => {
      const back = refundedOf(p);
      const can = p.state === 'succeeded';
      return `<tr data-payment="${p.id}" data-note="${escape(p.note)}"><td>${p.at.slice(0, 19).replace('T', ' ')}</td><td>${p.amount} ${escape(p.currency)}${back ? `, ${back} back` : ''}</td>
        <td>${p.state}${p.code ? `: ${p.code}` : ''}${p.dispute ? `, dispute ${p.dispute}` : ''}</td><td>${escape(p.note)}</td><td>
        ${can && back < p.amount ? paymentButton(p.id, 'refund', 'Refund') : ''}${can && !p.dispute ? paymentButton(p.id, 'dispute', 'Dispute') : ''}
        ${p.dispute === 'open' ? paymentButton(p.id, 'win', 'Site wins') + paymentButton(p.id, 'lose', 'Payer wins') : ''}</td></tr>`;
    });
  return `<p class="soft">${payments.length} in all; the newest 100.</p><table><tr><th>When</th><th>Minor units</th><th>Outcome</th><th>Note</th><th>At the gateway</th></tr>${rows.join('')}</table>`;
}

/** A page of the account's payments, or those that a key, an id or an agreement names. */
export function listPayments(all: Payment[], account: string, query: URLSearchParams): Answer {
  const own = all.filter((payment) => payment.account === account);
  for (const [name, field] of [
    ['key', 'key'],
    ['id', 'id'],
    ['agreement', 'agreement'],
  ] as const) {
    const wanted = query.get(name);
    if (wanted !== null)
      return { status: 200, body: { payments: own.filter((p) => p[field] === wanted), next: null } };
  }
  const start = own.findIndex((payment) => payment.id === query.get('after')) + 1;
  const payments = own.slice(start, start + 100);
  return {
    status: 200,
    body: { payments, next: start + 100 < own.length ? (payments.at(-1)?.id ?? null) : null },
  };
}
