/** A value that a problem's sentence names: money in minor units, a list, or the sentence of another problem. */
export type Value =
  | string
  | number
  | readonly string[]
  | { amount: number; currency: string }
  | { code: string; values?: Values };
type Values = { readonly [name: string]: Value };

/** What is wrong with what a person typed or asked for, and the values that its sentence names. The sentences are in `words`. */
export type Problem<Code extends string = CoreCode> = { code: Code; values?: Values };

/** Problems by the dotted path of the field; '' is the whole form. */
export type ProblemsOf<Code extends string = CoreCode> = Record<string, Problem<Code>>;

/** What the core finds wrong. */
export type CoreCode =
  | 'address.no-slash'
  | 'amount.below-zero'
  | 'amount.decimals'
  | 'amount.missing'
  | 'amount.no-decimals'
  | 'amount.too-large'
  | 'amount.two-ways'
  | 'amount.unreadable'
  | 'answer.date'
  | 'answer.missing'
  | 'answer.none-of-these'
  | 'answer.not-agreed'
  | 'answer.not-chosen'
  | 'answer.not-ticked'
  | 'holder.share'
  | 'holder.twice'
  | 'code.does-nothing'
  | 'code.ends-first'
  | 'code.least-one'
  | 'code.new-only'
  | 'code.not-yet'
  | 'code.over'
  | 'code.used-by-you'
  | 'code.used-up-all'
  | 'currency.missing'
  | 'date.unreal'
  | 'embed.unsafe'
  | 'join-field.address'
  | 'join-field.no-label'
  | 'join-field.same-options'
  | 'join-field.too-few-options'
  | 'join-field.too-many-options'
  | 'key.no-notch'
  | 'key.too-many-notches'
  | 'length.too-long'
  | 'link.unsafe'
  | 'list.at-least'
  | 'list.at-most'
  | 'member-line.date'
  | 'member-line.email'
  | 'member-line.ends-first'
  | 'member-line.group'
  | 'member-line.no-email'
  | 'member-line.tier'
  | 'member-line.yes-no'
  | 'name.address'
  | 'name.full-stop'
  | 'name.one-line'
  | 'offer.after-endless'
  | 'offer.last-day'
  | 'offer.minor-units'
  | 'offer.no-step'
  | 'offer.not-renewable'
  | 'offer.step-over'
  | 'offer.too-many-steps'
  | 'offer.trial-alone'
  | 'number.at-least'
  | 'number.at-most'
  | 'number.whole'
  | 'prose.no-sections'
  | 'rule.covers-nothing'
  | 'statement.line-amount'
  | 'statement.line-date'
  | 'statement.no-columns'
  | 'tax.rate'
  | 'text.too-long'
  | 'text.too-short'
  | 'value.invalid';

/** The code of a schema's message: schemas say what is wrong in the same way as everything else. */
export const say = <Code extends CoreCode>(code: Code): Code => code;

/** What of an issue of a schema says what is wrong. */
type Issue = {
  path: PropertyKey[];
  message: string;
  code?: string;
  origin?: string;
  expected?: string;
  minimum?: number | bigint;
  maximum?: number | bigint;
  /** The values of what a schema of ours says. */
  params?: Record<string, unknown>;
};

/** Whether a schema has said a code; else the message is the library's own. */
const isCode = (message: string): boolean => /^[a-z-]+\.[a-z-]+$/.test(message);

/** What is said of an issue for which its schema has no words of its own. */
function plainCode({ code, origin, expected }: Issue): CoreCode {
  const what = origin === 'string' ? 'text' : origin === 'array' || origin === 'set' ? 'list' : 'number';
  if (code === 'too_big') return what === 'text' ? 'text.too-long' : `${what}.at-most`;
  if (code === 'too_small') return what === 'text' ? 'text.too-short' : `${what}.at-least`;
  return expected === 'int' ? 'number.whole' : 'value.invalid';
}

/** The first problem of each field that a schema found, by the field's dotted path. */
export function problemsOf<Code extends string = CoreCode>({
  issues,
}: {
  issues: Issue[];
}): ProblemsOf<Code | CoreCode> {
  const problems: ProblemsOf<Code | CoreCode> = {};
  for (const issue of issues) {
    const { path, message, minimum, maximum, params } = issue;
    const values = {
      ...(minimum !== undefined && { least: Number(minimum) }),
      ...(maximum !== undefined && { most: Number(maximum) }),
      ...(params as Problem['values']),
    };
    const code = isCode(message) ? (message as Code) : plainCode(issue);
    problems[path.map(String).join('.')] ??= Object.keys(values).length > 0 ? { code, values } : { code };
  }
  return problems;
}
