import type { PersonFacts } from '@/core/access/facts';
import { countImpact } from '@/core/access/impact';
import { turningPoints } from '@/core/access/rights';
import type { Rule } from '@/core/access/rule';
import { listRights, type Rights } from '@/billing/store/rights';
import type { ItemHead } from '@/content/store/items';
import { pool } from '@/platform/store/db';
import type { Reader } from './reader';
import { staffFacts } from './viewpoints';

type Change = { before: Rule[]; after: Rule[] };
/** What a change does to everyone who has the same rights. */
export type RightsImpact = { rights: Rights; opens: number; closes: number };

export const askedAboutRights = (reader: Reader, { before, after }: Change) => ({
  mode: reader.site.mode,
  at: reader.now,
  points: turningPoints([...before, ...after], ['held', 'joined'], reader.now, reader.site.zone),
  named: [...before, ...after].flatMap(({ openTo }) =>
    openTo.flatMap(({ who }) => (who.kind === 'member' ? [who.id] : [])),
  ),
});

/** What a change of the rules would open and close to the real members, put together by equal rights; those alone for whom it does. */
export async function memberImpact(
  reader: Reader,
  change: Change,
  items: ItemHead[],
): Promise<{ members: number; changed: RightsImpact[] }> {
  const all = await listRights(pool(), askedAboutRights(reader, change));
  const asked = { now: reader.now, zone: reader.site.zone, default: reader.site.accessDefault };
  const counts = countImpact(
    asked,
    change,
    items,
    all.map((rights) => personWith(reader, rights)),
  );
  return {
    members: all.reduce((sum, { members }) => sum + members, 0),
    changed: all.flatMap((rights, n) => {
      const { opens, closes } = counts[n] ?? { opens: 0, closes: 0 };
      return opens + closes > 0 ? [{ rights, opens, closes }] : [];
    }),
  };
}

const personWith = (
  { site }: Reader,
  { memberId, joinedAt, tiers, passes, groups, staffRole }: Rights,
): PersonFacts => ({
  signedIn: true,
  ...(memberId && { id: memberId }),
  joinedAt,
  tiers,
  passes,
  groups,
  ...staffFacts(site, staffRole),
});

/** How many members gain something by a change, and how many lose something. */
export function gainsAndLosses(changed: RightsImpact[]): { gain: number; lose: number } {
  const count = (which: 'opens' | 'closes'): number =>
    changed.reduce((sum, one) => sum + (one[which] > 0 ? one.rights.members : 0), 0);
  return { gain: count('opens'), lose: count('closes') };
}
