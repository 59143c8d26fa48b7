import { randomBytes } from 'node:crypto';
import { once } from 'node:events';
import { createServer, type IncomingMessage, type Server, type ServerResponse } from 'node:http';

export type Answer = { status: number; body: unknown; after?: () => void };
export type Body = Record<string, unknown>;

export const refuse = (status: number, code: string, message: string): Answer => ({
  status,
  body: { error: { code, message } },
});
export const asText = (value: unknown): string => (typeof value === 'string' ? value : '');
export const randomId = (kind: string): string => `${kind}_${randomBytes(9).toString('hex')}`;

export function answer(response: ServerResponse, { status, body, after }: Answer): void {
  response
    .writeHead(status, { 'content-type': 'application/json', 'cache-control': 'no-store' })
    .end(JSON.stringify(body));
  after?.();
}

export function html(
  response: ServerResponse,
  make: (nonce: string) => string,
  policy = "form-action 'self'; frame-ancestors 'none'",
): void {
  const nonce = randomBytes(16).toString('base64');
  response
    .writeHead(200, {
      'content-type': 'text/html; charset=utf-8',
      'cache-control': 'no-store',
      'content-security-policy': `default-src 'none'; script-src 'nonce-${nonce}'; style-src 'nonce-${nonce}'; connect-src 'self'; ${policy}`,
    })
    .end(make(nonce));
}

export function seeOther(response: ServerResponse, location: string): void {
  response.writeHead(303, { location }).end();
}

export async function text(request: IncomingMessage): Promise<string> {
  const chunks: Buffer[] = [];
  for await (const chunk of request) chunks.push(chunk as Buffer);
  return Buffer.concat(chunks).toString('utf8');
}

export async function formOf(request: IncomingMessage): Promise<URLSearchParams> {
  return new URLSearchParams(await text(request));
}

export async function json(request: IncomingMessage): Promise<Body> {
  try {
    return (JSON.parse(await text(request)) ?? {}) as Body;
  } catch {
    return {};
  }
}

export type Handle = (request: IncomingMessage, response: ServerResponse, url: URL) => Promise<void> | void;

/** A server of a stand-in on loopback, once it listens; what goes wrong in it is an answer 500. Port 0: any that is free. */
export async function serve(name: string, port: number, handle: Handle): Promise<Server> {
  const token = process.env.RUN_TOKEN;
  const server = createServer((request, response) => {
    if (token) response.setHeader('x-run-token', token);
    const url = new URL(request.url ?? '/', `http://127.0.0.1:${port}`);
    Promise.resolve(handle(request, response, url)).catch((error: unknown) => {
      console.error(`${name}:`, error);
      if (!response.headersSent) response.writeHead(500).end('{}');
    });
  }).listen(port, '127.0.0.1');
  // A caller that asks again would sometimes find its idle connection just being closed.
  server.keepAliveTimeout = 300_000;
  await once(server, 'listening');
  return server;
}

/** The same for a program, which says where it listens. */
export async function serveAndSay(name: string, port: number, handle: Handle): Promise<void> {
  await serve(name, port, handle);
  console.log(`${name}: http://127.0.0.1:${port}`);
}
