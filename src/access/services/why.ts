import { z } from 'zod';
import { explain, type Explanation } from '@/core/access/explain';
import type { Cover } from '@/core/access/rule';
import type { Decision } from '@/core/access/decide';
import { FILE } from '@/core/content/item';
import type { Instant, LocalDate } from '@/core/instants';
import { findItem } from '@/content/store/items';
import { optionalDate } from '@/platform/form-fields';
import { slug } from '@/platform/inputs';
import { done, missing, type Result } from '@/platform/result';
import { currentSite } from '@/platform/site';
import { pool } from '@/platform/store/db';
import { staffUse } from '@/platform/use';
import { titleOf } from './lib/access-map';
import { joinableTiers, openingTiers, type OpeningTier } from './lib/opening-tiers';
import { doorstepRuleOf, isLetIn, isOut, judge, questionOf, readerFor } from './lib/reader';
import { namesIn, type Names } from './lib/rule-names';
import { findViewpoint } from './lib/viewpoints';

/** Why someone may see an item, or not, with all that is needed to say it in words. */
export type Why = {
  item: { id: string; title: string; path: string };
  /** Not published then: only staff see it, whatever the rules say. */
  isDraft: boolean;
  /** As an address has it, without the day. */
  viewpoint: string;
  viewpointName: string;
  on: LocalDate | null;
  at: Instant;
  explanation: Explanation;
  /** What is decided, where that is because of another item: a file opens with the items that offer it. */
  offered: Decision | null;
  /** The rules of the explanation by id, with what they cover. */
  rules: Record<string, { name: string; covers: Cover[] }>;
  names: Names;
  /** The rule whose doorstep they meet; null for the site's. Undefined where they are let in. */
  doorstep: { id: string; name: string } | null | undefined;
  /** The tiers that would open it, the cheapest first. */
  opening: OpeningTier[];
};

const whySchema = z.object({
  item: slug,
  /** A viewpoint, without its day. */
  as: z.string().max(200),
  on: optionalDate,
});

/** Explains what is decided about an item from a viewpoint, now or on a day. */
export const why = staffUse('look')(
  'why',
  whySchema,
  async (_, { item: id, as, on }): Promise<Result<Why>> => {
    const site = await currentSite();
    const [item, seen] = [await findItem(pool(), id), await findViewpoint(site, on ? `${as}@${on}` : as)];
    if (!item || !seen) return missing();
    const reader = { ...(await readerFor(seen.person)), now: seen.at };
    const question = { ...questionOf(reader, item), rules: reader.rules };
    const explanation = explain(question);
    const judged = (await judge(reader, [item]))(item.id);
    const isOffered = item.type === FILE && judged.state !== explanation.decision.state;
    const rules = reader.rules.filter(({ id: rule }) => rulesIn(explanation).has(rule));
    return done({
      item: { id: item.id, title: item.title, path: item.path },
      isDraft: !isOut(reader, item),
      viewpoint: seen.id,
      viewpointName: titleOf(seen),
      on: seen.on,
      at: seen.at,
      explanation,
      offered: isOffered ? judged : null,
      rules: Object.fromEntries(rules.map((rule) => [rule.id, { name: rule.name, covers: rule.covers }])),
      names: await namesIn(rules),
      doorstep: isLetIn(judged) ? undefined : named(doorstepRuleOf(reader, judged.rules)),
      opening: isLetIn(judged) ? [] : cheapestFirst(openingTiers(question, await joinableTiers(reader))),
    });
  },
);

const named = (rule: { id: string; name: string } | null) => rule && { id: rule.id, name: rule.name };

const rulesIn = ({ deciding, notReached, excepted, required }: Explanation): Set<string> =>
  new Set([...[...deciding, ...notReached, ...required].map(({ rule }) => rule), ...excepted]);

const priceOf = ({ offers }: OpeningTier): number =>
  Math.min(...offers.map(({ definition }) => Math.max(...definition.steps.map(({ amount }) => amount))));
const cheapestFirst = (tiers: OpeningTier[]): OpeningTier[] =>
  [...tiers].sort((one, other) => priceOf(one) - priceOf(other));
