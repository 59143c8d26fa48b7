import { createHash, randomBytes } from 'node:crypto';
import type { IncomingMessage } from 'node:http';
import { isPersonsView } from './view';
import { EMPTY_STYLE, TOAST_STYLES } from '@/platform/toast-styles';

/** What is sent with everything that is no page: the bytes of a file, an answer of the API. */
export const NO_PAGE = "default-src 'none'; frame-ancestors 'none'";

/** The Content-Security-Policy of a page. `frames`: the origins whose pages may be framed at checkout. */
function policyOf(path: string, frames: string[], scripts: string, styles: string): string {
  return [
    "default-src 'self'",
    `script-src 'self' ${scripts}`,
    `style-src 'self' ${styles} '${TOAST_STYLES}' '${EMPTY_STYLE}'`,
    "style-src-attr 'unsafe-inline'",
    "img-src 'self' data:",
    "font-src 'self'",
    `frame-src ${canEmbed(path) ? 'https: ' : ''}${frames.join(' ')}`,
    "object-src 'none'",
    "base-uri 'none'",
    // In a frame of another site nothing is typed.
    `form-action ${isFramed(path) ? "'none'" : "'self'"}`,
    "frame-ancestors 'none'",
  ].join('; ');
}

/** The bytes of a file are no page of ours: their route says what may be done with them. Nor are the scripts and styles of pages. */
const isBytes = (path: string): boolean =>
  /^\/(downloads|feeds\/[^/]+\/files|_next\/static|icon\.svg)(\/|$)/.test(path);

/** Texts of the site show what their authors embed; where people type, pay or work, nothing of another site is framed. */
const canEmbed = (path: string): boolean => !/^\/(desk|join|account|sign-in|api|embed)(\/|$)/.test(path);

/** Pages for frames of other sites: those alone may be framed, by whom the page says. */
const isFramed = (path: string): boolean => /^\/embed\/[^/]+$/.test(path);

/** The policy of a page for frames, with the origins that may show it. */
export const framedBy = (policy: string, path: string, origins: readonly string[] = []): string =>
  isFramed(path) && origins.length > 0
    ? policy.replace("frame-ancestors 'none'", `frame-ancestors ${origins.join(' ')}`)
    : policy;

/** Under which policy an answer is sent; that of a page has a nonce. */
export type Policy = { value: string; nonce: string | null };

/**
 * Tells the pages which address was asked for, and under which policy they are sent. The framework reads the nonce there and
 * gives it to its scripts.
 */
export function setPolicy(request: IncomingMessage, frames: string[]): Policy {
  const path = pathOf(request);
  request.headers['x-path'] = path;
  request.headers['x-nest-view'] = isPersonsView(request) ? 'yes' : 'no';
  delete request.headers['content-security-policy'];
  if (isBytes(path)) return { value: NO_PAGE, nonce: null };
  const nonce = randomBytes(16).toString('base64');
  const value = policyOf(path, frames, `'nonce-${nonce}' 'strict-dynamic'`, `'nonce-${nonce}'`);
  request.headers['content-security-policy'] = value;
  return { value, nonce };
}

export const pathOf = (request: IncomingMessage): string => (request.url ?? '/').split('?', 1)[0] ?? '/';

/**
 * A page that was made for one, as it can be sent to others: without its nonce. Its policy names the scripts by their
 * hashes instead, those alone that had the nonce: what got into the text by mistake is not among them. CSP 3, 2.3.1.
 */
export function withoutNonce(
  html: string,
  { request, nonce, frames }: { request: IncomingMessage; nonce: string; frames: string[] },
): { html: string; policy: string } {
  const inline = new RegExp(
    `<script([^>]*) nonce="${nonce.replaceAll(/[+/=]/g, '\\$&')}"([^>]*)>(.*?)</script>`,
    'gs',
  );
  const hashes = new Set<string>();
  for (const [, before = '', after = '', script = ''] of html.matchAll(inline)) {
    if (/\ssrc=/.test(before + after)) continue;
    const sent = script.replaceAll(nonce, '');
    hashes.add(`'sha256-${createHash('sha256').update(sent).digest('base64')}'`);
  }
  const policy = policyOf(pathOf(request), frames, [...hashes].join(' '), '');
  return { html: html.replaceAll(nonce, ''), policy };
}
