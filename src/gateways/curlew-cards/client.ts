import { z } from 'zod';

/** How long the gateway may take before its answer counts as unknown. */
const TIMEOUT_MS = 15_000;

export type Reply = { kind: 'reply'; status: number; body: unknown } | { kind: 'silence'; reason: string };

/** One call to the Curlew Cards API. Never throws: what is no answer is silence, with the reason. */
export async function call(
  base: string,
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
    if (response.status >= 500)
      return { kind: 'silence', reason: `Curlew Cards answered ${response.status}` };
    return { kind: 'reply', status: response.status, body: await response.json() };
  } catch (error) {
    const late = error instanceof Error && error.name === 'TimeoutError';
    return {
      kind: 'silence',
      reason: late ? 'Curlew Cards took too long to answer' : 'Curlew Cards could not be reached',
    };
  }
}

export const paymentSchema = z.object({
  id: z.string(),
  key: z.string(),
  state: z.enum(['succeeded', 'declined']),
  code: z.enum(['declined', 'no-funds', 'expired', 'bad-token']).nullable(),
  amount: z.number().int(),
  currency: z.string(),
});
export const accountSchema = z.object({
  name: z.string(),
  mode: z.enum(['test', 'live']),
  siteKey: z.string(),
});
export const webhookSchema = z.object({ id: z.string(), secret: z.string() });
export const cardSchema = z.object({
  id: z.string(),
  customer: z.string(),
  ending: z.string(),
  expires: z.string(),
});
export const errorSchema = z.object({
  error: z.object({ code: z.enum(['declined', 'no-funds', 'expired', 'bad-token']) }),
});
