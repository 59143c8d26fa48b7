import { Webhook } from 'standardwebhooks';
import { z } from 'zod';
import {
  DECLINE_CODES,
  type Answer,
  type GatewayPayment,
  type RefundOutcome,
  type WebhookReading,
} from '@/billing/gateways/contract';
import { instantSchema } from '@/platform/form-fields';

/** How long a gateway may take before its answer counts as unknown. */
const TIMEOUT_MS = 15_000;

export type Reply = { kind: 'reply'; status: number; body: unknown } | { kind: 'silence'; reason: string };
/** What is sent, and what an answer has to be. */
type Asked<T> = { status: number; schema: z.ZodType<T>; body?: unknown; idempotencyKey?: string };
export type Read<T> = { ok: true; value: T } | { ok: false; reason: string };

/** Calls to one gateway's HTTP API, and what its answers mean. Nothing here throws: what is no answer is silence. */
export function httpClient(name: string, base: string) {
  async function call(
    secretKey: string,
    method: string,
    path: string,
    body?: unknown,
    idempotencyKey?: string,
  ): Promise<Reply> {
    try {
      const response = await fetch(new URL(path, base), {
        method,
        headers: {
          authorization: `Bearer ${secretKey}`,
          'content-type': 'application/json',
          ...(idempotencyKey ? { 'idempotency-key': idempotencyKey } : {}),
        },
        body: body === undefined ? undefined : JSON.stringify(body),
        signal: AbortSignal.timeout(TIMEOUT_MS),
        cache: 'no-store',
      });
      if (response.status >= 500) return { kind: 'silence', reason: `${name} answered ${response.status}` };
      return { kind: 'reply', status: response.status, body: await response.json() };
    } catch (error) {
      const late = error instanceof Error && error.name === 'TimeoutError';
      return {
        kind: 'silence',
        reason: late ? `${name} took too long to answer` : `${name} could not be reached`,
      };
    }
  }

  function read<T>(reply: Reply, status: number, schema: z.ZodType<T>): Read<T> {
    if (reply.kind === 'silence') return { ok: false, reason: reply.reason };
    if (reply.status !== status) return { ok: false, reason: `${name} answered ${reply.status}` };
    const parsed = schema.safeParse(reply.body);
    return parsed.success
      ? { ok: true, value: parsed.data }
      : { ok: false, reason: `${name} gave an answer of another form` };
  }

  async function ask<T>(
    secretKey: string,
    method: string,
    path: string,
    { status, schema, body, idempotencyKey }: Asked<T>,
  ): Promise<Read<T>> {
    return read(await call(secretKey, method, path, body, idempotencyKey), status, schema);
  }

  async function registerWebhook(
    secretKey: string,
    address: string,
    name: string,
  ): Promise<Answer<{ ref: string; secret: string }>> {
    const made = await ask(secretKey, 'POST', '/v1/webhooks', {
      status: 201,
      schema: hookSchema,
      body: { address, name },
    });
    return made.ok ? { ok: true, ref: made.value.id, secret: made.value.secret } : made;
  }

  function requestPing(secretKey: string, ref: string | null): Promise<Answer<object>> {
    return ask(secretKey, 'POST', `/v1/webhooks/${encodeURIComponent(ref ?? 'all')}/ping`, {
      status: 202,
      schema: z.object({}),
      body: {},
    });
  }

  async function refund(
    secretKey: string,
    { paymentRef, amount, idempotencyKey }: { paymentRef: string; amount: number; idempotencyKey: string },
  ): Promise<RefundOutcome> {
    const path = `/v1/payments/${encodeURIComponent(paymentRef)}/refunds`;
    const reply = await call(secretKey, 'POST', path, { amount }, idempotencyKey);
    const made = read(reply, 201, z.object({ id: z.string() }));
    if (made.ok) return { state: 'succeeded', ref: made.value.id };
    if (reply.kind === 'silence') return { state: 'unknown', reason: made.reason };
    const said = z.object({ error: z.object({ message: z.string() }) }).safeParse(reply.body);
    return { state: 'refused', reason: `${name}: ${said.success ? said.data.error.message : made.reason}` };
  }

  async function findPayment(
    secretKey: string,
    query: string,
  ): Promise<Answer<{ payment: GatewayPayment | null }>> {
    const found = await ask(secretKey, 'GET', `/v1/payments?${query}`, {
      status: 200,
      schema: paymentsSchema,
    });
    return found.ok ? { ok: true, payment: found.value.payments[0] ?? null } : found;
  }

  async function listPayments(
    secretKey: string,
    agreementRef?: string,
  ): Promise<Answer<{ payments: GatewayPayment[] }>> {
    const all: GatewayPayment[] = [];
    const of = agreementRef ? `agreement=${encodeURIComponent(agreementRef)}&` : '';
    for (let after: string | null = ''; after !== null;) {
      const page: Read<z.infer<typeof paymentsSchema>> = await ask(
        secretKey,
        'GET',
        `/v1/payments?${of}after=${encodeURIComponent(after)}`,
        { status: 200, schema: paymentsSchema },
      );
      if (!page.ok) return page;
      all.push(...page.value.payments);
      after = page.value.next;
    }
    return { ok: true, payments: all };
  }

  return { call, read, ask, registerWebhook, requestPing, refund, findPayment, listPayments };
}

/** What may be right at another time, or once the keys are: nothing is known of what was asked. RFC 9110. */
const MAY_BE_ASKED_AGAIN = new Set([401, 408, 409, 425, 429]);

/** Whether a gateway has said that the request itself is wrong: it will never do it, and has not. */
export const isRefused = (reply: Reply): boolean =>
  reply.kind === 'reply' && reply.status >= 400 && !MAY_BE_ASKED_AGAIN.has(reply.status);

const hookSchema = z.object({ id: z.string(), secret: z.string() });
export const paymentSchema = z
  .object({
    id: z.string(),
    key: z.string().nullable(),
    agreement: z.string().nullable(),
    state: z.enum(['succeeded', 'declined']),
    code: z.enum(DECLINE_CODES).nullable(),
    amount: z.number().int(),
    currency: z.string(),
    at: instantSchema,
    refunds: z.array(z.object({ id: z.string(), key: z.string().nullable(), amount: z.number().int() })),
    dispute: z.enum(['open', 'won', 'lost']).nullable(),
  })
  .transform(({ id, agreement, refunds, ...payment }): GatewayPayment => ({
    ...payment,
    ref: id,
    agreementRef: agreement,
    refunds: refunds.map(({ id: ref, key, amount }) => ({ ref, key, amount })),
  }));
const paymentsSchema = z.object({ payments: z.array(paymentSchema), next: z.string().nullable() });

const payloadSchema = z.object({
  type: z.string(),
  payment: z.object({ id: z.string() }).optional(),
  agreement: z.object({ id: z.string() }).optional(),
});

/** Signature and five minutes of tolerance as in the Standard Webhooks specification 1.0. */
export function readWebhook(secret: string, headers: Record<string, string>, body: string): WebhookReading {
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
  const { type, payment, agreement } = payload.data;
  return { ok: true, messageId, payload: { type, paymentRef: payment?.id, agreementRef: agreement?.id } };
}

function safeJson(text: string): unknown {
  try {
    return JSON.parse(text);
  } catch {
    return null;
  }
}
