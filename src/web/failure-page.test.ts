import { createServer, type Server, type ServerResponse } from 'node:http';
import type { AddressInfo } from 'node:net';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { replaceFailedPages } from './failure-page';
import { NO_PAGE } from './policy';
import { finishHeaders } from './headers';

const ID = 'abcd1234-5678';
const HTML = { 'content-type': 'text/html; charset=utf-8' };
const ANSWERS: Record<string, (response: ServerResponse) => void> = {
  // As the pages answer: a status, headers, and the body in parts.
  '/parts': (response) => {
    response.statusCode = 500;
    response.setHeader('content-type', HTML['content-type']);
    response.setHeader('content-encoding', 'gzip');
    response.write('<script>');
    response.end('blank without script</script>');
  },
  '/at-once': (response) => {
    response.writeHead(500, HTML);
    response.end('blank');
  },
  '/headers-first': (response) => {
    response.statusCode = 500;
    response.setHeader('content-type', HTML['content-type']);
    response.flushHeaders();
    response.end('blank');
  },
  '/data': (response) => {
    response.writeHead(500, { 'content-type': 'application/json' });
    response.end('{}');
  },
  '/good': (response) => {
    response.writeHead(200, HTML);
    response.end('<p>A page</p>');
  },
};
let server: Server;
const get = (path: string) => fetch(`http://127.0.0.1:${(server.address() as AddressInfo).port}${path}`);
beforeAll(async () => {
  server = createServer((request, response) => {
    const inHand = { isTakenUp: true, isUnreadable: request.headers['x-unread'] !== undefined, share: {} };
    finishHeaders(response, { id: ID, isHttps: false, path: '/', policy: NO_PAGE, request: inHand });
    replaceFailedPages(response, ID, request.headers['accept-language']);
    ANSWERS[request.url ?? '']?.(response);
  });
  await new Promise<void>((resolve) => server.listen(0, '127.0.0.1', resolve));
});
afterAll(() => server.close());

describe('a page that failed', () => {
  it.each(['/parts', '/at-once', '/headers-first'])(
    'says what is known, how to go back and a number, without script: %s',
    async (path) => {
      const answer = await get(path);
      const html = await answer.text();
      expect(answer.status).toBe(500);
      expect(html).toContain('look in your account');
      expect(html).toContain('Back button');
      expect(html).toContain(ID);
      expect(html).not.toMatch(/<script|blank/);
      expect(answer.headers.get('x-request-id')).toBe(ID);
      expect(answer.headers.get('content-security-policy')).toContain("default-src 'none'");
    },
  );

  it('speaks the language of the browser', async () => {
    const { port } = server.address() as AddressInfo;
    const headers = { 'accept-language': 'de-AT,de;q=0.9,en;q=0.5' };
    const html = await (await fetch(`http://127.0.0.1:${port}/at-once`, { headers })).text();
    expect(html).toContain('<html lang="de">');
    expect(html).toContain(`diese Nummer: ${ID}`);
    expect(html).not.toContain('went wrong');
  });

  it('is 400 where what was sent could not be read', async () => {
    const { port } = server.address() as AddressInfo;
    const answer = await fetch(`http://127.0.0.1:${port}/at-once`, { headers: { 'x-unread': '1' } });
    expect(answer.status).toBe(400);
  });

  it('leaves data and pages that did not fail alone', async () => {
    expect(await (await get('/data')).text()).toBe('{}');
    expect(await (await get('/good')).text()).toBe('<p>A page</p>');
  });
});
