import { readInstant } from '../../src/core/calendar';
import { isBefore, type Instant, fromMs } from '../../src/core/instants';
import { asText, randomId, refuse, type Answer, type Body } from '../lib/http';
import { pingHook, registerHook } from '../lib/hooks';
import type { Hook } from '../lib/outbox';
import { listPayments, refundPayment, type Payment } from '../lib/payments';
import { billDue } from './billing';
import { PURSES, type Account, type Agreement, type Purse, type Stage, type State } from './state';

/** The API behind a merchant's secret, and what a payer does on the wallet's own pages. */
export class Api {
  constructor(
    private readonly state: State,
    private readonly outbox: { send(hook: Hook, message: object): void },
  ) {}

  accountBySecret(header: string | undefined): Account | undefined {
    const secret = header?.replace(/^Bearer /, '');
    return this.state.data.accounts.find((account) => account.secret === secret);
  }

  /** On the consent page: the merchant lets a site bill for them. The code works once. */
  consent(mode: string): string {
    const account = this.state.data.accounts.find((one) => one.mode === mode) ?? this.state.data.accounts[0];
    const code = randomId('code');
    this.state.data.codes[code] = account?.id ?? '';
    this.state.save();
    return code;
  }

  exchange(body: Body): Answer {
    const code = asText(body.code);
    const account = this.state.data.accounts.find((one) => one.id === this.state.data.codes[code]);
    Reflect.deleteProperty(this.state.data.codes, code);
    if (!account) return refuse(422, 'bad-code', 'this code is unknown or was used');
    return { status: 201, body: { ...this.describe(account), secret: account.secret } };
  }

  describe({ id, name, mode }: Account): { merchant: string; name: string; mode: string } {
    return { merchant: id, name, mode };
  }

  registerHook(account: Account, body: Body): Answer {
    const made = registerHook(this.state.data, account, body);
    this.state.save();
    return made;
  }

  ping(account: Account, hookId: string): Answer {
    return pingHook(this.state.data, account.id, hookId, (hook, message) => this.outbox.send(hook, message));
  }

  ask(account: Account, key: string, body: Body): Answer {
    if (!key) return refuse(422, 'no-key', 'an idempotency key is needed');
    const { agreements } = this.state.data;
    const known = agreements.find((a) => a.account === account.id && a.key === key);
    if (known) return { status: 201, body: this.view(known) };
    const stages = body.stages as Stage[];
    if (!Array.isArray(stages) || stages.length === 0 || !asText(body.startsAt))
      return refuse(422, 'bad-agreement', 'stages and a start are needed');
    const startsAt = readInstant(asText(body.startsAt));
    const takesUp = body.takesUp as { from: Instant; n: number } | null;
    const made: Agreement = {
      id: randomId('agr'),
      account: account.id,
      key,
      state: 'asked',
      currency: asText(body.currency),
      zone: asText(body.zone) || 'UTC',
      startsAt,
      stages,
      retryDays: Array.isArray(body.retryDays) ? body.retryDays.map(Number) : [],
      returnUrl: asText(body.returnUrl),
      note: asText(body.note),
      purse: 'full',
      stage: 0,
      n: takesUp?.n ?? 0,
      stageFrom: takesUp?.from ?? startsAt,
      nextAt: startsAt,
      failedAt: null,
      tries: 0,
      bills: 0,
    };
    agreements.push(made);
    this.state.save();
    return { status: 201, body: this.view(made) };
  }

  find(account: Account, id: string): Answer {
    const found = this.state.data.agreements.find((a) => a.id === id && a.account === account.id);
    return found ? { status: 200, body: this.view(found) } : refuse(404, 'unknown', 'no such agreement');
  }

  /** By the payer on the wallet's page, or by the merchant. What is refused or ended stays so. */
  decide(id: string, what: 'approve' | 'refuse' | 'end', purse = 'full'): Agreement | undefined {
    const agreement = this.state.data.agreements.find((a) => a.id === id);
    if (!agreement) return undefined;
    const before = agreement.state;
    if (before === 'asked' && what === 'approve') {
      agreement.state = 'running';
      agreement.purse = PURSES.find((one): one is Purse => one === purse) ?? 'full';
    }
    if (before === 'asked' && what !== 'approve') agreement.state = 'refused';
    if (before === 'running' && what === 'end') agreement.state = 'ended';
    this.state.save();
    if (agreement.state !== before)
      this.tellAll(agreement.account, `agreement.${agreement.state}`, { agreement: { id } });
    if (agreement.state === 'running' && before === 'asked') this.billAccount(agreement.account);
    return agreement;
  }

  /** A bill under an agreement that has ended: what must not happen, and does. */
  billAgain(id: string): void {
    const a = this.state.data.agreements.find((one) => one.id === id);
    const stage = a?.stages.at(-1);
    if (!a || !stage) return;
    const now = this.state.data.accounts.find((one) => one.id === a.account)?.clock ?? fromMs(Date.now());
    const payment: Payment = {
      id: randomId('bill'),
      account: a.account,
      key: null,
      agreement: id,
      state: 'succeeded',
      code: null,
      amount: stage.amount,
      currency: a.currency,
      note: a.note,
      at: now,
      refunds: [],
      dispute: null,
    };
    this.state.data.payments.push(payment);
    this.state.save();
    this.tell(payment);
  }

  setClock(account: Account, body: Body): Answer {
    if (account.mode !== 'test') return refuse(422, 'live', 'real time cannot be moved');
    const to = readInstant(asText(body.now));
    // Only forward: two callers may come out of order.
    if (account.clock === null || isBefore(account.clock, to)) account.clock = to;
    this.billAccount(account.id);
    return { status: 200, body: { now: account.clock } };
  }

  /** Bills what is due by the account's own time. */
  billAccount(accountId: string): void {
    const account = this.state.data.accounts.find((one) => one.id === accountId);
    if (!account) return;
    const now = account.clock ?? fromMs(Date.now());
    const own = this.state.data.agreements.filter((a) => a.account === accountId);
    const made = billDue(own, now);
    this.state.data.payments.push(...made);
    if (made.length > 0) this.state.save();
    for (const payment of made) this.tell(payment);
  }

  list(account: Account, query: URLSearchParams): Answer {
    return listPayments(this.state.data.payments, account.id, query);
  }

  refund(account: Account, paymentId: string, key: string, body: Body): Answer {
    const payment = this.state.data.payments.find((p) => p.id === paymentId && p.account === account.id);
    const answer = refundPayment(payment, key || null, body);
    this.state.save();
    return answer.status === 201 && payment
      ? { ...answer, after: () => this.tell(payment, 'payment.refunded') }
      : answer;
  }

  tell(payment: Payment, type = `payment.${payment.state}`): void {
    this.tellAll(payment.account, type, { payment: { id: payment.id } });
  }

  private tellAll(accountId: string, type: string, about: object): void {
    for (const hook of this.state.data.hooks.filter((h) => h.account === accountId))
      this.outbox.send(hook, { type, ...about });
  }

  private view({ id, key, state }: Agreement): object {
    return { id, key, state, approvePath: `/approve/${id}` };
  }
}
