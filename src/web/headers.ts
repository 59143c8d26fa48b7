import type { OutgoingHttpHeaders, ServerResponse } from 'node:http';
import type { InHand } from '@/platform/request';
import { framedBy } from './policy';

const YEAR = 365 * 86_400;

/** Headers that every response has. What a page or a route has set itself stays. */
export function finishHeaders(
  response: ServerResponse,
  {
    id,
    isHttps,
    policy,
    path,
    runToken,
    request,
  }: { id: string; isHttps: boolean; policy: string; path: string; runToken?: string; request: InHand },
): void {
  const always: Record<string, string> = {
    'x-request-id': id,
    'x-content-type-options': 'nosniff',
    'referrer-policy': 'strict-origin-when-cross-origin',
    'permissions-policy': 'camera=(), microphone=(), geolocation=()',
    'cross-origin-opener-policy': 'same-origin',
    'content-security-policy': policy,
    'cache-control': 'no-store',
    ...(runToken && { 'x-run-token': runToken }),
    ...(isHttps && { 'strict-transport-security': `max-age=${YEAR}; includeSubDomains` }),
  };
  // oxlint-disable-next-line typescript/unbound-method -- called on the response below
  const writeHead = response.writeHead as (...all: unknown[]) => ServerResponse;
  response.writeHead = (...all: unknown[]) => {
    const given = all.find((one) => typeof one === 'object' && one !== null) ?? {};
    const names = new Set(Object.keys(given).map((name) => name.toLowerCase()));
    always['content-security-policy'] = framedBy(policy, path, request.ancestors);
    for (const [name, value] of Object.entries(always))
      if (!names.has(name) && !response.hasHeader(name)) response.setHeader(name, value);
    if (request.cookie) response.appendHeader('set-cookie', request.cookie);
    const [status, ...rest] = all;
    return writeHead.call(response, status === 500 && request.isUnreadable ? 400 : status, ...rest);
  };
}

/** Notes on a response what `writeHead` was called with, without sending it yet. */
export function noteHead(response: ServerResponse, [status, ...rest]: unknown[]): void {
  response.statusCode = Number(status);
  const given = rest.find((one) => typeof one === 'object' && one !== null) ?? {};
  for (const [name, value] of Object.entries(given as OutgoingHttpHeaders))
    if (value !== undefined) response.setHeader(name, value);
}
