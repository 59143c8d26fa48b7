import type { z } from 'zod';
import { judgeRule, type Question } from './decide';
import { bestOf } from './openers';
import type { Rule } from './rule';
import type { doorstepSchema, meetingSchema } from './doorstep-schema';

export type Meeting = z.infer<typeof meetingSchema>;
export type Doorstep = z.infer<typeof doorstepSchema>;

/** The merge fields of a notice, as an owner types them between braces. */
export const NOTICE_FIELDS = ['first name', 'item', 'summary', 'tiers', 'price', 'join', 'sign in'] as const;
export type NoticeField = (typeof NOTICE_FIELDS)[number];

export type NoticePart = string | { label: string; href: string };

/** A notice as texts and links, its fields filled in. What is typed inside a value is never read as a field again. */
export function noticeParts(words: string, values: Record<NoticeField, NoticePart>): NoticePart[] {
  const parts = bracedIn(words).map((part): NoticePart => {
    const name = fieldIn(part);
    return name ? values[name] : part;
  });
  return parts.reduce<NoticePart[]>((joined, part) => {
    const last = joined.at(-1);
    if (typeof part === 'string' && typeof last === 'string') return [...joined.slice(0, -1), last + part];
    return part === '' ? joined : [...joined, part];
  }, []);
}

/** Whether a notice has a field. */
export const hasField = (words: string, field: NoticeField): boolean =>
  bracedIn(words).some((part) => fieldIn(part) === field);

const bracedIn = (words: string): string[] => words.split(/(\{[^{}\n]*\})/);

function fieldIn(braced: string): NoticeField | null {
  if (!braced.startsWith('{')) return null;
  const name = braced.slice(1, -1).trim().toLowerCase().replace(/\s+/g, ' ');
  return NOTICE_FIELDS.find((field) => field === name) ?? null;
}

/**
 * Whose doorstep speaks of the rules that a decision names: one of the deciding layer, unless that is open and only a rule
 * that must be open as well is not; of several, the first by id. Null where none of them has a doorstep.
 */
export function speakingRule<R extends Rule>(question: Question, rules: R[]): R | null {
  const deciding = rules.filter(({ alsoRequire }) => !alsoRequire);
  const isOpen = bestOf(deciding.map((rule) => judgeRule(rule, question))).state === 'open';
  const first = (of: R[]): R | undefined =>
    of.filter(({ doorstep }) => doorstep).sort((one, other) => (one.id < other.id ? -1 : 1))[0];
  const others = rules.filter(({ alsoRequire }) => alsoRequire);
  return (isOpen ? (first(others) ?? first(deciding)) : (first(deciding) ?? first(others))) ?? null;
}
