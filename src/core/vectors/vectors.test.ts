import { describe, expect, it } from 'vitest';
import access from './access.json';
import prorations from './prorations.json';
import schedules from './schedules.json';
import { runCase, type VectorCase } from './run-case';

describe.each([
  ['schedules', schedules],
  ['prorations', prorations],
  ['access', access],
])('worked examples: %s', (_, cases) => {
  it.each((cases as unknown as VectorCase[]).map((example) => [example.name, example] as const))('%s', (_name, example) => {
    expect(runCase(example)).toEqual(example.expect);
  });
});
