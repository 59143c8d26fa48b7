import type { IncomingMessage } from 'node:http';
import { expect, it } from 'vitest';
import { isPersonsView } from './view';

const BROWSER =
  'Mozilla/5.0 (X11; Linux x86_64) AppleWebKit/537.36 (KHTML, like Gecko) Chrome/130.0.0.0 Safari/537.36';
const asks = (headers: Record<string, string>, method = 'GET'): boolean =>
  isPersonsView({ method, headers: { 'user-agent': BROWSER, ...headers } } as unknown as IncomingMessage);

it('is a person’s view where a browser opens a page, with a window or without', () => {
  expect(asks({})).toBe(true);
  expect(asks({ 'sec-fetch-dest': 'document', 'sec-fetch-mode': 'navigate' })).toBe(true);
  expect(asks({ 'user-agent': BROWSER.replace('Chrome/', 'HeadlessChrome/') })).toBe(true);
});

it('is none where it is fetched ahead, framed, asked for its head, or by what says that it is a robot', () => {
  expect(asks({ 'sec-purpose': 'prefetch' })).toBe(false);
  expect(asks({ 'sec-purpose': 'prefetch;prerender' })).toBe(false);
  expect(asks({ purpose: 'prefetch' })).toBe(false);
  expect(asks({ 'next-router-prefetch': '1' })).toBe(false);
  expect(asks({ 'sec-fetch-dest': 'iframe' })).toBe(false);
  expect(asks({ 'sec-fetch-dest': 'empty' })).toBe(false);
  expect(asks({}, 'HEAD')).toBe(false);
  for (const agent of ['Somebot/2.1 (+https://bot.example)', 'curl/8.5.0', 'somecrawler', ''])
    expect(asks({ 'user-agent': agent })).toBe(false);
});
