import { existsSync, mkdtempSync, readFileSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { expect, it } from 'vitest';
import { JsonState } from './state';

it('writes what is left when it is closed, and nothing after that', async () => {
  const folder = mkdtempSync(join(tmpdir(), 'nest-key-state-'));
  const file = join(folder, 'state.json');
  const state = new JsonState(file, () => ({ n: 0 }));
  state.data.n = 1;
  state.save();
  state.close();
  expect(JSON.parse(readFileSync(file, 'utf8'))).toEqual({ n: 1 });
  rmSync(folder, { recursive: true });
  state.save();
  // Longer than a change waits to be written.
  await new Promise((resolve) => setTimeout(resolve, 150));
  expect(existsSync(folder)).toBe(false);
});
