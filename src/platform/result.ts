import type { Problem } from '@/core/problem';
import { problem, type ProblemCode, type Problems, type ValuesOf } from '@/words/problems';

export type { Problems };
/**
 * Why there is no answer at all, where it is not a matter of a field: nobody is signed in, the person may not, there is no
 * such thing (or it belongs to someone else: the two are not told apart), or the input is beyond all bounds.
 */
export type RefusalCode = 'sign-in' | 'forbidden' | 'missing' | 'too-large' | 'invalid';
export type Refusal = { ok: false; problems: Problems; code?: RefusalCode };
/** What a use case answers where a person can do something about it: problems by field, '' for the whole form. */
export type Result<T> = { ok: true; value: T } | Refusal;

export const done = <T>(value: T): Result<T> => ({ ok: true, value });
export const refused = (problems: Problems, code?: RefusalCode): Refusal => ({
  ok: false,
  problems,
  ...(code && { code }),
});
export const refusedField = <Code extends ProblemCode>(
  field: string,
  code: Code,
  ...values: ValuesOf<Code>
): Refusal => refused({ [field]: problem(code, ...values) });
/** The same, of a problem that something else found. */
export const refusedWith = (found: Problem<ProblemCode>, field = ''): Refusal => refused({ [field]: found });
export const missing = (): Refusal => refused({ '': problem('record.missing') }, 'missing');

/** What was looked for, or that there is no such thing. */
export const found = <T>(value: T | null | undefined): Result<T> => (value == null ? missing() : done(value));
