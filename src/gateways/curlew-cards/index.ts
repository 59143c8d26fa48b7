import { Webhook } from 'standardwebhooks';
import { z } from 'zod';
import type { Gateway, GatewayPayment, Unknown, WebhookReading } from '../contract';
import {
  accountSchema,
  call,
  cardSchema,
  errorSchema,
  paymentSchema,
  webhookSchema,
  type Reply,
} from './client';
import { inspectKeys } from './keys';

/** Card on file: Nest Key decides when to charge. `base` is the address of the API and of the card frame. */
export function curlewCards(base: string): Gateway {
  return {
    id: 'curlew-cards',
    name: 'Curlew Cards',
    inspectKeys,

    async checkKeys({ siteKey, secretKey }) {
      const reply = await call(base, secretKey.trim(), 'GET', '/v1/account');
      if (reply.kind === 'silence')
        return {
          ok: false,
          field: null,
          message: `${reply.reason}. Nothing was saved; try again in a moment.`,
        };
      const account = accountSchema.safeParse(reply.body);
      if (reply.status !== 200 || !account.success) {
        return {
          ok: false,
          field: 'secretKey',
          message:
            'Curlew Cards does not know this secret key. It may have been withdrawn there; make a new one and paste it.',
        };
      }
      if (account.data.siteKey !== siteKey.trim()) {
        return {
          ok: false,
          field: 'siteKey',
          message:
            'This site key belongs to another account than the secret key. Copy both from one account.',
        };
      }
      return { ok: true, accountName: account.data.name };
    },

    async registerWebhook({ secretKey }, address) {
      const reply = await call(base, secretKey, 'POST', '/v1/webhooks', { address });
      const made = read(reply, 201, webhookSchema);
      return made.ok ? { ok: true, ref: made.value.id, secret: made.value.secret } : made;
    },

    async requestPing({ secretKey }, webhookRef) {
      return read(
        await call(base, secretKey, 'POST', `/v1/webhooks/${encodeURIComponent(webhookRef)}/ping`, {}),
        202,
        z.object({}),
      );
    },

    readWebhook,

    frame(siteKey, parentOrigin) {
      const url = new URL('/frame', base);
      url.searchParams.set('key', siteKey);
      url.searchParams.set('parent', parentOrigin);
      return { url: url.toString(), origin: url.origin };
    },

    async saveMethod({ secretKey }, { token, email, idempotencyKey }) {
      const reply = await call(base, secretKey, 'POST', '/v1/saved-cards', { token, email }, idempotencyKey);
      const saved = read(reply, 201, cardSchema);
      if (saved.ok) {
        const { id, customer, ending, expires } = saved.value;
        return {
          state: 'saved',
          customerRef: customer,
          methodRef: id,
          label: `card ending ${ending}, expires ${expires}`,
        };
      }
      const refused = reply.kind === 'reply' ? errorSchema.safeParse(reply.body) : undefined;
      return refused?.success
        ? { state: 'declined', ref: null, code: refused.data.error.code }
        : unknown(saved.reason);
    },

    async charge({ secretKey }, { customerRef, methodRef, amount, currency, idempotencyKey, note }) {
      const body = { customer: customerRef, savedCard: methodRef, amount, currency, note };
      const made = read(
        await call(base, secretKey, 'POST', '/v1/payments', body, idempotencyKey),
        201,
        paymentSchema,
      );
      if (!made.ok) return unknown(made.reason);
      const { id, state, code } = made.value;
      return state === 'succeeded' ? { state, ref: id } : { state, ref: id, code: code ?? 'declined' };
    },

    async findPayment({ secretKey }, by) {
      const query = 'key' in by ? `key=${encodeURIComponent(by.key)}` : `id=${encodeURIComponent(by.ref)}`;
      const found = read(await call(base, secretKey, 'GET', `/v1/payments?${query}`), 200, paymentsSchema);
      if (!found.ok) return found;
      const [payment] = found.value.payments;
      return { ok: true, payment: payment ? fromCurlew(payment) : null };
    },

    async listPayments({ secretKey }) {
      const all: GatewayPayment[] = [];
      let after: string | null = '';
      while (after !== null) {
        const page: Read<z.infer<typeof paymentsSchema>> = read(
          await call(base, secretKey, 'GET', `/v1/payments?after=${encodeURIComponent(after)}`),
          200,
          paymentsSchema,
        );
        if (!page.ok) return page;
        all.push(...page.value.payments.map(fromCurlew));
        after = page.value.next;
      }
      return { ok: true, payments: all };
    },
  };
}

const paymentsSchema = z.object({ payments: z.array(paymentSchema), next: z.string().nullable() });

const fromCurlew = ({ id, ...payment }: z.infer<typeof paymentSchema>): GatewayPayment => ({
  ref: id,
  ...payment,
});

const unknown = (reason: string): Unknown => ({ state: 'unknown', reason });

type Read<T> = { ok: true; value: T } | { ok: false; reason: string };

function read<T>(reply: Reply, status: number, schema: z.ZodType<T>): Read<T> {
  if (reply.kind === 'silence') return { ok: false, reason: reply.reason };
  if (reply.status !== status) return { ok: false, reason: `Curlew Cards answered ${reply.status}` };
  const parsed = schema.safeParse(reply.body);
  return parsed.success
    ? { ok: true, value: parsed.data }
    : { ok: false, reason: 'Curlew Cards gave an answer of another form' };
}

const payloadSchema = z.object({ type: z.string(), payment: z.object({ id: z.string() }).optional() });

/** Signature and five minutes of tolerance as in the Standard Webhooks specification 1.0. */
function readWebhook(secret: string, headers: Record<string, string>, body: string): WebhookReading {
  try {
    new Webhook(secret).verify(body, headers);
  } catch (error) {
    return {
      ok: false,
      reason: error instanceof Error ? error.message : 'the signature could not be checked',
    };
  }
  const payload = payloadSchema.safeParse(safeJson(body));
  const messageId = headers['webhook-id'];
  if (!payload.success || !messageId)
    return { ok: false, reason: 'the message has another form than expected' };
  return { ok: true, messageId, payload: { type: payload.data.type, paymentRef: payload.data.payment?.id } };
}

function safeJson(text: string): unknown {
  try {
    return JSON.parse(text);
  } catch {
    return null;
  }
}
