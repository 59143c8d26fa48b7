import { behaviourOf, isCardNumber, type Behaviour } from './cards';
import { randomId, type Account, type Hook, type Payment, type State } from './state';

export type Answer = { status: number; body: unknown; then?: () => void };

const refuse = (status: number, code: string, message: string): Answer => ({
  status,
  body: { error: { code, message } },
});

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

  registerHook(account: Account, body: { address?: unknown }): Answer {
    if (typeof body.address !== 'string' || !URL.canParse(body.address))
      return refuse(422, 'bad-address', 'address must be a URL');
    const { data } = this.state;
    data.hooks = data.hooks.filter((hook) => hook.account !== account.id || hook.address !== body.address);
    const secret = `whsec_${Buffer.from(crypto.getRandomValues(new Uint8Array(24))).toString('base64')}`;
    const hook = { id: randomId('hook'), account: account.id, address: body.address, secret };
    data.hooks.push(hook);
    this.state.save();
    return { status: 201, body: { id: hook.id, secret } };
  }

  ping(account: Account, hookId: string): Answer {
    const hook = this.state.data.hooks.find((h) => h.id === hookId && h.account === account.id);
    if (!hook) return refuse(404, 'unknown-hook', 'no such webhook');
    return { status: 202, body: {}, then: () => this.outbox.send(hook, { type: 'ping' }) };
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
    this.state.data.tokens[token] = {
      account: account.id,
      number,
      expires: `${String(month).padStart(2, '0')}/${expires[2]}`,
    };
    this.state.save();
    return { status: 201, body: { token } };
  }

  saveCard(account: Account, key: string, body: { token?: unknown }): Answer {
    return this.once(`${account.id}:card:${key}`, () => {
      const tokenId = asText(body.token);
      const token = this.state.data.tokens[tokenId];
      if (!token || token.account !== account.id) return refuse(402, 'bad-token', 'unknown or used token');
      Reflect.deleteProperty(this.state.data.tokens, tokenId);
      const behaviour = behaviourOf(token.number);
      const refusal = refusedAtOnce(behaviour);
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
    return payment ? { ...answer, then: () => this.tell(account, payment) } : answer;
  }

  list(account: Account, query: URLSearchParams): Answer {
    const own = this.state.data.payments.filter((payment) => payment.account === account.id);
    const key = query.get('key');
    const id = query.get('id');
    if (key !== null || id !== null) {
      return {
        status: 200,
        body: { payments: own.filter((p) => (key === null ? p.id === id : p.key === key)), next: null },
      };
    }
    const start = own.findIndex((payment) => payment.id === query.get('after')) + 1;
    const payments = own.slice(start, start + 100);
    return {
      status: 200,
      body: { payments, next: start + 100 < own.length ? (payments.at(-1)?.id ?? null) : null },
    };
  }

  private tell(account: Account, payment: Payment): void {
    for (const hook of this.state.data.hooks.filter((h) => h.account === account.id)) {
      this.outbox.send(hook, { type: `payment.${payment.state}`, payment: { id: payment.id } });
    }
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

const asText = (value: unknown): string => (typeof value === 'string' ? value : '');

function refusedAtOnce(behaviour: Behaviour): string | null {
  return behaviour === 'declined' || behaviour === 'expired' || behaviour === 'no-funds' ? behaviour : null;
}

function refusedCharge(behaviour: Behaviour, chargesBefore: number): string | null {
  if (behaviour === 'fails-second') return chargesBefore > 0 ? 'no-funds' : null;
  return refusedAtOnce(behaviour);
}
