import { createHash } from 'node:crypto';
import { readFileSync } from 'node:fs';
import { expect, it } from 'vitest';
import { TOAST_STYLES } from './toast-styles';

it('the policy allows the styles of the toasts that are installed', () => {
  const source = readFileSync('node_modules/sonner/dist/index.mjs', 'utf8');
  const [, styles = '""'] = /__insertCSS\(("(?:[^"\\]|\\.)*")\)/.exec(source) ?? [];
  const hash = createHash('sha256')
    .update(JSON.parse(styles) as string)
    .digest('base64');
  expect(TOAST_STYLES).toBe(`sha256-${hash}`);
});
