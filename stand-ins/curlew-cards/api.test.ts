import { mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { afterEach, beforeEach, describe, expect, it } from 'vitest';
import { Api } from './api';
import { TEST_CARDS } from './cards';
import { State, type Account } from './state';

let folder: string;
let state: State;
let api: Api;
let account: Account;
let sent: object[];

beforeEach(() => {
  folder = mkdtempSync(join(tmpdir(), 'curlew-'));
  state = new State(join(folder, 'state.json'));
  sent = [];
  api = new Api(state, { send: (_hook, message) => sent.push(message) });
  account = state.data.accounts[0]!;
});
afterEach(() => {
  // What is still to be written is written now, while its folder is there.
  state.write();
  rmSync(folder, { recursive: true });
});

const card = (part: object = {}) => ({
  key: account.siteKey,
  number: TEST_CARDS[0]!.number,
  expires: '09/40',
  code: '123',
  ...part,
});
const problem = (part: object): unknown =>
  (api.makeToken(card(part)).body as { error?: { code: string } }).error?.code;

describe('the card form', () => {
  it('takes a good card, with spaces as people type them', () => {
    expect(api.makeToken(card({ number: '902 000 000 179' })).status).toBe(201);
  });

  it.each([
    ['number', { number: '' }],
    ['number', { number: 'abc' }],
    ['number', { number: '90200000017' }],
    ['number', { number: '902000000178' }],
    ['expires', { expires: '13/40' }],
    ['expires', { expires: '01/20' }],
    ['expires', { expires: 'soon' }],
    ['code', { code: '12' }],
    ['unknown-key', { key: 'curlew_test_site_x' }],
  ])('says that the %s is wrong', (code, part) => expect(problem(part)).toBe(code));
});

describe('the API', () => {
  const savedCard = (): string => {
    const { token } = api.makeToken(card()).body as { token: string };
    return (api.saveCard(account, token, { token }).body as { id: string }).id;
  };

  it('knows an account by its secret key alone', () => {
    expect(api.accountBySecret(`Bearer ${account.secretKey}`)).toBe(account);
    expect(api.accountBySecret(`Bearer ${account.siteKey}`)).toBeUndefined();
    expect(api.accountBySecret(undefined)).toBeUndefined();
  });

  it('tells every registered address of a payment, once', () => {
    api.registerHook(account, { address: 'http://127.0.0.1:1/a' });
    const body = { savedCard: savedCard(), amount: 600, currency: 'GBP' };
    api.pay(account, 'k', body).after?.();
    api.pay(account, 'k', body).after?.();
    expect(sent).toEqual([{ type: 'payment.succeeded', payment: { id: expect.any(String) as string } }]);
  });

  it('refuses what is no payment', () => {
    expect(api.pay(account, 'k1', { savedCard: 'none', amount: 600, currency: 'GBP' }).status).toBe(422);
    expect(api.pay(account, 'k2', { savedCard: savedCard(), amount: 0.5, currency: 'GBP' }).status).toBe(422);
    expect(api.pay(account, '', { savedCard: savedCard(), amount: 1, currency: 'GBP' }).status).toBe(422);
    expect(api.registerHook(account, { address: 'nowhere' }).status).toBe(422);
    expect(api.ping(account, 'hook_none').status).toBe(404);
  });

  it('keeps test and live apart, lists in pages, and remembers after a restart', () => {
    const live = state.data.accounts[1]!;
    for (let n = 0; n < 120; n++)
      api.pay(account, `k${n}`, { savedCard: savedCard(), amount: 1 + n, currency: 'GBP' });
    type Page = { payments: { id: string; amount: number }[]; next: string | null };
    const first = api.list(account, new URLSearchParams('after=')).body as Page;
    const second = api.list(account, new URLSearchParams(`after=${first.next}`)).body as Page;
    expect([first.payments.length, second.payments.length, second.next]).toEqual([100, 20, null]);
    expect((api.list(live, new URLSearchParams()).body as Page).payments).toEqual([]);
    state.write();
    expect(new State(join(folder, 'state.json')).data.payments).toHaveLength(120);
  });
});
