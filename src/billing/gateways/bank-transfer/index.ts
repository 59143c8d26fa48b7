import type { Carries } from '@/core/offers/carries';
import { NO_CONSENT, NOT_A_CARD, NOT_A_WALLET, type Gateway } from '@/billing/gateways/contract';
import { problem } from '@/words/problems';

/** An invoice each time, and money that takes days: nothing shorter than a week can be carried. */
const CARRIES: Carries = {
  currencies: null,
  repeating: true,
  trial: true,
  units: ['week', 'month', 'year'],
  dates: true,
  switch: true,
  discount: true,
  pause: true,
  refund: false,
};

/** The payer sends money with a reference; staff or a bank statement say that it arrived. There is no service to ask. */
export function bankTransfer(): Gateway {
  const noMessages = () => Promise.resolve({ ok: false as const, reason: 'a bank sends no messages' });
  return {
    id: 'bank-transfer',
    name: 'Bank transfer',
    payLabel: 'pay.transfer',
    nature: 'transfer',
    carries: CARRIES,
    connectedBy: 'details',
    hasWebhooks: false,
    pasted: null,
    ...NO_CONSENT,
    ...NOT_A_CARD,
    ...NOT_A_WALLET,
    inspectKeys: ({ siteKey }) =>
      siteKey.trim() ? null : { field: 'siteKey', problem: problem('transfer.account') },
    checkKeys: ({ siteKey }) => Promise.resolve({ ok: true, accountName: siteKey }),
    registerWebhook: noMessages,
    requestPing: noMessages,
    readWebhook: () => ({ ok: false, reason: 'a bank sends no messages' }),
    charge: () => Promise.resolve({ state: 'awaited' }),
    refund: () => Promise.resolve({ state: 'by-hand' }),
    // What came is known by the statement, which is here already.
    findPayment: () => Promise.resolve({ ok: true, payment: null }),
    listPayments: () => Promise.resolve({ ok: true, payments: [] }),
  };
}
