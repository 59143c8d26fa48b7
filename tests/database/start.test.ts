import { spawnSync } from 'node:child_process';
import { expect, it } from 'vitest';
import { lanternMoor } from './lantern-moor';
import { environment } from '../lib/environment';

const moor = lanternMoor();

it.each([
  ['the worker', ['--import', 'tsx', 'src/worker/main.ts']],
  ['a script', ['--import', 'tsx', 'scripts/migrate.ts']],
])('%s does not start on a wrong environment, and says which value it is', (_, args) => {
  const env = {
    PATH: process.env.PATH,
    NODE_ENV: 'production' as const,
    ...environment(moor),
    SEALING_KEY: 'short',
    SIGNING_KEY: 'short',
    DATABASE_URL: undefined,
  };
  const { status, stderr } = spawnSync(process.execPath, args, { env, encoding: 'utf8', timeout: 30_000 });
  expect(status).toBe(1);
  expect(stderr).toContain('DATABASE_URL is missing');
  expect(stderr).toContain('SEALING_KEY must be 64 hexadecimal digits');
});
