import { IntlMessageFormat } from 'intl-messageformat';
import type { Refusal } from '@/core/billing/work';
import { formatMoney } from '@/core/money';
import type { CoreCode, Problem, ProblemsOf, Value } from '@/core/problem';
import { problems as en } from './en/problems';

export type ProblemCode = keyof typeof en;
export type Problems = ProblemsOf<ProblemCode>;

/** Fails to compile where the core finds something wrong for which there is no sentence. */
const SENTENCES: Record<ProblemCode | CoreCode | `refusal.${Refusal}`, string> = en;

/** The names in an ICU message. Branches of a plural have more than one word, so that none is taken for a name. */
type NamesIn<Message extends string> = Message extends `${string}{${infer Name}}${infer Rest}`
  ? | (Name extends `${infer First},${string}` ? First : Name extends `${string} ${string}` ? never : Name)
    | NamesIn<Rest>
  : never;
/** The values that the sentence of a code names; none, and there is nothing to pass. */
export type ValuesOf<Code extends ProblemCode> =
  NamesIn<(typeof en)[Code]> extends never ? [] : [values: Record<NamesIn<(typeof en)[Code]>, Value>];

/** A problem, with the values that its sentence names. */
export const problem = <Code extends ProblemCode>(code: Code, ...[values]: ValuesOf<Code>): Problem<Code> =>
  values ? { code, values } : { code };

/** Codes whose sentence names nothing but the bound that an issue of a schema brings along. */
type SaidCode = {
  [Code in ProblemCode]: NamesIn<(typeof en)[Code]> extends 'least' | 'most' ? Code : never;
}[ProblemCode];
/** The code of a schema's message: schemas say what is wrong in the same way as everything else. */
export const say = (code: SaidCode): SaidCode => code;

/** The issue that a schema adds by hand, with the values that its sentence names. */
export const issueOf = <Code extends ProblemCode>(code: Code, ...[values]: ValuesOf<Code>) => ({
  code: 'custom' as const,
  message: code,
  params: values,
});

/** What a book refused, as a problem. */
export const refusal = (why: Refusal): Problem<ProblemCode> => ({ code: `refusal.${why}` });

export const isProblemCode = (text: string): text is ProblemCode => Object.hasOwn(SENTENCES, text);

const formats = new Map<string, IntlMessageFormat>();

/** The sentence of a problem, for a person to read. */
export function sentence({ code, values = {} }: Problem<ProblemCode>, locale = 'en-GB'): string {
  const key = `${locale} ${code}`;
  const format = formats.get(key) ?? new IntlMessageFormat(SENTENCES[code], locale);
  formats.set(key, format);
  const written = Object.entries(values).map(([name, value]) => [name, valueText(value, locale)] as const);
  try {
    return String(format.format(Object.fromEntries(written)));
  } catch {
    // A value is missing: what a person can do about it is in the words all the same.
    return SENTENCES[code].replace(/\{(\w+)[^{}]*\}/g, '…');
  }
}

function valueText(value: Value, locale: string): string | number {
  if (typeof value === 'string' || typeof value === 'number') return value;
  if ('currency' in value) return formatMoney(value.amount, value.currency);
  if ('code' in value)
    return isProblemCode(value.code) ? sentence({ ...value, code: value.code }, locale) : '';
  return new Intl.ListFormat(locale).format(value);
}

/** The sentences of problems, by field; what a form shows. */
export const sentencesOf = (problems: Problems): Record<string, string> =>
  Object.fromEntries(Object.entries(problems).map(([field, one]) => [field, sentence(one)]));

/** The first sentence, where there is room for one only. */
export const firstSentence = (problems: Problems): string => Object.values(sentencesOf(problems))[0] ?? '';
