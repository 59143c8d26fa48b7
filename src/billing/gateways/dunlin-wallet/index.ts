import { z } from 'zod';
import type { Carries } from '@/core/offers/carries';
import { NOT_A_CARD, type Agreement, type Gateway } from '@/billing/gateways/contract';
import { httpClient, readWebhook } from '@/billing/gateways/lib/client';
import { problem } from '@/words/problems';

const NAME = 'Dunlin Wallet';

const CARRIES: Carries = {
  currencies: ['GBP', 'EUR', 'USD', 'JPY'],
  repeating: true,
  trial: true,
  units: ['day', 'week', 'month', 'year'],
  dates: false,
  switch: false,
  discount: false,
  pause: false,
  refund: true,
};

/** The payer approves on the wallet's own page; the wallet then bills by itself. `base` is its API and its pages. */
export function dunlinWallet(base: string): Gateway {
  const { ask, call, ...client } = httpClient('Dunlin Wallet', base);
  const toAgreement = ({ id, state, approvePath }: z.infer<typeof agreementSchema>): Agreement => ({
    ref: id,
    state,
    approveUrl: new URL(approvePath, base).toString(),
  });
  return {
    id: 'dunlin-wallet',
    name: NAME,
    payLabel: null,
    nature: 'wallet',
    carries: CARRIES,
    connectedBy: 'consent',
    hasWebhooks: true,
    pasted: null,
    ...NOT_A_CARD,
    inspectKeys: ({ secretKey }, mode) =>
      secretKey.startsWith(`dunlin_${mode}_`)
        ? null
        : { field: 'secretKey', problem: problem('wallet.consent-mode', { mode, gateway: NAME }) },

    async checkKeys({ siteKey, secretKey }) {
      const reply = await call(secretKey, 'GET', '/v1/account');
      if (reply.kind === 'silence')
        return { ok: false, field: null, problem: problem('gateway.silent', { reason: reply.reason }) };
      const account = accountSchema.safeParse(reply.body);
      if (reply.status !== 200 || !account.success)
        return {
          ok: false,
          field: 'secretKey',
          problem: problem('wallet.consent-gone', { gateway: NAME }),
        };
      return account.data.merchant === siteKey
        ? { ok: true, accountName: account.data.name }
        : { ok: false, field: 'siteKey', problem: problem('wallet.consent-of-another') };
    },

    consentUrl({ back, state, mode, siteName }) {
      const url = new URL('/consent', base);
      for (const [name, value] of Object.entries({ back, state, mode, name: siteName }))
        url.searchParams.set(name, value);
      return url.toString();
    },

    async keysFromConsent(code) {
      const made = await ask('', 'POST', '/v1/tokens', {
        status: 201,
        schema: tokenSchema,
        body: { code },
      });
      if (!made.ok) return made;
      const { merchant, secret, mode, name } = made.value;
      return { ok: true, keys: { siteKey: merchant, secretKey: secret }, mode, accountName: name };
    },

    registerWebhook: ({ secretKey }, address, siteName) =>
      client.registerWebhook(secretKey, address, siteName),
    requestPing: ({ secretKey }, ref) => client.requestPing(secretKey, ref),
    readWebhook,
    // What is approved is billed by the wallet itself, at the time that was agreed.
    charge: () => Promise.resolve({ state: 'awaited' }),
    refund: ({ secretKey }, refund) => client.refund(secretKey, refund),
    findPayment: ({ secretKey }, by) =>
      'key' in by
        ? Promise.resolve({ ok: true, payment: null })
        : client.findPayment(secretKey, `id=${encodeURIComponent(by.ref)}`),
    listPayments: ({ secretKey }, agreementRef) => client.listPayments(secretKey, agreementRef),

    async beginAgreement({ secretKey }, { idempotencyKey, ...agreement }) {
      const made = await ask(secretKey, 'POST', '/v1/agreements', {
        status: 201,
        schema: agreementSchema,
        body: agreement,
        idempotencyKey,
      });
      return made.ok ? { ok: true, agreement: toAgreement(made.value) } : made;
    },

    async findAgreement({ secretKey }, ref) {
      const reply = await call(secretKey, 'GET', `/v1/agreements/${encodeURIComponent(ref)}`);
      if (reply.kind === 'reply' && reply.status === 404) return { ok: true, agreement: null };
      const found = client.read(reply, 200, agreementSchema);
      return found.ok ? { ok: true, agreement: toAgreement(found.value) } : found;
    },

    endAgreement: ({ secretKey }, ref) =>
      ask(secretKey, 'POST', `/v1/agreements/${encodeURIComponent(ref)}/end`, {
        status: 200,
        schema: z.object({}),
        body: {},
      }),

    setRehearsalTime: ({ secretKey }, now) =>
      ask(secretKey, 'POST', '/v1/clock', { status: 200, schema: z.object({}), body: { now } }),
  };
}

const accountSchema = z.object({ merchant: z.string(), name: z.string(), mode: z.enum(['test', 'live']) });
const tokenSchema = accountSchema.extend({ secret: z.string() });
const agreementSchema = z.object({
  id: z.string(),
  state: z.enum(['asked', 'running', 'ended', 'refused']),
  approvePath: z.string(),
});
