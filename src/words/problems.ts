import type { Refusal } from '@/core/billing/work';
import type { Problem, Value } from '@/core/problem';
import { en } from './en';
import type { NamesIn } from './message';
import type { ProblemCode, Problems } from './speak';

export type { ProblemCode, Problems };

export const isProblemCode = (text: string): text is ProblemCode => Object.hasOwn(en, text);

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
