import { IncomingMessage } from 'node:http';
import { Socket } from 'node:net';
import { expect, it } from 'vitest';
import { admit, MOST_BODY } from './admit';
import { pathForLog } from './path-for-log';

function request(url: string, headers: Record<string, string> = {}, method = 'GET'): IncomingMessage {
  const made = new IncomingMessage(new Socket());
  Object.defineProperty(made.socket, 'remoteAddress', { value: '192.0.2.7' });
  return Object.assign(made, { url, method, headers });
}
const statusOf = (made: IncomingMessage): number => {
  const admitted = admit(made, 0);
  return admitted.ok ? 200 : admitted.status;
};

it.each([
  ['/posts/zodiacal-light?to=%2Faccount', 200],
  ['/%ff', 400],
  ['/a%00b', 400],
  ['/posts?category=%00', 400],
  ['/posts?category=%', 400],
  ['//evil.example', 200],
  ['http://evil.example/', 400],
  [`/${'a'.repeat(8_001)}`, 400],
])('%s is answered with %i', (url, status) => expect(statusOf(request(url))).toBe(status));

it('knows few methods', () => {
  expect(statusOf(request('/', {}, 'PROPFIND'))).toBe(405);
  expect(statusOf(request('/', {}, 'POST'))).toBe(200);
  for (const method of ['PUT', 'DELETE']) {
    expect(statusOf(request('/', {}, method))).toBe(405);
    expect(statusOf(request('/api/v1/../../desk', {}, method))).toBe(405);
    expect(statusOf(request('/api/v1/orders/A-1', {}, method))).toBe(200);
  }
});

it('measures bodies, but for the addresses that measure themselves', () => {
  const large = { 'content-length': String(MOST_BODY + 1) };
  expect(statusOf(request('/join/gazer', large, 'POST'))).toBe(413);
  expect(statusOf(request('/join/gazer', { 'transfer-encoding': 'chunked' }, 'POST'))).toBe(411);
  expect(statusOf(request('/desk/uploads/picture', large, 'POST'))).toBe(200);
  const piece = '/desk/uploads/file/00000000-0000-4000-8000-000000000001/12';
  expect(statusOf(request(piece, large, 'POST'))).toBe(200);
  expect(statusOf(request(`${piece}/13`, large, 'POST'))).toBe(413);
  expect(statusOf(request('/desk/uploads/../../join', large, 'POST'))).toBe(413);
});

it('believes nobody about who calls, but as many proxies as were named', () => {
  const headers = { 'x-forwarded-for': '198.51.100.1, 203.0.113.9, 192.0.2.1', 'x-nest-caller': 'me' };
  const callerBehind = (proxies: number): unknown => {
    const made = request('/', { ...headers });
    admit(made, proxies);
    return made.headers['x-nest-caller'];
  };
  expect(callerBehind(0)).toBe('192.0.2.7');
  expect(callerBehind(1)).toBe('192.0.2.1');
  expect(callerBehind(2)).toBe('203.0.113.9');
});

it('logs no token', () => {
  expect(pathForLog('/sign-in/code/abc?x=1')).toBe('/sign-in/code/(left out)');
  expect(pathForLog('/feeds/abc/files/x/y.mp3')).toBe('/feeds/(left out)');
  expect(pathForLog('/sign-in/link/abc')).toBe('/sign-in/link/(left out)');
  expect(pathForLog('/desk/invite/abc')).toBe('/desk/invite/(left out)');
  expect(pathForLog('/mail-off/abc')).toBe('/mail-off/(left out)');
  expect(pathForLog('/api/mail-off/abc')).toBe('/api/mail-off/(left out)');
  expect(pathForLog('/by-mail/abc')).toBe('/by-mail/(left out)');
  expect(pathForLog('/api/letters/read/abc')).toBe('/api/letters/read/(left out)');
  expect(pathForLog('/sign-in?to=/secret')).toBe('/sign-in');
});
