import type { Question } from '@/core/access/decide';
import { passesThatWouldOpen } from '@/core/access/would-open';
import { keptPasses } from '@/tiers/services/lib/kept';

/** A pass to be had at a doorstep, and the ways to get it. */
export type OpeningPass = { id: string; name: string; hasPassword: boolean; byAddress: boolean };

/** The passes to be had that would open what is asked about to someone who does not hold them. */
export async function openingPasses(question: Question): Promise<OpeningPass[]> {
  const held = new Set(question.person.passes.map(({ pass }) => pass));
  const offered = (await keptPasses()).filter(
    ({ id, hasPassword, byAddress }) => (hasPassword || byAddress) && !held.has(id),
  );
  if (offered.length === 0) return [];
  const opening = passesThatWouldOpen(
    question,
    offered.map(({ id }) => id),
  );
  return offered
    .filter(({ id }) => opening.includes(id))
    .map(({ id, name, hasPassword, byAddress }) => ({ id, name, hasPassword, byAddress }));
}
