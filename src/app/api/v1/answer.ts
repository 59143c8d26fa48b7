import 'server-only';
import { boundedText } from '@/app/bounded-body';
import { CALLER_HEADER, STATUS } from '@/app/session';
import { whoseKey } from '@/people/services/api-keys';
import { VISITOR_ACTOR, type Actor } from '@/platform/actor';
import type { Result } from '@/platform/result';
import type { Use } from '@/platform/use';
import { plainWords } from '@/words/desk';
import { problem, type Problems } from '@/words/problems';

const MOST_BYTES = 200_000;

/** Answers a call of the API with a key: the value as JSON, or what is wrong as problem details (RFC 9457). */
export async function answerCall<T>(
  request: Request,
  use: Use<T>,
  input: (query: Record<string, string>) => unknown,
): Promise<Response> {
  const called = await callerOf(request);
  if (called instanceof Response) return called;
  const query = Object.fromEntries(new URL(request.url).searchParams);
  return answered(await use(called, input(query)));
}

/** The same, of what comes in the body as JSON, with what is in the address. */
export async function answerBody<T>(
  request: Request,
  use: Use<T>,
  inPath: Record<string, string> = {},
): Promise<Response> {
  const called = await callerOf(request);
  if (called instanceof Response) return called;
  const body = await boundedText(request, MOST_BYTES);
  if (body instanceof Response) return refusal(413, { '': problem('form.too-large') });
  const input = parsed(body);
  return typeof input !== 'object' || input === null
    ? refusal(400, { '': problem('api.no-json') })
    : answered(await use(called, { ...input, ...inPath }));
}

function parsed(text: string): unknown {
  try {
    return JSON.parse(text) as unknown;
  } catch {
    return undefined;
  }
}

/** Whose key the request carries, where it may call now. Cookies count for nothing here. */
async function callerOf(request: Request): Promise<Actor | Response> {
  const visitor = { ...VISITOR_ACTOR, address: request.headers.get(CALLER_HEADER) ?? 'unknown' };
  const key = /^Bearer +([\w-]{1,200})$/i.exec(request.headers.get('authorization') ?? '')?.[1];
  const found = await whoseKey(visitor, key ?? '');
  if (!found.ok || !found.value) return refusal(401, { '': problem('api.no-key') });
  const { id, scopes, memberId, staffRole, wait } = found.value;
  if (wait > 0) return refusal(429, { '': problem('api.too-many', { seconds: wait }) }, wait);
  return { ...visitor, kind: 'staff', memberId, staffRole, key: { id, scopes } };
}

const answered = <T>(result: Result<T>): Response =>
  result.ok ? Response.json(result.value) : refusal(STATUS[result.code ?? 'invalid'], result.problems);

const TITLES: Record<number, string> = {
  400: 'The request cannot be used',
  401: 'No valid key',
  403: 'Not allowed',
  404: 'Not found',
  413: 'Too large',
  429: 'Too many requests',
};

function refusal(status: number, problems: Problems, wait?: number): Response {
  const { '': whole, ...fields } = problems;
  const errors = Object.entries(fields).map(([field, one]) => ({ field, detail: plainWords.problem(one) }));
  const body = {
    type: 'about:blank',
    title: TITLES[status] ?? 'Failed',
    status,
    ...(whole && { detail: plainWords.problem(whole) }),
    ...(errors.length > 0 && { errors }),
  };
  return Response.json(body, {
    status,
    headers: {
      'content-type': 'application/problem+json',
      ...(status === 401 && { 'www-authenticate': 'Bearer' }),
      ...(wait !== undefined && { 'retry-after': String(wait) }),
    },
  });
}
