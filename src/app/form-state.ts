import 'server-only';
import type { FormState } from '@/kit/action-form';
import { currentWords } from '@/app/session';
import type { ProblemCode } from '@/words/problems';
import type { Words } from '@/words/words';
import type { Conflict } from '@/kit/conflict';
import type { Refusal, Result } from '@/platform/result';
import { UnreadableForm } from '@/platform/request';

export type { FormState };

/** Nothing was done, because of one field. */
export const formProblem = async (field: string, code: ProblemCode): Promise<FormState> => ({
  problems: (await currentWords()).problems({ [field]: { code } }),
});

const CONFLICTS: ProblemCode[] = ['item.saved-elsewhere', 'record.saved-elsewhere', 'rule.changed-elsewhere'];
const isConflict = ({ problems }: Refusal): boolean =>
  CONFLICTS.includes(problems['']?.code ?? 'form.unknown');

/** The parts in which two versions differ; null where there is nothing to compare with. */
export const differences = (version: number | undefined, rows: Conflict['rows']): Conflict | null =>
  version === undefined
    ? null
    : { version, rows: rows.filter((row) => row.theirs.trim() !== row.yours.trim()) };

/** The version that a form replaces: the one it was opened with, or the one that its sender has seen since. */
export const versionOf = (form: FormData): string => text(form, 'over') || text(form, 'version');

/**
 * Calls a use case for a form. What the person may do something about comes back beside the field; where someone else
 * saved in the meantime, `compare` says in what the two versions differ.
 */
export async function forForm<T>(
  answer: Promise<Result<T>>,
  then: (value: T, t: Words) => FormState | Promise<FormState>,
  compare?: () => Promise<Conflict | null>,
): Promise<FormState> {
  const result = await answer;
  const t = await currentWords();
  if (result.ok) return then(result.value, t);
  const conflict = compare && isConflict(result) ? await compare() : null;
  if (conflict) return { problems: {}, conflict };
  return { problems: t.problems(result.problems), ...(result.code === 'sign-in' && { isSignedOut: true }) };
}

/** For a form that a device answers first: what it is asked, or why it is not. */
export async function withAsked<T>(answer: Promise<Result<T>>): Promise<FormState & { asked?: T }> {
  let asked: T | undefined;
  const state = await forForm(answer, (value) => {
    asked = value;
    return { problems: {} };
  });
  return { ...state, asked };
}

/** What an action was sent, which need not be what our pages send. @throws UnreadableForm where it is no form */
function checked(form: FormData): FormData {
  if (!(form instanceof FormData)) throw new UnreadableForm('An action was sent something else than a form.');
  return form;
}

export const text = (form: FormData, name: string): string => {
  const value = checked(form).get(name);
  return typeof value === 'string' ? value : '';
};

/** All the values of a field that may come several times. */
export const texts = (form: FormData, name: string): string[] => checked(form).getAll(name).map(String);

/** The text of a field, or nothing where the form has none of that name: then it is to stay as it was. */
export const given = (form: FormData, name: string): string | undefined =>
  checked(form).has(name) ? text(form, name) : undefined;

/** Whether a box is ticked, or nothing where the form has none of that name: then it is to stay as it was. */
export const ticked = (form: FormData, name: string): boolean | undefined =>
  checked(form).has(`has:${name}`) ? form.has(name) : undefined;

/**
 * The text fields whose names begin with a prefix, without it. Read in one pass: asking a form for one field at a time goes
 * through all of it each time.
 */
export function fieldsUnder(form: FormData, prefix: string): Record<string, string> {
  const found: Record<string, string> = {};
  for (const [name, value] of checked(form))
    if (name.startsWith(prefix) && typeof value === 'string') found[name.slice(prefix.length)] = value;
  return found;
}

/** What an editor sent beside its form, by name; empty where it sent no such thing. The use case parses each part. */
export const draftsOf = (drafts: unknown): Record<string, unknown> =>
  typeof drafts === 'object' && drafts !== null && !Array.isArray(drafts) ? { ...drafts } : {};
