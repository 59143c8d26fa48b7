import { mkdtempSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { expect, it } from 'vitest';
import { loadEnvironment } from './environment';

it('reads .env, and leaves what the environment says already', () => {
  const folder = mkdtempSync(join(tmpdir(), 'environment-'));
  writeFileSync(join(folder, '.env'), 'NEST_TEST_NEW="from the file"\nNEST_TEST_KNOWN=from-the-file\n');
  process.env.NEST_TEST_KNOWN = 'from the environment';
  loadEnvironment(folder);
  expect(process.env).toMatchObject({
    NEST_TEST_NEW: 'from the file',
    NEST_TEST_KNOWN: 'from the environment',
  });
  rmSync(folder, { recursive: true });
});
