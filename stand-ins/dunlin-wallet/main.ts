import type { IncomingMessage, ServerResponse } from 'node:http';
import { Faults } from '../lib/faults';
import { addHookByHand } from '../lib/hooks';
import { answer, formOf, html, json, refuse, seeOther, serve, type Answer } from '../lib/http';
import { WebhookOutbox } from '../lib/outbox';
import { actOnPayment } from '../lib/payments';
import { Api } from './api';
import { approvePage, consentPage, homePage } from './pages';
import { State, type Account } from './state';

/** Usage: dunlin-wallet PORT STATE-FILE */
const [port, file] = process.argv.slice(2);
if (!port || !file) {
  console.error('Dunlin Wallet needs a port and a file to keep its state in.');
  process.exit(1);
}

const state = new State(file);
state.writeAtEnd();
const faults = new Faults();
const api = new Api(state, new WebhookOutbox(faults));

// In live mode, and in test mode until a clock is set, real time passes by itself.
setInterval(() => {
  for (const account of state.data.accounts) if (account.clock === null) api.billAccount(account.id);
}, 1000).unref();

async function handle(request: IncomingMessage, response: ServerResponse, url: URL): Promise<void> {
  const route = `${request.method} ${url.pathname}`;
  if (await ownPage(request, response, url, route)) return;
  if (faults.stopsCall(response)) return;
  if (route === 'POST /v1/tokens') return answer(response, api.exchange(await json(request)));
  const account = api.accountBySecret(request.headers.authorization);
  if (!account) return answer(response, refuse(401, 'unknown-secret', 'unknown secret'));
  const made = await call(account, request, route, url);
  if (request.method === 'POST' && (await faults.losesAnswer(response))) return;
  answer(response, made);
}

/** What people see and press; true where it was one of these. */
async function ownPage(
  request: IncomingMessage,
  response: ServerResponse,
  url: URL,
  route: string,
): Promise<boolean> {
  const { data } = state;
  if (route === 'GET /') html(response, (nonce) => homePage(data, faults, nonce));
  else if (route === 'POST /faults') {
    faults.set(await formOf(request));
    seeOther(response, '/');
  } else if (route === 'POST /hooks') {
    addHookByHand(data.hooks, data.accounts, await formOf(request));
    state.save();
    seeOther(response, '/');
  } else if (route === 'GET /consent')
    html(response, (nonce) => consentPage(url.searchParams, nonce), "frame-ancestors 'none'");
  else if (route === 'POST /consent') {
    const form = await formOf(request);
    const back = new URL(form.get('back') ?? '/', url);
    back.searchParams.set('state', form.get('state') ?? '');
    if (form.get('what') === 'allow') back.searchParams.set('code', api.consent(form.get('mode') ?? 'test'));
    else back.searchParams.set('refused', 'yes');
    seeOther(response, back.toString());
  } else if (url.pathname.startsWith('/approve/')) await approve(request, response, url.pathname.slice(9));
  else {
    const act = /^POST \/(payments|agreements)\/([^/]+)\/(\w+)$/.exec(route);
    if (!act?.[2] || url.pathname.startsWith('/v1/')) return false;
    const [, what, id, deed = ''] = act;
    const payment = data.payments.find((p) => p.id === id);
    const message = payment && actOnPayment(payment, deed);
    if (payment && message) api.tell(payment, message);
    if (what === 'agreements' && deed === 'end') api.decide(id, 'end');
    if (what === 'agreements' && deed === 'bill') api.billAgain(id);
    state.save();
    seeOther(response, '/');
  }
  return true;
}

async function approve(request: IncomingMessage, response: ServerResponse, id: string): Promise<void> {
  const agreement = state.data.agreements.find((a) => a.id === id);
  if (!agreement) return answer(response, refuse(404, 'unknown', 'no such agreement'));
  const isTest = state.data.accounts.find((a) => a.id === agreement.account)?.mode === 'test';
  if (request.method !== 'POST')
    return html(response, (nonce) => approvePage(agreement, isTest, nonce), "frame-ancestors 'none'");
  const form = await formOf(request);
  const what = form.get('what');
  api.decide(id, what === 'approve' || what === 'end' ? what : 'refuse', form.get('purse') ?? 'full');
  seeOther(response, agreement.returnUrl);
}

async function call(account: Account, request: IncomingMessage, route: string, url: URL): Promise<Answer> {
  const key = String(request.headers['idempotency-key'] ?? '');
  if (route === 'GET /v1/account') return { status: 200, body: api.describe(account) };
  if (route === 'POST /v1/clock') return api.setClock(account, await json(request));
  if (route === 'POST /v1/webhooks')
    return faults.settings.refusesHooks
      ? refuse(403, 'by-hand', 'register addresses on your page')
      : api.registerHook(account, await json(request));
  if (route === 'POST /v1/agreements') return api.ask(account, key, await json(request));
  if (route === 'GET /v1/payments') return api.list(account, url.searchParams);
  const [, method, kind, id = '', deed = ''] =
    /^(GET|POST) \/v1\/(webhooks|agreements|payments)\/([^/]+)(?:\/(\w+))?$/.exec(route) ?? [];
  const what = `${method} ${kind} ${deed}`;
  if (what === 'POST webhooks ping') return api.ping(account, id);
  if (what === 'GET agreements ') return api.find(account, id);
  if (what === 'POST agreements end') {
    api.decide(id, 'end');
    return api.find(account, id);
  }
  if (what === 'POST payments refunds') return api.refund(account, id, key, await json(request));
  return refuse(404, 'not-found', 'nothing here');
}

serve('Dunlin Wallet', Number(port), handle);
