import type { IncomingMessage, ServerResponse } from 'node:http';
import { promisify } from 'node:util';
import { gzip as gzipNow } from 'node:zlib';
import { LRUCache } from 'lru-cache';
import type { InHand } from '@/platform/request';
import { versionIn } from '@/platform/shelf';
import { pool } from '@/platform/store/db';
import { findVersion } from '@/platform/store/version';
import { hasWritten } from './alike';
import { noteHead } from './headers';
import { withoutNonce } from './policy';

const gzip = promisify(gzipNow);

/** What a page was answered with: the same for all who are alike until the version of the site is another, or the time has come. */
type Answer = {
  headers: Record<string, string>;
  body: Buffer;
  zipped: Buffer;
  /** Until when it is kept here, in ms of real time. */
  until: number;
  version: bigint;
  /** The item whose comments are in it: those who have written one get a page of their own. */
  commentsOf: string | undefined;
};

const kept = new LRUCache<string, Answer>({
  maxSize: 64 * 1024 * 1024,
  sizeCalculation: ({ body, zipped }) => body.length + zipped.length + 1,
});

/** A cache in front may hand an answer on for less than 2 seconds: its clock ticks in whole ones. Where less is left, not at all. */
const [SHARED, LEAST_LEFT_MS] = ['public, max-age=0, s-maxage=1, must-revalidate', 2_000];
/** How long an answer is kept in which something may change while the version stays: no longer than a cache in front would. */
const BRIEFLY_MS = 1_000;
/** What the same address is answered with depends on these; what the framework asks for by script is not shared at all. */
const VARY = 'accept-encoding, cookie, authorization, rsc';

const accepts = (request: IncomingMessage, coding: string): boolean =>
  (request.headers['accept-encoding'] ?? '').includes(coding);

/** `alike`: the name of all who are answered alike; of visitors it is empty. */
type Asked = { alike: string; inHand: InHand };
const nameOf = ({ url = '/' }: IncomingMessage, alike: string): string => `${url} ${alike}`;

/** Answers with what another who is alike was answered with, if that still holds. @returns whether it did */
export async function answerAsBefore(
  request: IncomingMessage,
  response: ServerResponse,
  { alike, inHand }: Asked,
): Promise<boolean> {
  const name = nameOf(request, alike);
  const known = kept.get(name);
  if (!known) return false;
  if (Date.now() >= known.until || (await (versionIn(inHand) ?? findVersion(pool()))) !== known.version) {
    kept.delete(name);
    return false;
  }
  if (known.commentsOf !== undefined && (await hasWritten(inHand, known.commentsOf))) return false;
  send(response, known, { alike, isZipped: accepts(request, 'gzip'), until: known.until });
  return true;
}

/** `until`: when it will no longer be the same for all who are alike. A cache in front knows visitors alone. */
function send(
  response: ServerResponse,
  { headers, body, zipped }: Answer,
  { alike, isZipped, until }: { alike: string; isZipped: boolean; until: number },
): void {
  for (const [name, value] of Object.entries(headers)) response.setHeader(name, value);
  response.setHeader('vary', VARY);
  const isForAnyone = alike === '' && until - Date.now() >= LEAST_LEFT_MS;
  response.setHeader('cache-control', isForAnyone ? SHARED : 'private, no-store');
  if (isZipped) response.setHeader('content-encoding', 'gzip');
  response.end(isZipped ? zipped : body);
}

type Written = (...all: unknown[]) => boolean;
type Gathering = Asked & { nonce: string; frames: string[] };

/**
 * Gathers what someone is answered with. Where the page said that it is the same for all who are alike, it is kept, and for
 * visitors sent so that a cache may hand it on; otherwise it is sent as it was made, for this one alone.
 */
export function gather(request: IncomingMessage, response: ServerResponse, gathering: Gathering): void {
  const begun = Date.now();
  const isZipped = accepts(request, 'gzip');
  // What is compressed cannot be looked at; that is done at the end.
  delete request.headers['accept-encoding'];
  /* oxlint-disable typescript/unbound-method -- called on the response below */
  const write = response.write as Written;
  const end = response.end as unknown as (...all: unknown[]) => ServerResponse;
  const writeHead = response.writeHead as (...all: unknown[]) => ServerResponse;
  const flush = response.flushHeaders;
  /* eslint-enable typescript/unbound-method */
  const pieces: Buffer[] = [];
  const isGathered = (): boolean => !response.headersSent && isText(response);
  const take = (piece: unknown, encoding: unknown): void => {
    if (typeof piece === 'string') pieces.push(Buffer.from(piece, encodingOf(encoding)));
    else if (piece instanceof Uint8Array) pieces.push(Buffer.from(piece));
  };
  // The compressing layer sends headers before it knows whether it has anything to do.
  response.writeHead = (...all: unknown[]) => {
    if (!isGathered()) return writeHead.apply(response, all);
    noteHead(response, all);
    return response;
  };
  response.flushHeaders = () => {
    if (!isGathered()) flush.call(response);
  };
  response.write = ((...all: unknown[]) => {
    if (!isGathered()) return write.apply(response, all);
    take(all[0], all[1]);
    callbackOf(all)?.();
    return true;
  }) as typeof response.write;
  response.end = ((...all: unknown[]) => {
    if (!isGathered()) return end.apply(response, all);
    take(all[0], all[1]);
    response.writeHead = writeHead;
    response.write = write as typeof response.write;
    response.end = end as typeof response.end;
    void finish(request, response, Buffer.concat(pieces), { ...gathering, isZipped, begun }).catch(() =>
      response.destroy(),
    );
    callbackOf(all)?.();
    return response;
  }) as typeof response.end;
}

async function finish(
  request: IncomingMessage,
  response: ServerResponse,
  made: Buffer,
  { nonce, frames, inHand, alike, isZipped, begun }: Gathering & { isZipped: boolean; begun: number },
): Promise<void> {
  const { share } = inHand;
  const type = String(response.getHeader('content-type') ?? '');
  const isShared =
    response.statusCode === 200 &&
    share.until !== undefined &&
    !share.isRefused &&
    !response.hasHeader('set-cookie');
  response.removeHeader('content-length');
  if (!isShared) {
    const body = isZipped ? await gzip(made) : made;
    if (isZipped) response.setHeader('content-encoding', 'gzip');
    response.appendHeader('vary', 'accept-encoding');
    response.end(body);
    return;
  }
  const headers: Record<string, string> = { 'content-type': type };
  let body = made;
  if (type.startsWith('text/html')) {
    const page = withoutNonce(made.toString(), { request, nonce, frames });
    headers['content-security-policy'] = page.policy;
    body = Buffer.from(page.html);
  }
  response.removeHeader('link');
  const version = await versionIn(inHand);
  const until = share.until ?? 0;
  const answer = {
    headers,
    body,
    zipped: await gzip(body),
    until: share.isUnversioned ? Math.min(until, begun + BRIEFLY_MS) : until,
    version: version ?? 0n,
    commentsOf: share.commentsOf,
  };
  if (version !== undefined) kept.set(nameOf(request, alike), answer);
  send(response, answer, { alike, isZipped, until });
}

const isText = (response: ServerResponse): boolean =>
  /^(text\/|application\/(json|xml|rss\+xml|atom\+xml|feed\+json))/.test(
    String(response.getHeader('content-type') ?? ''),
  ) && !response.hasHeader('content-encoding');

const encodingOf = (given: unknown): BufferEncoding =>
  typeof given === 'string' && Buffer.isEncoding(given) ? given : 'utf8';

const callbackOf = (all: unknown[]): (() => void) | undefined =>
  all.find((one): one is () => void => typeof one === 'function');
