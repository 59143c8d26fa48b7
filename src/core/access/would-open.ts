import { isBefore, type Length } from '../instants';
import { asOf, decide, type Question } from './decide';
import type { PersonFacts } from './facts';

/** A pass to be had at a doorstep, and the ways to get it. `products`: what it is sold as; amounts in minor units. */
export type OpeningPass = {
  id: string;
  name: string;
  hasPassword: boolean;
  byAddress: boolean;
  products: { id: string; name: string; lasts: Length | null; amount: number; currency: string }[];
};

/**
 * Which of the given passes would open the item for this person, were they to get one now: at once, or after a wait that
 * holding it begins.
 */
export function passesThatWouldOpen(question: Question, passes: string[]): string[] {
  const anyway = decide(asOf(question, question.person)).opensAt;
  return passes.filter((pass) => {
    const held = [...question.person.passes, { pass, since: question.now }];
    const { state, opensAt } = decide(asOf(question, { ...question.person, passes: held }));
    return state === 'open' || (opensAt !== undefined && (anyway === undefined || isBefore(opensAt, anyway)));
  });
}

export type WouldOpen = { tier: string; at: 'once' | 'later' };
export type TierCandidate = { tier: string; paid: boolean };

/**
 * Which of the given tiers would open the item for this person, were they to get one now. A tier that would
 * open it later counts too: holding it is what starts the wait.
 */
export function tiersThatWouldOpen(question: Question, candidates: TierCandidate[]): WouldOpen[] {
  // What opens to them by itself as soon is no reason to get a tier.
  const anyway = decide(asOf(question, question.person)).opensAt;
  return candidates.flatMap(({ tier, paid }): WouldOpen[] => {
    const held = { tier, paid, since: question.now };
    const person: PersonFacts = {
      ...question.person,
      signedIn: true,
      joinedAt: question.person.joinedAt ?? question.now,
      tiers: [...question.person.tiers.filter((other) => other.tier !== tier), held],
    };
    const { state, opensAt } = decide(asOf(question, person));
    if (state === 'open') return [{ tier, at: 'once' }];
    const isSooner = anyway === undefined || (opensAt !== undefined && isBefore(opensAt, anyway));
    return state === 'later' && isSooner ? [{ tier, at: 'later' }] : [];
  });
}
