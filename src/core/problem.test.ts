import { describe, expect, it } from 'vitest';
import { z } from 'zod';
import { problemsOf, say } from './problem';

const problems = (schema: z.ZodType, value: unknown) => problemsOf(schema.safeParse(value).error!);

describe('what a schema finds', () => {
  it('has the code that the schema says, and its bounds as values', () => {
    const schema = z.object({ days: z.number().max(60, say('number.at-most')) });
    expect(problems(schema, { days: 61 })).toEqual({
      days: { code: 'number.at-most', values: { most: 60 } },
    });
  });

  it.each([
    [z.string().max(3), 'long', { code: 'text.too-long', values: { most: 3 } }],
    [z.string().min(3), '', { code: 'text.too-short', values: { least: 3 } }],
    [z.array(z.string()).max(1), ['a', 'b'], { code: 'list.at-most', values: { most: 1 } }],
    [z.number().min(1), 0, { code: 'number.at-least', values: { least: 1 } }],
    [z.number().int(), 1.5, { code: 'number.whole' }],
    [z.string(), 5, { code: 'value.invalid' }],
    [z.enum(['a']), 'b', { code: 'value.invalid' }],
  ])('has a plain code where the schema says nothing', (schema, value, expected) =>
    expect(problems(schema, value)).toEqual({ '': expected }),
  );

  it('is the first of each field, by its path; a schema may add values', () => {
    const schema = z.object({
      list: z.array(
        z.string().superRefine((_, context) => {
          context.addIssue({ code: 'custom', message: say('text.too-long'), params: { most: 120 } });
          context.addIssue({ code: 'custom', message: say('name.one-line') });
        }),
      ),
    });
    expect(problems(schema, { list: ['x'] })).toEqual({
      'list.0': { code: 'text.too-long', values: { most: 120 } },
    });
  });
});
