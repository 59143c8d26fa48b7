import { randomUUID } from 'node:crypto';
import type { IncomingMessage } from 'node:http';

/** Files have addresses of their own, which measure what they read; everything else is small. */
export const MOST_BODY = 1_000_000;
const MEASURED_ELSEWHERE =
  /^\/(desk\/uploads\/[a-z-]+(\/[0-9a-f-]{36}(\/\d{1,4})?)?|api\/gateways\/[^/]+\/events)$/;
const METHODS = ['GET', 'HEAD', 'POST', 'OPTIONS'];
/** Programs change and end things by these; no page and no form does. */
const API_METHODS = [...METHODS, 'PUT', 'DELETE'];
const API = /^\/api\/v1\/(?!.*\.\.)/;
/** What our own server says to the pages; from outside it would be a lie. */
const OURS = [
  'x-nest-caller',
  'x-request-id',
  'x-path',
  'x-nest-view',
  'content-security-policy',
  'x-middleware-subrequest',
];
const FORWARDED = [
  'x-forwarded-for',
  'x-forwarded-host',
  'x-forwarded-proto',
  'x-forwarded-port',
  'forwarded',
];

export type Admitted = { id: string } & (
  { ok: true } | { ok: false; status: number; words: string; headers?: Record<string, string> }
);

/**
 * Looks at a request before anything reads it: its method, its address, and how long its body says it is. Notes who calls,
 * and gives it an id. `proxies`: how many of our own proxies are in front and add the address they were called from.
 */
export function admit(request: IncomingMessage, proxies: number): Admitted {
  const id = randomUUID().slice(0, 13);
  const caller = callerOf(request, proxies);
  for (const name of OURS) Reflect.deleteProperty(request.headers, name);
  if (proxies === 0) for (const name of FORWARDED) Reflect.deleteProperty(request.headers, name);
  request.headers['x-request-id'] = id;
  request.headers['x-nest-caller'] = caller;

  const refuse = (status: number, words: string, headers?: Record<string, string>): Admitted => ({
    id,
    ok: false,
    status,
    words,
    headers,
  });
  const path = decoded(request.url ?? '');
  const methods = path !== null && API.test(path) ? API_METHODS : METHODS;
  if (!methods.includes(request.method ?? ''))
    return refuse(405, 'This method is not known here.', { allow: methods.join(', ') });
  if (path === null) return refuse(400, 'This address cannot be read.');
  const length = request.headers['content-length'];
  const isChunked = request.headers['transfer-encoding'] !== undefined;
  if (!MEASURED_ELSEWHERE.test(path)) {
    if (isChunked) return refuse(411, 'Say how long this is.');
    if (Number(length ?? 0) > MOST_BODY)
      return refuse(413, 'This is more than can be sent here.', { connection: 'close' });
  }
  return { id, ok: true };
}

/** The path of an address, decoded; null where it cannot be, or holds what no address of ours does. */
function decoded(url: string): string | null {
  if (!url.startsWith('/') || url.length > 8_000) return null;
  const [path = '', query = ''] = url.split(/\?(.*)/s);
  try {
    const text = decodeURIComponent(path);
    decodeURIComponent(query.replaceAll('+', ' '));
    return /[\u0000-\u001f\u007f]/.test(text) || /%00/.test(query) ? null : text;
  } catch {
    return null;
  }
}

/** The caller’s address: of the socket, or as the outermost of our own proxies saw it. */
function callerOf({ socket, headers }: IncomingMessage, proxies: number): string {
  const peer = socket.remoteAddress ?? 'unknown';
  if (proxies === 0) return peer;
  const said = String(headers['x-forwarded-for'] ?? '')
    .split(',')
    .map((part) => part.trim())
    .filter(Boolean);
  return (said.at(-proxies) ?? said[0] ?? peer).slice(0, 60);
}
