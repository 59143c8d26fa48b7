import type { PersonFacts } from './facts';
import { edgesOf, type Rule } from './rule';

/**
 * Whether what a rule says to a member may depend on who they are, or on when they joined or got something, and not only on
 * what they hold.
 */
export const isPersonal = (
  { openTo, each }: Pick<Rule, 'openTo' | 'each'>,
  { id }: Pick<PersonFacts, 'id'>,
): boolean =>
  each !== undefined ||
  openTo.some(({ who }) => who.kind === 'member' && who.id === id) ||
  edgesOf({ openTo }).some((edge) => 'since' in edge && edge.since !== 'published');

/**
 * A name for all members to whom rules say the same at the same moment, because they hold the same; null for staff, and
 * where a rule is personal.
 */
export function alikeName(person: PersonFacts, rules: Rule[]): string | null {
  if (!person.signedIn || person.staff !== undefined) return null;
  if (rules.some((rule) => rule.on !== false && isPersonal(rule, person))) return null;
  return JSON.stringify([
    person.tiers.map(({ tier, paid }) => `${paid ? 'paid' : 'free'} ${tier}`).sort(),
    person.passes.map(({ pass }) => pass).sort(),
    [...person.groups].sort(),
  ]);
}
