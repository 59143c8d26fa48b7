import { setImmediate } from 'node:timers/promises';
import type { Decision } from '@/core/access/decide';
import { VISITOR } from '@/core/access/facts';
import { ruleLayer } from '@/core/access/layers';
import { keptPublished } from '@/content/services/lib/kept';
import { listPublished } from '@/content/store/item-lists';
import type { ItemHead } from '@/content/store/items';
import { pool } from '@/platform/store/db';
import { desk } from '@/words/desk';
import { listTiers, type Tier } from '@/tiers/store/tiers';
import type { StoredRule } from '@/access/store/rules';
import { listViewpoints, type SeenFrom } from './viewpoints';
import { withAllReads } from './free-reads';
import { isLetIn, judge, readerFor, type Judged, type Reader } from './reader';

export type Viewpoint = SeenFrom;
export type MapRow = { item: ItemHead; decisions: Decision[] };
export type Viewpoints = { reader: Reader; viewpoints: Viewpoint[]; tiers: Tier[] };
/** A visitor, a member without a tier, a new holder of each tier, each group and each pass; named as staff read them. */
export async function readViewpoints(): Promise<Viewpoints> {
  const [reader, tiers] = [await readerFor(VISITOR), await listTiers(pool())];
  const viewpoints = await listViewpoints(reader.now);
  return { reader, tiers, viewpoints: viewpoints.map((one) => ({ ...one, name: nameOf(one) })) };
}

/** Whom a viewpoint is, in words that begin a sentence. */
export function titleOf({ who, name }: SeenFrom): string {
  switch (who.kind) {
    case 'visitor':
      return desk('desk-access.a-visitor');
    case 'signed-in':
      return desk('desk-access.a-member-without-a-tier');
    case 'tier':
      return desk('desk-access.a-new-holder', { name });
    case 'group':
      return desk('desk-access.a-member-of', { name });
    case 'pass':
      return desk('desk-access.a-visitor-with', { name });
    case 'member':
      return name;
  }
}

/** What staff call a viewpoint at the head of a column. */
export const nameOf = ({ who, name }: SeenFrom): string =>
  who.kind === 'visitor'
    ? desk('desk-access.visitor')
    : who.kind === 'signed-in'
      ? desk('desk-access.signed-in')
      : name;

/** What is decided about items from each viewpoint. */
async function rowsOf({ reader, viewpoints }: Viewpoints, items: ItemHead[]): Promise<MapRow[]> {
  const seen: Judged[] = [];
  for (const { person } of viewpoints) seen.push(await judge({ ...reader, person }, items));
  return items.map((item) => ({ item, decisions: seen.map((decisions) => decisions(item.id)) }));
}

const AT_ONCE = 500;

/** How many published items turn a visitor away: worked out once an hour for each version of the site. */
export async function countClosedToVisitors(): Promise<number> {
  const reader = await withAllReads(await readerFor(VISITOR));
  return keptPublished(`closed to visitors ${reader.now.slice(0, 13)}`, reader.now, async () => {
    const items = await listPublished(pool(), reader.now);
    let closed = 0;
    for (let at = 0; at < items.length; at += AT_ONCE) {
      const some = items.slice(at, at + AT_ONCE);
      const judged = await judge(reader, some);
      closed += some.filter(({ id }) => !isLetIn(judged(id))).length;
      // Of a full site it takes seconds, in which others are answered.
      await setImmediate();
    }
    return closed;
  });
}

export type Openers = { to: 'everyone' } | { to: 'signed-in' } | { to: 'tiers'; tiers: Tier[] };
/** Where an item's access comes from: a rule for itself alone, rules for more than it, or the site's default. */
export type SetBy = { by: 'own' | 'inherited' | 'default'; rules: { id: string; name: string }[] };
export type ItemAccess = { openers: Openers; setBy: SetBy };

/** Who is let in at each of some items, in their order: everyone, all members, or new holders of some tiers; and what sets it. */
export async function accessOf(view: Viewpoints, items: ItemHead[]): Promise<ItemAccess[]> {
  const rows = await rowsOf(view, items);
  return rows.map((row) => ({
    openers: openersOf(row, view.viewpoints),
    setBy: setByOf(row, view.reader.rules),
  }));
}

export function openersOf(row: MapRow, viewpoints: Viewpoint[]): Openers {
  const isOpen = row.decisions.map(isLetIn);
  if (isOpen[0]) return { to: 'everyone' };
  if (isOpen[1]) return { to: 'signed-in' };
  return {
    to: 'tiers',
    tiers: viewpoints.flatMap(({ tier }, index) => (tier && isOpen[index] ? [tier] : [])),
  };
}

function setByOf({ item, decisions }: MapRow, rules: StoredRule[]): SetBy {
  const deciding = rules.filter(({ id }) => decisions[0]?.rules.includes(id));
  if (deciding.length === 0) return { by: 'default', rules: [] };
  const isOwn = deciding.some((rule) => {
    const [rank, within] = ruleLayer(rule, item) ?? [Infinity, 0];
    return rank === 0 || (rank === 1 && within === 0);
  });
  return { by: isOwn ? 'own' : 'inherited', rules: deciding.map(({ id, name }) => ({ id, name })) };
}
