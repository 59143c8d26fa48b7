/** What a use case answers where a person can do something about it. Problems are keyed by field; '' is the whole form. */
export type Problems = Record<string, string>;
/**
 * Why there is no answer at all, where it is not a matter of a field: nobody is signed in, the person may not, there is no
 * such thing (or it belongs to someone else: the two are not told apart), or the input is beyond all bounds.
 */
export type RefusalCode = 'sign-in' | 'forbidden' | 'missing' | 'too-large' | 'invalid';
export type Refusal = { ok: false; problems: Problems; code?: RefusalCode };
export type Result<T> = { ok: true; value: T } | Refusal;

export const done = <T>(value: T): Result<T> => ({ ok: true, value });
export const refused = (problems: Problems, code?: RefusalCode): Refusal => ({
  ok: false,
  problems,
  ...(code && { code }),
});
export const refusedField = (field: string, message: string) => refused({ [field]: message });
export const missing = (message = 'This page or record is no longer available.'): Refusal =>
  refused({ '': message }, 'missing');

type Issues = { issues: { path: PropertyKey[]; message: string }[] };

/** The first problem of each field, by the field's dotted path. */
export function problemsOf(error: Issues): Problems {
  const problems: Problems = {};
  for (const issue of error.issues) problems[issue.path.map(String).join('.')] ??= issue.message;
  return problems;
}
/** What was looked for, or that there is no such thing. */
export const found = <T>(value: T | null | undefined): Result<T> => (value == null ? missing() : done(value));
