import { readFileSync } from 'node:fs';
import { expect, it } from 'vitest';
import { nginxLines } from './nginx-lines';

it('are what the docs say, and for a folder here without the cookie of another host', () => {
  const web = 'http://127.0.0.1:4100';
  expect(readFileSync('docs/protect-another-site.md', 'utf8')).toContain(nginxLines({ web, isHere: false }));
  expect(nginxLines({ web: 'https://moor.example', isHere: false })).toContain('proxy_ssl_server_name on;');
  const here = nginxLines({ web, isHere: true });
  expect(here).not.toContain('/_nest/enter');
  expect(here).toContain('location /archive/ {');
});
