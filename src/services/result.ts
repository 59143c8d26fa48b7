/** What a service answers where a person can do something about it. Problems stand beside their field; '' is the whole form. */
export type Problems = Record<string, string>;
export type Result<T> = { ok: true; value: T } | { ok: false; problems: Problems };

export const done = <T>(value: T): Result<T> => ({ ok: true, value });
export const refused = (problems: Problems): { ok: false; problems: Problems } => ({ ok: false, problems });
export const refusedField = (field: string, message: string) => refused({ [field]: message });

type Issues = { issues: { path: PropertyKey[]; message: string }[] };

/** The first problem of each field, by the field's dotted path. */
export function problemsOf(error: Issues): Problems {
  const problems: Problems = {};
  for (const issue of error.issues) problems[issue.path.map(String).join('.')] ??= issue.message;
  return problems;
}
