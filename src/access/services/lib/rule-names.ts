import { refKey, type Rule } from '@/core/access/rule';
import { listTitles } from '@/content/store/items';
import { keptCategories, keptKinds, keptTags } from '@/content/services/lib/kept';
import { listGroups } from '@/people/store/groups';
import { listMemberNames } from '@/people/store/members';
import { keptTiers, keptPasses } from '@/tiers/services/lib/kept';
import { deskWords } from '@/platform/site';
import { pool } from '@/platform/store/db';
import { kindNames } from './kind-names';

/** What the things are called that rules speak of, by kind and id: "tier:observer". */
export type Names = Record<string, string>;

/** The names of all that some rules speak of; of items and members, of those alone. */
export async function namesIn(rules: Pick<Rule, 'covers' | 'except' | 'openTo'>[]): Promise<Names> {
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
    ...named('item', items.length > 0 ? await listTitles(pool(), items) : []),
    ...named('member', members.length > 0 ? await listMemberNames(pool(), members) : []),
  ]);
}
