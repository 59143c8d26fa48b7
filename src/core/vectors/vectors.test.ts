import { describe, expect, it } from 'vitest';
import access from './access.json';
import discounts from './lives-discounts.json';
import lives from './lives.json';
import prorations from './prorations.json';
import schedules from './schedules.json';
import { expected, runCase, type VectorCase } from './run-case';

describe.each([
  ['schedules', schedules],
  ['prorations', prorations],
  ['access', access],
  ['lives', lives],
  ['lives with discounts', discounts],
])('worked examples: %s', (_, cases) => {
  it.each((cases as unknown as VectorCase[]).map((example) => [example.name, example] as const))('%s', (_name, example) => {
    expect(runCase(example)).toEqual(expected(example));
  });
});
