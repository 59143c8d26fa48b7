import type { IncomingMessage, ServerResponse } from 'node:http';
import { Faults } from '../lib/faults';
import { addHookByHand } from '../lib/hooks';
import { answer, formOf, html, json, refuse, seeOther, type Answer } from '../lib/http';
import { WebhookOutbox } from '../lib/outbox';
import { actOnPayment } from '../lib/payments';
import { Api } from './api';
import { approvePage, consentPage, homePage } from './pages';
import { type Account, type State } from './state';

/** Dunlin Wallet, as what it answers to a request; `state` is what it remembers. */
export class DunlinWallet {
  private readonly faults = new Faults();
  private readonly api: Api;

  constructor(private readonly state: State) {
    this.api = new Api(state, new WebhookOutbox(this.faults));
  }

  /** In live mode, and in test mode until a clock is set, real time passes by itself. */
  passTime(): void {
    for (const account of this.state.data.accounts)
      if (account.clock === null) this.api.billAccount(account.id);
  }

  async handle(request: IncomingMessage, response: ServerResponse, url: URL): Promise<void> {
    const route = `${request.method} ${url.pathname}`;
    if (await this.ownPage(request, response, url, route)) return;
    if (this.faults.stopsCall(response)) return;
    if (route === 'POST /v1/tokens') return answer(response, this.api.exchange(await json(request)));
    const account = this.api.accountBySecret(request.headers.authorization);
    if (!account) return answer(response, refuse(401, 'unknown-secret', 'unknown secret'));
    const made = await this.call(account, request, route, url);
    if (request.method === 'POST' && (await this.faults.losesAnswer(response))) return;
    answer(response, made);
  }

  /** What people see and press; true where it was one of these. */
  private async ownPage(
    request: IncomingMessage,
    response: ServerResponse,
    url: URL,
    route: string,
  ): Promise<boolean> {
    const { data } = this.state;
    if (route === 'GET /') html(response, (nonce) => homePage(data, this.faults, nonce));
    else if (route === 'POST /faults') {
      this.faults.set(await formOf(request));
      seeOther(response, '/');
    } else if (route === 'POST /hooks') {
      addHookByHand(data.hooks, data.accounts, await formOf(request));
      this.state.save();
      seeOther(response, '/');
    } else if (route === 'GET /consent')
      html(response, (nonce) => consentPage(url.searchParams, nonce), "frame-ancestors 'none'");
    else if (route === 'POST /consent') {
      const form = await formOf(request);
      const back = new URL(form.get('back') ?? '/', url);
      back.searchParams.set('state', form.get('state') ?? '');
      if (form.get('what') === 'allow')
        back.searchParams.set('code', this.api.consent(form.get('mode') ?? 'test'));
      else back.searchParams.set('refused', 'yes');
      seeOther(response, back.toString());
    } else if (url.pathname.startsWith('/approve/'))
      await this.approve(request, response, url.pathname.slice(9));
    else {
      const act = /^POST \/(payments|agreements)\/([^/]+)\/(\w+)$/.exec(route);
      if (!act?.[2] || url.pathname.startsWith('/v1/')) return false;
      const [, what, id, deed = ''] = act;
      const payment = data.payments.find((p) => p.id === id);
      const message = payment && actOnPayment(payment, deed);
      if (payment && message) this.api.tell(payment, message);
      if (what === 'agreements' && deed === 'end') this.api.decide(id, 'end');
      if (what === 'agreements' && deed === 'bill') this.api.billAgain(id);
      this.state.save();
      seeOther(response, '/');
    }
    return true;
  }

  private async approve(request: IncomingMessage, response: ServerResponse, id: string): Promise<void> {
    const agreement = this.state.data.agreements.find((a) => a.id === id);
    if (!agreement) return answer(response, refuse(404, 'unknown', 'no such agreement'));
    const isTest = this.state.data.accounts.find((a) => a.id === agreement.account)?.mode === 'test';
    if (request.method !== 'POST')
      return html(response, (nonce) => approvePage(agreement, isTest, nonce), "frame-ancestors 'none'");
    const form = await formOf(request);
    const what = form.get('what');
    this.api.decide(id, what === 'approve' || what === 'end' ? what : 'refuse', form.get('purse') ?? 'full');
    seeOther(response, agreement.returnUrl);
  }

  private async call(account: Account, request: IncomingMessage, route: string, url: URL): Promise<Answer> {
    const key = String(request.headers['idempotency-key'] ?? '');
    if (route === 'GET /v1/account') return { status: 200, body: this.api.describe(account) };
    if (route === 'POST /v1/clock') return this.api.setClock(account, await json(request));
    if (route === 'POST /v1/webhooks')
      return this.faults.settings.refusesHooks
        ? refuse(403, 'by-hand', 'register addresses on your page')
        : this.api.registerHook(account, await json(request));
    if (route === 'POST /v1/agreements') return this.api.ask(account, key, await json(request));
    if (route === 'GET /v1/payments') return this.api.list(account, url.searchParams);
    const [, method, kind, id = '', deed = ''] =
      /^(GET|POST) \/v1\/(webhooks|agreements|payments)\/([^/]+)(?:\/(\w+))?$/.exec(route) ?? [];
    const what = `${method} ${kind} ${deed}`;
    if (what === 'POST webhooks ping') return this.api.ping(account, id);
    if (what === 'GET agreements ') return this.api.find(account, id);
    if (what === 'POST agreements end') {
      this.api.decide(id, 'end');
      return this.api.find(account, id);
    }
    if (what === 'POST payments refunds') return this.api.refund(account, id, key, await json(request));
    return refuse(404, 'not-found', 'nothing here');
  }
}
