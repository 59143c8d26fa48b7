import { randomBytes } from 'node:crypto';
import { createServer, type IncomingMessage, type ServerResponse } from 'node:http';
import { Api, type Answer } from './api';
import { WebhookOutbox } from './outbox';
import { framePage, homePage } from './pages';
import { State } from './state';

/** Usage: curlew-cards PORT STATE-FILE */
const [port, file] = process.argv.slice(2);
if (!port || !file) {
  console.error('Curlew Cards needs a port and a file to keep its state in.');
  process.exit(1);
}

const state = new State(file);
const api = new Api(state, new WebhookOutbox());
let slowMs = 0;

const server = createServer((request, response) => {
  handle(request, response).catch((error: unknown) => {
    console.error('Curlew Cards:', error);
    if (!response.headersSent) response.writeHead(500).end('{}');
  });
});

async function handle(request: IncomingMessage, response: ServerResponse): Promise<void> {
  const url = new URL(request.url ?? '/', 'http://127.0.0.1');
  const route = `${request.method} ${url.pathname}`;
  if (route === 'GET /')
    return html(response, (nonce) => homePage(state.data, slowMs, nonce), "frame-ancestors 'none'");
  if (route === 'GET /frame') return frame(response, url);
  if (route === 'POST /frame/tokens') return answer(response, api.makeToken(await json(request)));
  if (route === 'POST /faults') {
    slowMs = Math.min(
      60_000,
      Math.max(0, Number(new URLSearchParams(await text(request)).get('slowMs')) || 0),
    );
    response.writeHead(303, { location: '/' }).end();
    return;
  }
  const account = api.accountBySecret(request.headers.authorization);
  if (!account)
    return answer(response, {
      status: 401,
      body: { error: { code: 'unknown-key', message: 'unknown key' } },
    });
  const key = String(request.headers['idempotency-key'] ?? '');
  if (route === 'GET /v1/account')
    return answer(response, {
      status: 200,
      body: { name: account.name, mode: account.mode, siteKey: account.siteKey },
    });
  if (route === 'POST /v1/webhooks') return answer(response, api.registerHook(account, await json(request)));
  const ping = /^POST \/v1\/webhooks\/([^/]+)\/ping$/.exec(route)?.[1];
  if (ping) return answer(response, api.ping(account, decodeURIComponent(ping)));
  if (route === 'POST /v1/saved-cards')
    return answer(response, api.saveCard(account, key, await json(request)));
  if (route === 'GET /v1/payments') return answer(response, api.list(account, url.searchParams));
  if (route === 'POST /v1/payments') {
    // The money moves before the answer goes out: what a slow network looks like from the other side.
    const made = api.pay(account, key, await json(request));
    if (slowMs > 0) await new Promise((resolve) => setTimeout(resolve, slowMs));
    return answer(response, made);
  }
  answer(response, { status: 404, body: { error: { code: 'not-found', message: 'nothing here' } } });
}

function answer(response: ServerResponse, { status, body, then }: Answer): void {
  response
    .writeHead(status, { 'content-type': 'application/json', 'cache-control': 'no-store' })
    .end(JSON.stringify(body));
  then?.();
}

function frame(response: ServerResponse, url: URL): void {
  const account = state.data.accounts.find((a) => a.siteKey === url.searchParams.get('key'));
  const parent = url.searchParams.get('parent') ?? '';
  const ancestor = URL.canParse(parent) ? new URL(parent).origin : "'none'";
  html(response, (nonce) => framePage(account, nonce), `frame-ancestors ${ancestor}`);
}

function html(response: ServerResponse, make: (nonce: string) => string, ancestors: string): void {
  const nonce = randomBytes(16).toString('base64');
  response
    .writeHead(200, {
      'content-type': 'text/html; charset=utf-8',
      'cache-control': 'no-store',
      'content-security-policy': `default-src 'none'; script-src 'nonce-${nonce}'; style-src 'nonce-${nonce}'; connect-src 'self'; form-action 'self'; ${ancestors}`,
    })
    .end(make(nonce));
}

async function text(request: IncomingMessage): Promise<string> {
  const chunks: Buffer[] = [];
  for await (const chunk of request) chunks.push(chunk as Buffer);
  return Buffer.concat(chunks).toString('utf8');
}

async function json(request: IncomingMessage): Promise<Record<string, unknown>> {
  try {
    return (JSON.parse(await text(request)) ?? {}) as Record<string, unknown>;
  } catch {
    return {};
  }
}

server.listen(Number(port), '127.0.0.1', () => console.log(`Curlew Cards: http://127.0.0.1:${port}`));
for (const signal of ['SIGINT', 'SIGTERM'] as const) process.on(signal, () => process.exit(0));
