import type { IncomingMessage, ServerResponse } from 'node:http';
import { Faults } from '../lib/faults';
import { addHookByHand } from '../lib/hooks';
import { answer, formOf, html, json, refuse, seeOther, type Answer } from '../lib/http';
import { WebhookOutbox } from '../lib/outbox';
import { actOnPayment } from '../lib/payments';
import { Api } from './api';
import { framePage, homePage } from './pages';
import { type Account, type State } from './state';

/** Curlew Cards, as what it answers to a request; `state` is what it remembers. */
export class CurlewCards {
  private readonly faults = new Faults();
  private readonly api: Api;

  constructor(private readonly state: State) {
    this.api = new Api(state, new WebhookOutbox(this.faults));
  }

  async handle(request: IncomingMessage, response: ServerResponse, url: URL): Promise<void> {
    const route = `${request.method} ${url.pathname}`;
    if (route === 'GET /') return html(response, (nonce) => homePage(this.state.data, this.faults, nonce));
    if (route === 'POST /faults') {
      this.faults.set(await formOf(request));
      return seeOther(response, '/');
    }
    if (route === 'POST /hooks') {
      addHookByHand(this.state.data.hooks, this.state.data.accounts, await formOf(request));
      this.state.save();
      return seeOther(response, '/');
    }
    const act = /^POST \/payments\/([^/]+)\/(\w+)$/.exec(route);
    if (act) {
      const payment = this.state.data.payments.find((p) => p.id === act[1]);
      const message = payment && actOnPayment(payment, act[2] ?? '');
      this.state.save();
      if (payment && message) this.api.tell(payment.account, payment, message);
      return seeOther(response, '/');
    }
    if (this.faults.stopsCall(response)) return;
    if (route === 'GET /frame') return this.frame(response, url);
    if (route === 'POST /frame/tokens') return answer(response, this.api.makeToken(await json(request)));
    if (route === 'POST /frame/confirm') return answer(response, this.api.confirmToken(await json(request)));
    const account = this.api.accountBySecret(request.headers.authorization);
    if (!account) return answer(response, refuse(401, 'unknown-key', 'unknown key'));
    // The money moves before the answer goes out: what a slow network looks like from the other side.
    const made = await this.call(account, request, route, url);
    if (route === 'POST /v1/payments' && (await this.faults.losesAnswer(response))) return;
    answer(response, made);
  }

  private async call(account: Account, request: IncomingMessage, route: string, url: URL): Promise<Answer> {
    const key = String(request.headers['idempotency-key'] ?? '');
    if (route === 'GET /v1/account')
      return { status: 200, body: { name: account.name, mode: account.mode, siteKey: account.siteKey } };
    if (route === 'POST /v1/webhooks')
      return this.faults.settings.refusesHooks
        ? refuse(403, 'by-hand', 'register addresses on your page')
        : this.api.registerHook(account, await json(request));
    const ping = /^POST \/v1\/webhooks\/([^/]+)\/ping$/.exec(route)?.[1];
    if (ping) return this.api.ping(account, decodeURIComponent(ping));
    if (route === 'POST /v1/saved-cards') return this.api.saveCard(account, key, await json(request));
    if (route === 'GET /v1/payments') return this.api.list(account, url.searchParams);
    if (route === 'POST /v1/payments') return this.api.pay(account, key, await json(request));
    const refund = /^POST \/v1\/payments\/([^/]+)\/refunds$/.exec(route)?.[1];
    if (refund) return this.api.refund(account, decodeURIComponent(refund), key, await json(request));
    return refuse(404, 'not-found', 'nothing here');
  }

  private frame(response: ServerResponse, url: URL): void {
    const account = this.state.data.accounts.find((a) => a.siteKey === url.searchParams.get('key'));
    const parent = url.searchParams.get('parent') ?? '';
    const ancestor = URL.canParse(parent) ? new URL(parent).origin : "'none'";
    html(response, (nonce) => framePage(account, nonce), `form-action 'self'; frame-ancestors ${ancestor}`);
  }
}
