import { withPlaces } from './lib/kept-rules';
import { z } from 'zod';
import { impactOf } from '@/core/access/impact';
import { decide } from '@/core/access/decide';
import { refKey, type Rule } from '@/core/access/rule';
import { listMembersWith } from '@/billing/store/rights';
import { listPublished } from '@/content/store/item-lists';
import type { ItemHead } from '@/content/store/items';
import { findRule, listRules, type StoredRule } from '@/access/store/rules';
import type { Actor } from '@/platform/actor';
import { siteNow } from '@/platform/clock';
import { record } from '@/platform/record';
import { done, refusedField, type Result } from '@/platform/result';
import { currentSite } from '@/platform/site';
import { findAudit, newestAudit } from '@/platform/store/audit';
import { lock, pool, transactionUnlessRefused, type Transaction } from '@/platform/store/db';
import { staffUse } from '@/platform/use';
import { compileRules } from '@/core/access/compile';
import { unknownItems } from './lib/desk-items';
import { readViewpoints } from './lib/access-map';
import { NEW_RULE, putRule, removeRule } from './lib/change-rules';
import { askedAboutRights, gainsAndLosses, memberImpact } from './lib/member-impact';
import { nameFor, painted, paintsSchema, stampOf, type Painted } from './lib/paints';
import { questionOf, type Reader } from './lib/reader';
import { ruleDraftSchema } from './lib/rule-draft';

/** So many titles and names are told; the rest are counted. */
const [TITLES, NAMES] = [3, 50];

const draftSchema = z.object({ paints: paintsSchema });

/**
 * What applying a draft would do: each rule before and after, what opens and closes from each viewpoint, how many real
 * members gain and lose by it, and the cells that would not be as they were painted, because other rules cover them too.
 */
export const previewDraft = staffUse('set access')(
  'preview-draft',
  draftSchema,
  async (actor, { paints }) => {
    const { reader, viewpoints } = await readViewpoints();
    const draft = await painted(actor, reader, paints);
    const items = await listPublished(pool(), reader.now);
    const change = { before: reader.rules, after: draft.after };
    const unknown = new Set(await unknownItems(actor));
    const asked = { now: reader.now, zone: reader.site.zone, default: reader.site.accessDefault };
    const impacts = impactOf(
      asked,
      change,
      items,
      viewpoints.map(({ person }) => person),
    );
    const { members, changed } = await memberImpact(reader, change, items);
    const sum = (of: typeof changed): number => of.reduce((all, { rights }) => all + rights.members, 0);
    return done({
      stamp: stampOf(reader),
      changes: draft.changes.map(({ id, before, after }) => ({
        id,
        name: before?.name ?? (after ? nameFor(after.covers[0] ?? { kind: 'site' }, draft.names) : id),
        before,
        after,
      })),
      names: draft.names,
      items: new Set(impacts.flatMap(({ opens, closes }) => [...opens, ...closes].map(({ id }) => id))).size,
      viewpoints: viewpoints.flatMap(({ name }, n) => {
        const { opens, closes } = impacts[n] ?? { opens: [], closes: [] };
        return opens.length + closes.length > 0
          ? [{ name, opens: some(opens, unknown), closes: some(closes, unknown) }]
          : [];
      }),
      members: {
        all: members,
        affected: sum(changed),
        ...gainsAndLosses(changed),
      },
      notAsPainted: notAsPainted(reader, viewpoints, draft),
    });
  },
);

const some = (items: ItemHead[], unknown: ReadonlySet<string>) => ({
  count: items.length,
  some: items
    .filter(({ id }) => !unknown.has(id))
    .slice(0, TITLES)
    .map(({ title }) => title),
});

/** The painted cells that other rules of the same layer, or such as must be open as well, decide otherwise. */
function notAsPainted(
  reader: Reader,
  viewpoints: Awaited<ReturnType<typeof readViewpoints>>['viewpoints'],
  { after, paints, names }: Painted,
) {
  const covering = compileRules<Rule>(after);
  return paints.flatMap(({ target, facts, as, to }) => {
    const viewpoint = viewpoints.find(({ id }) => id === as);
    if (!viewpoint || to === 'inherit') return [];
    const question = questionOf({ ...reader, person: viewpoint.person }, facts);
    const decision = decide({ ...question, rules: covering(facts) });
    if ((decision.state === 'open') === (to === 'open')) return [];
    const others = decision.rules.filter((id) => !isFor(after, id, refKey(target)));
    return [
      {
        target: nameFor(target, names),
        as: viewpoint.name,
        to,
        rules: after.filter(({ id }) => others.includes(id)).map(({ id, name }) => name ?? id),
      },
    ];
  });
}

const isFor = (rules: Rule[], id: string, key: string): boolean =>
  rules.some(
    (rule) =>
      rule.id === id &&
      !rule.alsoRequire &&
      rule.covers.length === 1 &&
      rule.covers.some((cover) => refKey(cover) === key),
  );

const namesSchema = draftSchema.extend({ which: z.enum(['gain', 'lose']) });

/** The members who would gain or lose by a draft, by name; the first of them. */
export const draftMembers = staffUse('set access')(
  'draft-members',
  namesSchema,
  async (actor, { paints, which }) => {
    const { reader } = await readViewpoints();
    const { after } = await painted(actor, reader, paints);
    const change = { before: reader.rules, after };
    const { changed } = await memberImpact(reader, change, await listPublished(pool(), reader.now));
    const keys = changed
      .filter((one) => (which === 'gain' ? one.opens : one.closes) > 0)
      .map(({ rights }) => rights.key);
    return done(await listMembersWith(pool(), askedAboutRights(reader, change), keys, NAMES));
  },
);

const applySchema = draftSchema.extend({
  /** Of the rules that were there when the draft was looked at. */
  stamp: z.string().max(60),
});

/** Applies a draft, all of it or none: refused where the rules have changed since it was looked at. The answer is by what it is undone. */
export const applyDraft = staffUse('set access')(
  'apply-draft',
  applySchema,
  async (actor, { paints, stamp }): Promise<Result<{ entry: string }>> => {
    const { reader } = await readViewpoints();
    const draft = await painted(actor, reader, paints);
    const at = siteNow(reader.site);
    return transactionUnlessRefused(async (db) => {
      await lockRules(db);
      const seen = { ...reader, rules: await withPlaces(db, await listRules(db)) };
      if (stampOf(seen) !== stamp || stampOf(reader) !== stamp)
        return refusedField('', 'draft.rules-changed');
      if (draft.changes.length === 0) return refusedField('', 'draft.nothing');
      const applied: AppliedChange[] = [];
      for (const { id, before, after } of draft.changes) {
        const name = before?.name ?? (after ? nameFor(after.covers[0] ?? { kind: 'site' }, draft.names) : id);
        const result = await put(db, actor, at, id, before, after && { ...after, name: name.slice(0, 80) });
        if (!result.ok) return result;
        applied.push({ id, before, version: (await findRule(db, id))?.version ?? null });
      }
      await record(db, actor, at, 'draft applied', 'rules', { changes: applied });
      const entry = await newestAudit(db, 'rules');
      return done({ entry: String(entry) });
    });
  },
);

type AppliedChange = { id: string; before: StoredRule | null; version: number | null };
const appliedSchema = z.object({
  changes: z.array(z.object({ id: z.string(), before: z.unknown(), version: z.number().int().nullable() })),
});

async function put(
  db: Transaction,
  actor: Actor,
  at: Parameters<typeof putRule>[2],
  id: string,
  before: StoredRule | null,
  after: (Rule & { name: string }) | null,
): Promise<Result<unknown>> {
  if (after === null) return removeRule(db, actor, at, id);
  const draft = ruleDraftSchema.safeParse({ ...after, ...(before && { version: before.version }) });
  if (!draft.success) return refusedField('', 'draft.rules-changed');
  return putRule(db, actor, at, draft.data);
}

/** Undoes a draft that was applied, for as long as nothing else has changed what it changed. */
export const undoDraft = staffUse('set access')(
  'undo-draft',
  z.object({ entry: z.string().regex(/^\d{1,18}$/) }),
  async (actor, { entry }): Promise<Result<null>> => {
    const at = siteNow(await currentSite());
    return transactionUnlessRefused(async (db): Promise<Result<null>> => {
      await lockRules(db);
      const found = appliedSchema.safeParse((await findAudit(db, BigInt(entry), 'rules'))?.detail);
      if (!found.success) return refusedField('', 'draft.gone');
      for (const { id, before, version } of found.data.changes) {
        const now = await findRule(db, id);
        if ((now?.version ?? null) !== version)
          return refusedField('', 'draft.touched', { rule: now?.name ?? id });
        if (before === null) {
          const removed = await removeRule(db, actor, at, id);
          if (!removed.ok) return removed;
          continue;
        }
        const was = ruleDraftSchema.safeParse(before);
        if (!was.success) return refusedField('', 'draft.gone');
        const put = await putRule(db, actor, at, { ...NEW_RULE, ...was.data, id, version: now?.version });
        if (!put.ok) return put;
      }
      await record(db, actor, at, 'draft undone', 'rules', { entry });
      return done(null);
    });
  },
);

/** In the order in which everything else takes them. */
async function lockRules(db: Transaction): Promise<void> {
  await lock(db, 'items');
  await lock(db, 'rules');
}
