import { randomBytes } from 'node:crypto';
import type { IncomingMessage } from 'node:http';
import { EMPTY_STYLE, TOAST_STYLES } from '@/platform/toast-styles';

/** What is sent with everything that is no page: the bytes of a file, an answer of the API. */
export const NO_PAGE = "default-src 'none'; frame-ancestors 'none'";

/**
 * The Content-Security-Policy of a page, with a nonce of its own. The framework reads it from the request, and gives the nonce
 * to its scripts. `frames`: the origins whose pages may be framed at checkout.
 */
function policyOf(path: string, frames: string[]): string {
  const nonce = randomBytes(16).toString('base64');
  return [
    "default-src 'self'",
    `script-src 'self' 'nonce-${nonce}' 'strict-dynamic'`,
    `style-src 'self' 'nonce-${nonce}' '${TOAST_STYLES}' '${EMPTY_STYLE}'`,
    "style-src-attr 'unsafe-inline'",
    "img-src 'self' data:",
    "font-src 'self'",
    `frame-src ${canEmbed(path) ? 'https: ' : ''}${frames.join(' ')}`,
    "object-src 'none'",
    "base-uri 'none'",
    "form-action 'self'",
    "frame-ancestors 'none'",
  ].join('; ');
}

/** The bytes of a file are no page of ours: their route says what may be done with them. Nor are the scripts and styles of pages. */
const isBytes = (path: string): boolean =>
  /^\/(downloads|feeds\/[^/]+\/files|_next\/static|icon\.svg)(\/|$)/.test(path);

/** Texts of the site show what their authors embed; where people type, pay or work, nothing of another site is framed. */
const canEmbed = (path: string): boolean => !/^\/(desk|join|account|sign-in|api)(\/|$)/.test(path);

/** Tells the pages which address was asked for, and under which policy they are sent. @returns the policy */
export function setPolicy(request: IncomingMessage, frames: string[]): string {
  const path = (request.url ?? '/').split('?', 1)[0] ?? '/';
  request.headers['x-path'] = path;
  if (isBytes(path)) {
    delete request.headers['content-security-policy'];
    return NO_PAGE;
  }
  return (request.headers['content-security-policy'] = policyOf(path, frames));
}
