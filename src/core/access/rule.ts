import type { z } from 'zod';
import type { Instant } from '../instants';
import type { coverSchema, edgeSchema, openerSchema, ruleSchema, whoSchema } from './rule-schema';

/** A cover or a who as one text, whatever the order of its keys; for telling two apart. */
export function refKey(ref: { kind: string; id?: string; pattern?: string }): string {
  return [ref.kind, ref.id ?? ref.pattern ?? ''].join(':');
}

export type Cover = z.infer<typeof coverSchema>;
export type Who = z.infer<typeof whoSchema>;
export type Edge = z.infer<typeof edgeSchema>;
export type Opener = z.infer<typeof openerSchema>;
/** A place that a page has among its published siblings, the first is 1. `until`: when it got another; null: it has it now. */
export type Placed = { parent: string; place: number; until: Instant | null };
/** The places of the pages below the parents that a series covers, by their ids. */
export type Places = Record<string, Placed[]>;

/** `places`: where pages are in the series that it makes; what has none there is closed. */
export type Rule = z.infer<typeof ruleSchema> & { places?: Places };

/** When a rule opens or closes something, for all of its openers. */
export const edgesOf = ({ openTo }: Pick<Rule, 'openTo'>): Edge[] =>
  openTo.flatMap(({ opens, closes }) => [opens, closes].flatMap((edge) => edge ?? []));

/** Whether a rule opens something to a pass, or counts from when it was got. */
export const namesPass = (rule: Rule, id: string): boolean =>
  rule.openTo.some(({ who }) => who.kind === 'pass' && who.id === id) ||
  edgesOf(rule).some((edge) => 'of' in edge && edge.of?.kind === 'pass' && edge.of.id === id);
