import { z } from 'zod';
import type { Decision } from '@/core/access/decide';
import { isOn } from '@/core/access/open-week';
import { normalisePath } from '@/core/access/paths';
import { readViewpoint, writeWho } from '@/core/access/viewpoint';
import { explain, type Explanation } from '@/core/access/explain';
import { FILE } from '@/core/content/item';
import { isBefore } from '@/core/instants';
import { listOrdersOf } from '@/billing/store/outside-orders';
import { keptPasses, keptTiers } from '@/tiers/services/lib/kept';
import { findItem, findItemByPath, type ItemHead } from '@/content/store/items';
import { optionalDate } from '@/platform/form-fields';
import { slug } from '@/platform/inputs';
import { done, missing, type Result } from '@/platform/result';
import { currentSite } from '@/platform/site';
import { pool } from '@/platform/store/db';
import { staffUse } from '@/platform/use';
import { isKnown } from './lib/desk-items';
import { titleOf } from './lib/access-map';
import { joinableTiers, openingTiers, type OpeningTier } from './lib/opening-tiers';
import { askerAt, doorstepAt } from './lib/doorstep-at';
import { withAllReads } from './lib/free-reads';
import { isLetIn, isOut, judge, questionOf, readerFor, type Reader } from './lib/reader';
import { namesIn } from './lib/rule-names';
import { viewpointFor } from './lib/viewpoints';

const whySchema = z.object({
  item: slug,
  /** A viewpoint, without its day. */
  as: z.string().max(200),
  on: optionalDate,
});

/** Explains what is decided about an item from a viewpoint, now or on a day. */
export const why = staffUse('look')('why', whySchema, async (actor, { item: id, as, on }) => {
  const site = await currentSite();
  const [item, seen] = [await findItem(pool(), id), await viewpointFor(actor, site, on ? `${as}@${on}` : as)];
  if (!item || !seen || !(await isKnown(actor, item))) return missing();
  const reader = await withAllReads({ ...(await readerFor(seen.person)), now: seen.at });
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
    names: await namesIn(actor, rules),
    doorstep: isLetIn(judged) ? undefined : await doorstepFor(reader, item, judged),
    openWeek:
      reader.week && isOn(reader.week, reader.now) ? { tier: reader.week.tier, to: reader.week.to } : null,
    orders: seen.who.kind === 'member' ? await ordersHeld(reader, seen.who.id) : [],
    opening: isLetIn(judged) ? [] : cheapestFirst(openingTiers(question, await joinableTiers(reader))),
  });
});

/** What a member holds then because another program said so, by the number of its order. */
async function ordersHeld({ site, now }: Reader, memberId: string) {
  const names = new Map([...(await keptTiers()), ...(await keptPasses())].map(({ id, name }) => [id, name]));
  return (await listOrdersOf(pool(), site.mode, memberId))
    .filter(({ since, until }) => !isBefore(now, since) && (until === null || isBefore(now, until)))
    .map(({ number, item, until }) => ({ number, name: names.get(item) ?? item, until }));
}

/** Whose doorstep is met, and as whom. */
async function doorstepFor(reader: Reader, item: ItemHead, decision: Decision) {
  const [met, asker] = [await doorstepAt(reader, item, decision), await askerAt(reader, item, decision)];
  return { by: met.by, name: met.by === 'rule' ? met.rule.name : '', asker };
}

const rulesIn = ({ deciding, notReached, excepted, required }: Explanation): Set<string> =>
  new Set([...[...deciding, ...notReached, ...required].map(({ rule }) => rule), ...excepted]);

const priceOf = ({ offers }: OpeningTier): number =>
  Math.min(...offers.map(({ definition }) => Math.max(...definition.steps.map(({ amount }) => amount))));
const cheapestFirst = (tiers: OpeningTier[]): OpeningTier[] =>
  [...tiers].sort((one, other) => priceOf(one) - priceOf(other));

/** What Why is asked on a page of the site: its item, as whom it is looked at, and on which day; without an item, the map. */
export const askedHere = staffUse('look')(
  'asked-here',
  z.string().max(2_000),
  async (actor, path): Promise<Result<Record<string, string>>> => {
    const seen = readViewpoint(actor.look ?? '');
    const item = await findItemByPath(pool(), normalisePath(path) ?? path);
    if (!seen || !item || !(await isKnown(actor, item))) return done({});
    const as = writeWho(seen.who);
    return done({
      why: item.id,
      as,
      ...(seen.on && { on: seen.on }),
      // One member has no column of the map but what is asked for.
      ...(seen.who.kind === 'member' && { also: as }),
    });
  },
);
