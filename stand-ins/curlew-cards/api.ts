import { pingHook, registerHook } from '../lib/hooks';
import { asText, randomId, refuse, type Answer, type Body } from '../lib/http';
import type { Hook } from '../lib/outbox';
import { listPayments, refundPayment, type Payment } from '../lib/payments';
import { behaviourOf, isCardNumber, type Behaviour } from './cards';
import type { Account, State } from './state';

export type Outbox = { send(hook: Hook, message: object): void };

/** The API behind a secret key. Everything it does is in `state`; messages go out through `outbox`. */
export class Api {
  constructor(
    private readonly state: State,
    private readonly outbox: Outbox,
  ) {}

  accountBySecret(header: string | undefined): Account | undefined {
    const key = header?.replace(/^Bearer /, '');
    return this.state.data.accounts.find((account) => account.secretKey === key);
  }

  registerHook(account: Account, body: Body): Answer {
    const made = registerHook(this.state.data, account, body);
    this.state.save();
    return made;
  }

  ping(account: Account, hookId: string): Answer {
    return pingHook(this.state.data, account.id, hookId, (hook, message) => this.outbox.send(hook, message));
  }

  /** From the card frame: a number becomes a token that works once. */
  makeToken(body: { key?: unknown; number?: unknown; expires?: unknown; code?: unknown }): Answer {
    const account = this.state.data.accounts.find((a) => a.siteKey === body.key);
    if (!account)
      return refuse(
        401,
        'unknown-key',
        'This form is not set up for payments. Tell the people who run the site.',
      );
    const number = asText(body.number).replace(/[\s-]/g, '');
    if (number === '') return refuse(422, 'number', 'Type the number on the card.');
    if (!/^\d+$/.test(number)) return refuse(422, 'number', 'A card number has digits only.');
    if (number.length !== 12)
      return refuse(422, 'number', `A card number has 12 digits; this one has ${number.length}.`);
    if (!isCardNumber(number)) return refuse(422, 'number', 'One digit or more of this number is wrong.');
    const expires = /^(\d{1,2})\s*\/\s*(?:20)?(\d{2})$/.exec(asText(body.expires).trim());
    const month = Number(expires?.[1]);
    if (!expires || month < 1 || month > 12)
      return refuse(422, 'expires', 'Type month and year as they stand on the card, like 09/31.');
    const now = new Date();
    if (Number(`20${expires[2]}`) * 12 + month < now.getUTCFullYear() * 12 + now.getUTCMonth() + 1) {
      return refuse(422, 'expires', 'This date has passed: the card has expired.');
    }
    if (!/^\d{3}$/.test(asText(body.code).trim()))
      return refuse(422, 'code', 'Type the three digits on the back.');
    const token = randomId('tok');
    const asks = behaviourOf(number) === 'asks';
    this.state.data.tokens[token] = {
      account: account.id,
      number,
      confirmed: !asks,
      expires: `${String(month).padStart(2, '0')}/${expires[2]}`,
    };
    this.state.save();
    return { status: 201, body: { token, asks } };
  }

  /** The payer says in the frame that it is they who pay. */
  confirmToken(body: Body): Answer {
    const token = this.state.data.tokens[asText(body.token)];
    if (!token) return refuse(404, 'number', 'This card has to be typed again.');
    token.confirmed = true;
    this.state.save();
    return { status: 200, body: { token: body.token } };
  }

  saveCard(account: Account, key: string, body: { token?: unknown }): Answer {
    return this.once(`${account.id}:card:${key}`, () => {
      const tokenId = asText(body.token);
      const token = this.state.data.tokens[tokenId];
      if (!token || token.account !== account.id) return refuse(402, 'bad-token', 'unknown or used token');
      Reflect.deleteProperty(this.state.data.tokens, tokenId);
      const behaviour = behaviourOf(token.number);
      const refusal = token.confirmed ? refusedAtOnce(behaviour) : 'needs-confirmation';
      if (refusal) return refuse(402, refusal, 'the card was refused');
      const card = {
        id: randomId('card'),
        customer: randomId('cus'),
        ending: token.number.slice(-4),
        expires: token.expires,
        behaviour,
        charges: 0,
      };
      this.state.data.cards[card.id] = card;
      return {
        status: 201,
        body: { id: card.id, customer: card.customer, ending: card.ending, expires: card.expires },
      };
    });
  }

  pay(
    account: Account,
    key: string,
    body: { savedCard?: unknown; amount?: unknown; currency?: unknown; note?: unknown },
  ): Answer {
    if (!key) return refuse(422, 'no-key', 'an idempotency key is needed');
    let made: Payment | undefined;
    const answer = this.once(`${account.id}:payment:${key}`, () => {
      const card = this.state.data.cards[String(body.savedCard)];
      const amount = Number(body.amount);
      if (!card || !Number.isSafeInteger(amount) || amount <= 0)
        return refuse(422, 'bad-payment', 'card or amount is wrong');
      const code = refusedCharge(card.behaviour, card.charges);
      if (!code) card.charges += 1;
      made = {
        id: randomId('pay'),
        account: account.id,
        key,
        agreement: null,
        refunds: [],
        dispute: null,
        state: code ? 'declined' : 'succeeded',
        code,
        amount,
        currency: String(body.currency),
        note: asText(body.note),
        at: new Date().toISOString(),
      };
      this.state.data.payments.push(made);
      return { status: 201, body: made };
    });
    const payment = made;
    return payment ? { ...answer, after: () => this.tell(account.id, payment) } : answer;
  }

  refund(account: Account, paymentId: string, key: string, body: Body): Answer {
    if (!key) return refuse(422, 'no-key', 'an idempotency key is needed');
    const payment = this.state.data.payments.find((p) => p.id === paymentId && p.account === account.id);
    const answer = refundPayment(payment, key, body);
    this.state.save();
    return answer.status === 201 && payment
      ? { ...answer, after: () => this.tell(account.id, payment, 'payment.refunded') }
      : answer;
  }

  list(account: Account, query: URLSearchParams): Answer {
    return listPayments(this.state.data.payments, account.id, query);
  }

  tell(accountId: string, payment: Payment, type = `payment.${payment.state}`): void {
    for (const hook of this.state.data.hooks.filter((h) => h.account === accountId))
      this.outbox.send(hook, { type, payment: { id: payment.id } });
  }

  private once(key: string, make: () => Answer): Answer {
    const known = this.state.data.savedByKey[key];
    if (known) return known;
    const answer = make();
    this.state.data.savedByKey[key] = { status: answer.status, body: answer.body };
    this.state.save();
    return answer;
  }
}

function refusedAtOnce(behaviour: Behaviour): string | null {
  return behaviour === 'declined' || behaviour === 'expired' || behaviour === 'no-funds' ? behaviour : null;
}

function refusedCharge(behaviour: Behaviour, chargesBefore: number): string | null {
  if (behaviour === 'fails') return 'declined';
  if (behaviour === 'fails-second') return chargesBefore > 0 ? 'no-funds' : null;
  return refusedAtOnce(behaviour);
}
