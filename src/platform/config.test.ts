import { readFileSync } from 'node:fs';
import { expect, it } from 'vitest';
import { ConfigError, parseConfig } from './config';

const good = {
  DATABASE_URL: 'postgres://127.0.0.1/nest',
  SITE_URL: 'https://moor.example',
  SEALING_KEY: 'a'.repeat(64),
  SIGNING_KEY: 'a'.repeat(64),
  SMTP_URL: 'smtp://127.0.0.1:25',
  CURLEW_CARDS_URL: 'https://cards.example',
  DUNLIN_WALLET_URL: 'https://wallet.example',
};

it('takes a complete environment, with usual values where they are left out', () => {
  expect(parseConfig(good)).toMatchObject({ LEASE_SECONDS: 30, LOG_LEVEL: 'info' });
});

it.each([
  ['DATABASE_URL', undefined],
  ['DATABASE_URL', 'mysql://x'],
  ['SITE_URL', 'moor'],
  ['SEALING_KEY', 'short'],
  ['SMTP_URL', 'http://x'],
  ['CURLEW_CARDS_URL', ''],
  ['LEASE_SECONDS', 'soon'],
])('names %s where it is %s', (name, value) => {
  expect(() => parseConfig({ ...good, [name]: value })).toThrow(ConfigError);
  expect(() => parseConfig({ ...good, [name]: value })).toThrow(new RegExp(`  ${name} `));
});

it('has an example for every value', () => {
  const example = readFileSync('.env.example', 'utf8');
  for (const name of Object.keys(parseConfig(good))) expect(example).toMatch(new RegExp(`^${name}=`, 'm'));
});
