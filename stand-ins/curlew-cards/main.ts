import type { IncomingMessage, ServerResponse } from 'node:http';
import { Faults } from '../lib/faults';
import { addHookByHand } from '../lib/hooks';
import { answer, formOf, html, json, refuse, seeOther, serve, type Answer } from '../lib/http';
import { WebhookOutbox } from '../lib/outbox';
import { actOnPayment } from '../lib/payments';
import { Api } from './api';
import { framePage, homePage } from './pages';
import { State, type Account } from './state';

/** Usage: curlew-cards PORT STATE-FILE */
const [port, file] = process.argv.slice(2);
if (!port || !file) {
  console.error('Curlew Cards needs a port and a file to keep its state in.');
  process.exit(1);
}

const state = new State(file);
state.writeAtEnd();
const faults = new Faults();
const api = new Api(state, new WebhookOutbox(faults));

async function handle(request: IncomingMessage, response: ServerResponse, url: URL): Promise<void> {
  const route = `${request.method} ${url.pathname}`;
  if (route === 'GET /') return html(response, (nonce) => homePage(state.data, faults, nonce));
  if (route === 'POST /faults') {
    faults.set(await formOf(request));
    return seeOther(response, '/');
  }
  if (route === 'POST /hooks') {
    addHookByHand(state.data.hooks, state.data.accounts, await formOf(request));
    state.save();
    return seeOther(response, '/');
  }
  const act = /^POST \/payments\/([^/]+)\/(\w+)$/.exec(route);
  if (act) {
    const payment = state.data.payments.find((p) => p.id === act[1]);
    const message = payment && actOnPayment(payment, act[2] ?? '');
    state.save();
    if (payment && message) api.tell(payment.account, payment, message);
    return seeOther(response, '/');
  }
  if (faults.stopsCall(response)) return;
  if (route === 'GET /frame') return frame(response, url);
  if (route === 'POST /frame/tokens') return answer(response, api.makeToken(await json(request)));
  if (route === 'POST /frame/confirm') return answer(response, api.confirmToken(await json(request)));
  const account = api.accountBySecret(request.headers.authorization);
  if (!account) return answer(response, refuse(401, 'unknown-key', 'unknown key'));
  // The money moves before the answer goes out: what a slow network looks like from the other side.
  const made = await call(account, request, route, url);
  if (route === 'POST /v1/payments' && (await faults.losesAnswer(response))) return;
  answer(response, made);
}

async function call(account: Account, request: IncomingMessage, route: string, url: URL): Promise<Answer> {
  const key = String(request.headers['idempotency-key'] ?? '');
  if (route === 'GET /v1/account')
    return { status: 200, body: { name: account.name, mode: account.mode, siteKey: account.siteKey } };
  if (route === 'POST /v1/webhooks')
    return faults.settings.refusesHooks
      ? refuse(403, 'by-hand', 'register addresses on your page')
      : api.registerHook(account, await json(request));
  const ping = /^POST \/v1\/webhooks\/([^/]+)\/ping$/.exec(route)?.[1];
  if (ping) return api.ping(account, decodeURIComponent(ping));
  if (route === 'POST /v1/saved-cards') return api.saveCard(account, key, await json(request));
  if (route === 'GET /v1/payments') return api.list(account, url.searchParams);
  if (route === 'POST /v1/payments') return api.pay(account, key, await json(request));
  const refund = /^POST \/v1\/payments\/([^/]+)\/refunds$/.exec(route)?.[1];
  if (refund) return api.refund(account, decodeURIComponent(refund), key, await json(request));
  return refuse(404, 'not-found', 'nothing here');
}

function frame(response: ServerResponse, url: URL): void {
  const account = state.data.accounts.find((a) => a.siteKey === url.searchParams.get('key'));
  const parent = url.searchParams.get('parent') ?? '';
  const ancestor = URL.canParse(parent) ? new URL(parent).origin : "'none'";
  html(response, (nonce) => framePage(account, nonce), `form-action 'self'; frame-ancestors ${ancestor}`);
}

serve('Curlew Cards', Number(port), handle);
