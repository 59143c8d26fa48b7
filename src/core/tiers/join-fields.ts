import { z } from 'zod';
import { isSafeHref } from '../addresses';
import { isLocalDate } from '../instants';
import { say, type CoreCode, type Problem, type ProblemsOf } from '../problem';
import type { TierId } from '../ids';

/** What the owner asks for at joining. The name is one of the fields, so that it has a place in their order. */
export const joinFieldSchema = z
  .object({
    id: z.string().regex(/^[a-z0-9-]{1,40}$/),
    kind: z.enum(['name', 'text', 'choice', 'tick', 'date', 'terms']),
    label: z.string().trim().min(1, say('join-field.no-label')).max(120),
    hint: z.string().trim().max(200).default(''),
    /** What can be chosen, for a choice. */
    options: z
      .array(z.string().trim().min(1).max(80))
      .max(40, say('join-field.too-many-options'))
      .default([]),
    /** Where terms can be read. */
    path: z
      .string()
      .trim()
      .max(200)
      .refine((path) => path === '' || isSafeHref(path), say('join-field.address'))
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
        message: say('join-field.too-few-options'),
      });
    if (new Set(field.options).size < field.options.length)
      context.addIssue({ code: 'custom', path: ['options'], message: say('join-field.same-options') });
  });

export type JoinField = z.infer<typeof joinFieldSchema>;
export const joinAnswersSchema = z.array(
  z.object({ fieldId: z.string(), label: z.string(), value: z.string() }),
);
export type JoinAnswer = z.infer<typeof joinAnswersSchema>[number];

/** The fields that joining a tier asks for, in order. */
export function fieldsOfTier(fields: JoinField[], tierId: TierId): JoinField[] {
  return fields.filter(
    (field) => field.isOn && (field.tierIds.length === 0 || field.tierIds.includes(tierId)),
  );
}

/**
 * What a person answered, checked against the fields: only what was asked for, in the fields' order; problems by field id. A tick and
 * terms answer "yes". The name is the form's own and is left out here.
 */
export function readAnswers(
  fields: JoinField[],
  given: Record<string, string>,
): { ok: true; answers: JoinAnswer[] } | { ok: false; problems: ProblemsOf } {
  const problems: ProblemsOf = {};
  const answers: JoinAnswer[] = [];
  for (const field of fields) {
    if (field.kind === 'name') continue;
    const isTick = field.kind === 'tick' || field.kind === 'terms';
    const value = (given[field.id] ?? '').trim();
    const lacks = value === '' || (isTick && value !== 'yes') ? missing(field) : null;
    const problem = lacks ? { code: lacks } : value === '' ? null : wrong(field, value);
    if (problem) problems[field.id] = problem;
    else if (value !== '') answers.push({ fieldId: field.id, label: field.label, value });
  }
  return Object.keys(problems).length > 0 ? { ok: false, problems } : { ok: true, answers };
}

function missing({ kind, isRequired }: JoinField): CoreCode | null {
  if (kind === 'terms') return 'answer.not-agreed';
  if (!isRequired) return null;
  if (kind === 'choice') return 'answer.not-chosen';
  if (kind === 'tick') return 'answer.not-ticked';
  return kind === 'date' ? 'answer.date' : 'answer.missing';
}

function wrong({ kind, options }: JoinField, value: string): Problem | null {
  if (kind === 'choice' && !options.includes(value)) return { code: 'answer.none-of-these' };
  if (kind === 'date' && !isLocalDate(value)) return { code: 'date.unreal' };
  return value.length > 500 ? { code: 'text.too-long', values: { most: 500 } } : null;
}
