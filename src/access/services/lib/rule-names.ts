import { refKey, type Rule } from '@/core/access/rule';
import { keptCategories, keptKinds, keptTags } from '@/content/services/lib/kept';
import { listGroups } from '@/people/store/groups';
import { listMemberNames } from '@/people/store/members';
import { keptTiers, keptPasses } from '@/tiers/services/lib/kept';
import type { Actor } from '@/platform/actor';
import { deskWords, powersOf } from '@/platform/site';
import { pool } from '@/platform/store/db';
import { may } from '@/core/staff';
import { desk } from '@/words/desk';
import { knownTitles } from './desk-items';
import { kindNames } from './kind-names';

/** What the things are called that rules speak of, by kind and id: "tier:observer". */
export type Names = Record<string, string>;

/**
 * The names of all that some rules speak of; of items and members, of those alone. Items that the staff member may not know of,
 * and members where they see none, stay unnamed.
 */
export async function namesIn(
  actor: Actor,
  rules: Pick<Rule, 'covers' | 'except' | 'openTo'>[],
): Promise<Names> {
  const covers = rules.flatMap((rule) => [...rule.covers, ...(rule.except ?? [])]);
  const items = covers.flatMap((cover) =>
    cover.kind === 'item' || cover.kind === 'under' ? [cover.id] : [],
  );
  const members = rules.flatMap(({ openTo }) =>
    openTo.flatMap(({ who }) => (who.kind === 'member' ? [who.id] : [])),
  );
  const t = await deskWords();
  const named = (kind: string, all: { id: string; name: string }[]): [string, string][] =>
    all.map(({ id, name }) => [refKey({ kind, id }), name]);
  return Object.fromEntries([
    ...named('category', await keptCategories()),
    ...named('tag', await keptTags()),
    ...named('tier', await keptTiers()),
    ...named('group', await listGroups(pool())),
    ...named('pass', await keptPasses()),
    ...named(
      'type',
      (await keptKinds()).map((kind) => ({ id: kind.id, name: kindNames(kind, t).plural })),
    ),
    ...named(
      'item',
      items.map((id) => ({ id, name: desk('desk-access.unnamed-item') })),
    ),
    ...named('item', items.length > 0 ? await knownTitles(actor, items) : []),
    ...named(
      'member',
      may(await powersOf(actor), 'see members')
        ? await listMemberNames(pool(), members)
        : members.map((id) => ({ id, name: desk('desk-access.unnamed-member') })),
    ),
  ]);
}
