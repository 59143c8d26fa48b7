import type { Problem, ProblemsOf, Value } from '@/core/problem';
import type { en, members } from './en';
import type { deskProblems } from './en/desk-problems';
import type { problems } from './en/problems';
import type { Formats } from './formats';
import type { Language } from './languages';
import { fill, type NamesIn } from './message';

/** A sentence that members can read; owners can reword it. */
export type MemberKey = keyof typeof members;
export type Key = keyof typeof en;
export type ProblemCode = keyof typeof problems | keyof typeof deskProblems;
export type Problems = ProblemsOf<ProblemCode>;

/** What becomes of a value in a sentence. */
type Filled = string | number;
/** The values that a sentence asks for; none, and there is nothing to pass. */
export type Values<K extends Key> =
  NamesIn<(typeof en)[K]> extends never ? [] : [values: Record<NamesIn<(typeof en)[K]>, Filled>];

/** How a site speaks to those who read it: its sentences, its money and its dates. */
export type Words = Formats & {
  /** The sentence of a key, with its values. */
  <K extends Key>(key: K, ...values: Values<K>): string;
  /** The sentence of a problem. */
  problem(found: Problem<ProblemCode>): string;
  /** The sentences of problems, by field; what a form shows. */
  problems(all: Problems): Record<string, string>;
};

/** Words from messages, wherever those come from; `undefined` where there is no message of a key. */
export function speak(
  formats: Formats,
  locale: Language,
  messageOf: (key: string) => string | undefined,
): Words {
  const say = (key: string, values: Record<string, Filled> = {}): string =>
    fill(messageOf(key) ?? '', locale, values);
  const written = (value: Value): Filled => {
    if (typeof value === 'string' || typeof value === 'number') return value;
    if ('currency' in value) return formats.money(value.amount, value.currency);
    if ('code' in value) return problem(value);
    return formats.list(value);
  };
  const problem = ({ code, values = {} }: Problem<string>): string =>
    say(code, Object.fromEntries(Object.entries(values).map(([name, value]) => [name, written(value)])));
  const problemsOf = (all: Problems): Record<string, string> =>
    Object.fromEntries(Object.entries(all).map(([field, one]) => [field, problem(one)]));
  return Object.assign(say as Words, { ...formats, problem, problems: problemsOf });
}
