import { z } from 'zod';
import { isSafeHref } from '../addresses';
import { isLocalDate } from '../calendar';

/** What the owner asks for at joining. The name is one of the fields, so that it has a place in their order. */
export const joinFieldSchema = z
  .object({
    id: z.string().regex(/^[a-z0-9-]{1,40}$/),
    kind: z.enum(['name', 'text', 'choice', 'tick', 'date', 'terms']),
    label: z.string().trim().min(1, 'Say what is asked for.').max(120, 'At most 120 characters.'),
    hint: z.string().trim().max(200, 'At most 200 characters.').default(''),
    /** What can be chosen, for a choice. */
    options: z.array(z.string().trim().min(1).max(80)).max(40, 'At most 40 to choose from.').default([]),
    /** Where terms can be read. */
    path: z
      .string()
      .trim()
      .max(200)
      .refine((path) => path === '' || isSafeHref(path), 'An address begins with / or https://.')
      .default(''),
    isRequired: z.boolean().default(false),
    isOn: z.boolean().default(true),
    /** Empty: asked for by every tier. */
    tierIds: z.array(z.string()).default([]),
  })
  .superRefine((field, context) => {
    if (field.kind !== 'choice') return;
    if (field.options.length < 2)
      context.addIssue({
        code: 'custom',
        path: ['options'],
        message: 'A choice needs at least two to choose from.',
      });
    if (new Set(field.options).size < field.options.length)
      context.addIssue({ code: 'custom', path: ['options'], message: 'Two of these are the same.' });
  });

export type JoinField = z.infer<typeof joinFieldSchema>;
export type JoinAnswer = { fieldId: string; label: string; value: string };

/** The fields that joining a tier asks for, in order. */
export function fieldsOfTier(fields: JoinField[], tierId: string): JoinField[] {
  return fields.filter(
    (field) => field.isOn && (field.tierIds.length === 0 || field.tierIds.includes(tierId)),
  );
}

/** Problems of answers, by field id. */
export type AnswerProblems = Record<string, string>;

/**
 * What somebody answered, checked against the fields: only what was asked for, in the fields' order. A tick and
 * terms answer "yes". The name is the form's own and is left out here.
 */
export function readAnswers(
  fields: JoinField[],
  given: Record<string, string>,
): { ok: true; answers: JoinAnswer[] } | { ok: false; problems: AnswerProblems } {
  const problems: AnswerProblems = {};
  const answers: JoinAnswer[] = [];
  for (const field of fields) {
    if (field.kind === 'name') continue;
    const isTick = field.kind === 'tick' || field.kind === 'terms';
    const value = (given[field.id] ?? '').trim();
    const problem = value === '' || (isTick && value !== 'yes') ? missing(field) : wrong(field, value);
    if (problem) problems[field.id] = problem;
    else if (value !== '') answers.push({ fieldId: field.id, label: field.label, value });
  }
  return Object.keys(problems).length > 0 ? { ok: false, problems } : { ok: true, answers };
}

function missing({ kind, isRequired }: JoinField): string | null {
  if (kind === 'terms') return 'Joining needs your agreement to this.';
  if (!isRequired) return null;
  if (kind === 'choice') return 'Choose one.';
  if (kind === 'tick') return 'Joining needs this tick.';
  return kind === 'date' ? 'Choose a date.' : 'This is needed.';
}

function wrong({ kind, options }: JoinField, value: string): string | null {
  if (kind === 'choice' && !options.includes(value)) return 'Choose one of these.';
  if (kind === 'date' && !isLocalDate(value)) return 'That date does not exist.';
  return value.length > 500 ? 'At most 500 characters.' : null;
}
