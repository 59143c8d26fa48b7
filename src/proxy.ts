import { randomBytes } from 'node:crypto';
import { NextResponse, type NextRequest } from 'next/server';
import { frameOrigins } from './billing/gateways';
import { EMPTY_STYLE, TOAST_STYLES } from './platform/toast-styles';

/** Sets the Content-Security-Policy with a nonce for each page. Authorises nothing: pages and services do. */
export function proxy(request: NextRequest): NextResponse {
  // The bytes of a file are no page of ours: their route says what may be done with them.
  if (isFile(request.nextUrl.pathname)) {
    const plain = new Headers(request.headers);
    plain.set('x-path', request.nextUrl.pathname);
    return NextResponse.next({ request: { headers: plain } });
  }
  const nonce = randomBytes(16).toString('base64');
  const policy = [
    "default-src 'self'",
    `script-src 'self' 'nonce-${nonce}' 'strict-dynamic'`,
    `style-src 'self' 'nonce-${nonce}' '${TOAST_STYLES}' '${EMPTY_STYLE}'`,
    "style-src-attr 'unsafe-inline'",
    "img-src 'self' data:",
    "font-src 'self'",
    `frame-src ${canEmbed(request.nextUrl.pathname) ? 'https: ' : ''}${frameOrigins().join(' ')}`,
    "object-src 'none'",
    "base-uri 'none'",
    "form-action 'self'",
    "frame-ancestors 'none'",
  ].join('; ');
  const headers = new Headers(request.headers);
  headers.set('content-security-policy', policy);
  headers.set('x-nonce', nonce);
  headers.set('x-path', request.nextUrl.pathname);
  const response = NextResponse.next({ request: { headers } });
  response.headers.set('content-security-policy', policy);
  return response;
}

const isFile = (path: string): boolean => /^\/(downloads|feeds\/[^/]+\/files)\//.test(path);

/** Texts of the site show what their authors embed; where people type, pay or work, nothing of another site is framed. */
const canEmbed = (path: string): boolean => !/^\/(desk|join|account|sign-in|api)(\/|$)/.test(path);

export const config = { matcher: ['/((?!_next/static|_next/image|favicon.ico|icon.svg).*)'] };
