import { impactOf, meetingsOf } from '@/core/access/impact';
import type { Rule } from '@/core/access/rule';
import { listPublished } from '@/content/store/item-lists';
import { done } from '@/platform/result';
import { pool } from '@/platform/store/db';
import { staffUse } from '@/platform/use';
import { gainsAndLosses, memberImpact } from './lib/member-impact';
import { unknownItems } from './lib/desk-items';
import { readViewpoints } from './lib/access-map';
import { withPlaces } from './lib/kept-rules';
import { ruleDraftSchema } from './lib/rule-draft';

/** So many titles are named; the rest are counted. */
const NAMED = 3;
type Some = { count: number; some: string[] };

/** Says what a rule that is being written would open and close, and which other rules it meets. Nothing is saved. */
export const previewRule = staffUse('set access')('preview-rule', ruleDraftSchema, async (actor, draft) => {
  const unknown = new Set(await unknownItems(actor));
  const some = (found: { id: string; title: string }[]): Some => ({
    count: found.length,
    some: found
      .filter(({ id }) => !unknown.has(id))
      .slice(0, NAMED)
      .map(({ title }) => title),
  });
  const { reader, viewpoints } = await readViewpoints();
  const items = await listPublished(pool(), reader.now);
  const written: Rule = { ...draft, id: draft.id ?? 'new', openTo: draft.openTo ?? [] };
  const [rule = written] = await withPlaces(pool(), [written]);
  const others = reader.rules.filter(({ id }) => id !== rule.id);
  const rules = { before: reader.rules, after: [...others, rule] };
  const asked = { now: reader.now, zone: reader.site.zone, default: reader.site.accessDefault };
  const impacts = impactOf(
    asked,
    rules,
    items,
    viewpoints.map(({ person }) => person),
  );
  const nothing = { before: [], after: [{ ...rule, on: true, alsoRequire: false, openTo: [] }] };
  // What an otherwise open site would lose by it is what it covers.
  const [covered] = impactOf({ ...asked, default: 'everyone' }, nothing, items, [
    { signedIn: false, tiers: [], passes: [], groups: [] },
  ]);
  const members = await memberImpact(reader, rules, items);
  return done({
    members: gainsAndLosses(members.changed),
    covers: some(covered?.closes ?? []),
    changes: viewpoints.flatMap(({ name }, n) => {
      const { opens, closes } = impacts[n] ?? { opens: [], closes: [] };
      return opens.length + closes.length > 0
        ? [{ viewpoint: name, opens: some(opens), closes: some(closes) }]
        : [];
    }),
    meets:
      draft.on === false
        ? []
        : meetingsOf(
            rule,
            others.filter(({ on }) => on),
            items,
          ).map((meeting) => ({
            ...meeting,
            name: others.find(({ id }) => id === meeting.rule)?.name ?? meeting.rule,
          })),
  });
});
