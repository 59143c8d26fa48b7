import { isPersonal } from '@/core/access/alike';
import { bestDecision } from '@/core/access/best';
import { decide, type Decision, type Question } from '@/core/access/decide';
import { asHolder, type WeekTimes } from '@/core/access/open-week';
import type { ItemFacts, Meter, PersonFacts, Read } from '@/core/access/facts';
import { FILE, itemState } from '@/core/content/item';
import { filesIn, type Prose } from '@/core/content/prose';
import { hasEdges, isSectionOpen, openParts } from '@/core/content/sections';
import type { Instant } from '@/core/instants';
import type { ItemId } from '@/core/ids';
import { itemsOffering } from '@/content/store/files';
import { listByIds, type Item, type ItemHead } from '@/content/store/items';
import type { Actor } from '@/platform/actor';
import { siteNow } from '@/platform/clock';
import { currentSite } from '@/platform/site';
import { shareNot } from '@/platform/request';
import { pool } from '@/platform/store/db';
import type { Site } from '@/platform/store/site';
import { keptRules, type KeptRules } from './kept-rules';
import { openWeekOf } from './open-week';
import { viewerOf } from './viewer';

/**
 * All that decisions about items need to know of one person at one moment. `free`: the meters, with what they counted of the
 * person; they let in to the items named alone, or with null to any.
 */
export type Reader = KeptRules & {
  site: Site;
  now: Instant;
  person: PersonFacts;
  week: WeekTimes | null;
  free?: { meters: Record<string, Meter>; reads: Read[]; items: ReadonlySet<string> | null };
};

export async function readerFor(person: PersonFacts): Promise<Reader> {
  const site = await currentSite();
  return { site, now: siteNow(site), week: await openWeekOf(site), ...(await keptRules()), person };
}

export async function readerOf(actor: Actor): Promise<Reader> {
  const { person, at } = await viewerOf(actor);
  const reader = await readerFor(person);
  return at ? { ...reader, now: at } : reader;
}

/** What is asked about an item, with the rules that may cover it. */
export const questionOf = (
  { site, now, covering, person, week, free }: Reader,
  item: ItemFacts,
): Question => ({
  now,
  zone: site.zone,
  default: site.accessDefault,
  rules: covering(item),
  item,
  person: week ? asHolder(person, week, now) : person,
  ...(free && (free.items?.has(item.id) ?? true) && { meters: free.meters, reads: free.reads }),
});

export const isLetIn = ({ state }: Decision): boolean => state === 'open' || state === 'metered';

/** Whether an item is out, by the site's clock. */
export const isOut = ({ now }: Reader, item: ItemHead): boolean => itemState(item, now) === 'published';

/** What of an item's text a person who is let in may read. */
export const openBody = (reader: Reader, item: Item): Prose =>
  // A section may name any rule, whatever that covers.
  openParts(item.body, (gate) => {
    // When a section opens by its own lines, and to which member, is not known without its text.
    if (hasEdges(gate) || (reader.person.signedIn && isPersonal(gate, reader.person))) shareNot();
    return isSectionOpen(gate, { ...questionOf(reader, item), rules: reader.rules });
  });

/** What is decided about an item that was asked about. @throws for any other */
export type Judged = (id: ItemId) => Decision;

/**
 * What is decided about each item, by its id. A file that no rule covers is as open as the most open of the items and
 * sections that offer it.
 */
export async function judge(reader: Reader, items: ItemHead[]): Promise<Judged> {
  const decisions = new Map(items.map((item) => [item.id, decide(questionOf(reader, item))]));
  const uncovered = items.filter(({ id, type }) => type === FILE && decisions.get(id)?.by === 'default');
  const judged: Judged = (id) => {
    const decision = decisions.get(id);
    if (!decision) throw new Error(`nothing was decided about ${id}`);
    return decision;
  };
  if (uncovered.length === 0) return judged;
  const uses = await itemsOffering(
    pool(),
    uncovered.map(({ id }) => id),
  );
  const offering = await listByIds(pool(), [...new Set(uses.map(({ itemId }) => itemId))]);
  for (const { id } of uncovered) {
    const used = uses.filter(({ fileItemId }) => fileItemId === id).map(({ itemId }) => itemId);
    const by = offering.filter((item) => used.includes(item.id) && isOut(reader, item));
    const best = bestDecision(by.map((item) => decisionWithin(reader, item, id)));
    if (best) decisions.set(id, best);
  }
  return judged;
}

/** What is decided about a file because an item offers it: closed where the part that offers it is. */
function decisionWithin(reader: Reader, item: Item, fileId: ItemId): Decision {
  const decision = decide(questionOf(reader, item));
  if (!isLetIn(decision) || filesIn(openBody(reader, item)).includes(fileId)) return decision;
  return { state: 'closed', by: 'rule', rules: decision.rules };
}
