import { createHash } from 'node:crypto';
import { expect, it } from 'vitest';
import { findWork, hasWork, WORK_BITS } from './work';

it('finds an answer that another implementation of the hash agrees with', () => {
  const answer = findWork('a stamp', 0, 1_000_000);
  const hash = createHash('sha256').update(`a stamp:${answer}`).digest();
  expect(Math.clz32(hash.readUInt32BE(0))).toBeGreaterThanOrEqual(WORK_BITS);
  expect(hasWork('another stamp', answer ?? '')).toBe(false);
});

it.each(['', '-1', '1e5', 'x', '9'.repeat(10)])('refuses %j', (answer) =>
  expect(hasWork('a stamp', answer)).toBe(false),
);
