import { isLocalMonth, type LocalMonth } from '@/core/instants';
import { cardLabel } from '@/words/methods';
import { z } from 'zod';
import type { Carries } from '@/core/offers/carries';
import {
  DECLINE_CODES,
  NO_CONSENT,
  NOT_A_WALLET,
  type Gateway,
  type Unknown,
} from '@/billing/gateways/contract';
import { httpClient, isRefused, paymentSchema, readWebhook } from '@/billing/gateways/lib/client';
import { inspectKeys, NAME } from './keys';
import { problem } from '@/words/problems';

const CARRIES: Carries = {
  currencies: null,
  repeating: true,
  trial: true,
  units: ['hour', 'day', 'week', 'month', 'year'],
  dates: true,
  switch: true,
  discount: true,
  pause: true,
  refund: true,
};

/** Card on file: Nest Key decides when to charge. `base` is the address of the API and of the card frame. */
export function curlewCards(base: string): Gateway {
  const { call, read, ...client } = httpClient('Curlew Cards', base);
  return {
    id: 'curlew-cards',
    name: NAME,
    payLabel: 'pay.card',
    nature: 'card',
    carries: CARRIES,
    connectedBy: 'keys',
    hasWebhooks: true,
    pasted: {
      page: base,
      example: (field, mode) => `curlew_${mode}_${field === 'siteKey' ? 'site' : 'secret'}_…`,
    },
    ...NO_CONSENT,
    ...NOT_A_WALLET,
    inspectKeys,

    async checkKeys({ siteKey, secretKey }) {
      const reply = await call(secretKey.trim(), 'GET', '/v1/account');
      if (reply.kind === 'silence')
        return {
          ok: false,
          field: null,
          problem: problem('gateway.silent', { reason: reply.reason }),
        };
      const account = accountSchema.safeParse(reply.body);
      if (reply.status !== 200 || !account.success) {
        return {
          ok: false,
          field: 'secretKey',
          problem: problem('key.unknown', { gateway: NAME }),
        };
      }
      if (account.data.siteKey !== siteKey.trim()) {
        return {
          ok: false,
          field: 'siteKey',
          problem: problem('key.another-account'),
        };
      }
      return { ok: true, accountName: account.data.name };
    },

    registerWebhook: ({ secretKey }, address, siteName) =>
      client.registerWebhook(secretKey, address, siteName),
    requestPing: ({ secretKey }, ref) => client.requestPing(secretKey, ref),
    readWebhook,

    frame(siteKey, parentOrigin) {
      const url = new URL('/frame', base);
      url.searchParams.set('key', siteKey);
      url.searchParams.set('parent', parentOrigin);
      return { url: url.toString(), origin: url.origin };
    },

    async saveMethod({ secretKey }, { token, email, idempotencyKey }) {
      const reply = await call(secretKey, 'POST', '/v1/saved-cards', { token, email }, idempotencyKey);
      const saved = read(reply, 201, cardSchema);
      if (saved.ok) {
        const { id, customer, ending, expires } = saved.value;
        return {
          state: 'saved',
          customerRef: customer,
          methodRef: id,
          label: cardLabel(ending, expires),
          expires: monthOf(expires),
        };
      }
      const refused = reply.kind === 'reply' ? errorSchema.safeParse(reply.body) : undefined;
      return refused?.success
        ? { state: 'declined', ref: null, code: refused.data.error.code }
        : unknown(saved.reason);
    },

    async charge({ secretKey }, { customerRef, methodRef, amount, currency, idempotencyKey, note }) {
      const body = { customer: customerRef, savedCard: methodRef, amount, currency, note };
      const reply = await call(secretKey, 'POST', '/v1/payments', body, idempotencyKey);
      const made = read(reply, 201, paymentSchema);
      if (!made.ok)
        return isRefused(reply)
          ? { state: 'declined', ref: null, code: 'bad-request' }
          : unknown(made.reason);
      const { ref, state, code } = made.value;
      return state === 'succeeded' ? { state, ref } : { state, ref, code: code ?? 'declined' };
    },

    refund: ({ secretKey }, refund) => client.refund(secretKey, refund),
    findPayment: ({ secretKey }, by) =>
      client.findPayment(
        secretKey,
        'key' in by ? `key=${encodeURIComponent(by.key)}` : `id=${encodeURIComponent(by.ref)}`,
      ),
    listPayments: ({ secretKey }) => client.listPayments(secretKey),
  };
}

const accountSchema = z.object({ name: z.string(), mode: z.enum(['test', 'live']), siteKey: z.string() });
const cardSchema = z.object({
  id: z.string(),
  customer: z.string(),
  ending: z.string(),
  expires: z.string(),
});
const errorSchema = z.object({ error: z.object({ code: z.enum(DECLINE_CODES) }) });

const unknown = (reason: string): Unknown => ({ state: 'unknown', reason });

/** "09/29" as "2029-09"; null where it is no month. */
function monthOf(expires: string): LocalMonth | null {
  const month = expires.replace(/^(\d\d)\/(\d\d)$/, '20$2-$1');
  return isLocalMonth(month) ? month : null;
}
