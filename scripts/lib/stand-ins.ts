/** What people do on the pages of the stand-ins, done by calls: for the demo and the tests. */
import { z } from 'zod';
import type { Gateway, Keys } from '../../src/billing/gateways/contract';
import { TEST_CARDS, type Behaviour } from '../../stand-ins/curlew-cards/cards';
import type { Purse } from '../../stand-ins/dunlin-wallet/state';

/** The stand-in's test keys, read from its own page as the owner would. */
export async function readKeys(gatewayUrl: string, mode: 'test' | 'live'): Promise<Keys> {
  const page = await (await fetch(gatewayUrl)).text();
  const key = (kind: string): string =>
    new RegExp(`data-key="${mode}-${kind}">([^<]+)<`).exec(page)?.[1] ?? '';
  return { siteKey: key('site'), secretKey: key('secret') };
}
export const readTestKeys = (gatewayUrl: string): Promise<Keys> => readKeys(gatewayUrl, 'test');

/** A card of the stand-in, as a token from its frame. */
export async function cardToken(gatewayUrl: string, siteKey: string, behaviour: Behaviour): Promise<string> {
  const number = TEST_CARDS.find((card) => card.behaviour === behaviour)?.number;
  const expires = `09/${String(new Date().getUTCFullYear() + 4).slice(-2)}`;
  const response = await fetch(`${gatewayUrl}/frame/tokens`, {
    method: 'POST',
    body: JSON.stringify({ key: siteKey, number, expires, code: '123' }),
  });
  return z.object({ token: z.string() }).parse(await response.json()).token;
}

const press = (url: string, form: Record<string, string>): Promise<Response> =>
  fetch(url, { method: 'POST', body: new URLSearchParams(form), redirect: 'manual' });

/** The payer presses Approve on the wallet's page, with a purse that behaves in a known way. */
export async function approveAtWallet(approveUrl: string, purse: Purse = 'full'): Promise<void> {
  await press(approveUrl, { what: 'approve', purse });
}

export async function refuseAtWallet(approveUrl: string): Promise<void> {
  await press(approveUrl, { what: 'refuse' });
}

/** The owner gives consent on a gateway's page; the answer is the code that it brings back. */
export async function consentOf(gateway: Gateway, mode: 'test' | 'live', state = ''): Promise<string> {
  const back = 'http://127.0.0.1:9/back';
  const page = new URL(gateway.consentUrl({ back, state, mode, siteName: '' }) ?? '');
  const answered = await press(`${page.origin}${page.pathname}`, { back, state, mode, what: 'allow' });
  return new URL(answered.headers.get('location') ?? '').searchParams.get('code') ?? '';
}

/** What a stand-in's own page can do to a payment: refund, dispute, win, lose. */
export async function actOnPayment(gatewayUrl: string, ref: string, deed: string): Promise<void> {
  await press(`${gatewayUrl}/payments/${ref}/${deed}`, {});
}

export async function setFaults(gatewayUrl: string, faults: Record<string, string>): Promise<void> {
  await press(`${gatewayUrl}/faults`, faults);
}
