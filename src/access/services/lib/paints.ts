import { createHash } from 'node:crypto';
import { z } from 'zod';
import { paintRules, type Paint, type RuleChange } from '@/core/access/paint';
import { coverSchema } from '@/core/access/rule-schema';
import { refKey, type Cover, type Rule, type Who } from '@/core/access/rule';
import { slugify } from '@/core/content/slug';
import { readViewpoint, type ViewpointWho } from '@/core/access/viewpoint';
import type { StoredRule } from '@/access/store/rules';
import { freeId } from '@/platform/free-id';
import type { Actor } from '@/platform/actor';
import { keptOffers, keptTiers } from '@/tiers/services/lib/kept';
import { factsOfTargets } from './map-rows';
import type { Reader } from './reader';
import { namesIn } from './rule-names';

/** Cells of the map that were painted, each with the column's viewpoint; the last of a cell counts. */
export const paintsSchema = z
  .array(
    z.object({
      target: coverSchema,
      as: z.string().max(200),
      to: z.enum(['open', 'closed', 'inherit']),
    }),
  )
  .max(500);
export type PaintInput = z.output<typeof paintsSchema>[number];

/** Rules have their names, and the Desk its own pages, at these addresses. */
export const NOT_RULES = ['new', 'doorsteps', 'meters', 'check'];

export type Painted = {
  after: (StoredRule | Rule)[];
  changes: RuleChange<StoredRule>[];
  paints: (Paint & { as: string })[];
  names: Record<string, string>;
};

/** The rules as they are after cells were painted. What is gone by now is left out. */
export async function painted(actor: Actor, reader: Reader, input: PaintInput[]): Promise<Painted> {
  const facts = await factsOfTargets(
    input.map(({ target }) => target),
    reader.now,
  );
  const offers = await keptOffers();
  const tiers = (await keptTiers()).map(({ id }) => ({
    id,
    paid: offers.some(({ tierId, isPaid }) => tierId === id && isPaid),
  }));
  const paints = input.flatMap(({ target, as, to }) => {
    const [found, viewpoint] = [facts.get(refKey(target)), readViewpoint(as)];
    return found && viewpoint ? [{ target, facts: found, who: whoOf(viewpoint.who), to, as }] : [];
  });
  const names = await namesIn(actor, [
    ...reader.rules,
    { covers: paints.map(({ target }) => target), openTo: [] },
  ]);
  const newId = (target: Cover, taken: Set<string>): string =>
    freeId(slugify(nameFor(target, names)), new Set([...NOT_RULES, ...taken]));
  const context = { default: reader.site.accessDefault, tiers, newId };
  return { ...paintRules(reader.rules, paints, context), paints, names };
}

const whoOf = (who: ViewpointWho): Who => (who.kind === 'visitor' ? { kind: 'everyone' } : who);

/** What a rule is called that was painted. */
export const nameFor = (target: Cover, names: Record<string, string>): string =>
  names[refKey(target.kind === 'under' ? { kind: 'item', id: target.id } : target)] ?? refKey(target);

/** Tells whether the rules are as they were when a draft was looked at. */
export const stampOf = ({ rules, site }: Reader): string =>
  createHash('sha256')
    .update(JSON.stringify([site.accessDefault, rules.map(({ id, version }) => [id, version])]))
    .digest('base64url')
    .slice(0, 22);
