import { z } from 'zod';
import { listDeletedRules } from '@/access/store/rules';
import { listMemberNames } from '@/people/store/members';
import { nothing, slug } from '@/platform/inputs';
import { done } from '@/platform/result';
import { listAudit } from '@/platform/store/audit';
import { pool } from '@/platform/store/db';
import type { Actor } from '@/platform/actor';
import { staffUse } from '@/platform/use';
import { ruleDraftSchema } from './lib/rule-draft';
import { namesIn, type Names } from './lib/rule-names';

const MOST = 50;

/** What was done to a rule, newest first, with the names of all that it spoke of. */
export const ruleHistory = staffUse('set access')('rule-history', slug, async (actor, id) => {
  const entries = await listAudit(pool(), [`rule:${id}`], MOST);
  const staff = entries.flatMap(({ actorId }) => actorId ?? []);
  const names = new Map((await listMemberNames(pool(), staff)).map((one) => [one.id as string, one.name]));
  const changes = entries.map(({ id: entry, at, actorId, detail }) => ({
    id: String(entry),
    at,
    by: names.get(actorId ?? '') ?? '',
    before: past(detail.before),
    after: past(detail.after),
  }));
  return done({
    changes,
    names: await named(
      actor,
      changes.flatMap(({ before, after }) => [before, after]),
    ),
  });
});

/** Rules that were deleted, the latest first: each can be made again as it was. */
export const deletedRules = staffUse('set access')('deleted-rules', nothing, async () => {
  const rows = await listDeletedRules(pool(), MOST);
  return done(
    rows.flatMap(({ entry, id, at, before }) => {
      const rule = past(before);
      return rule ? [{ id, entry: String(entry), at, name: rule.name }] : [];
    }),
  );
});

type PastRule = z.output<typeof ruleDraftSchema>;
/** A rule as a change left it, or found it; null where there was none. */
const past = (rule: unknown): PastRule | null => ruleDraftSchema.safeParse(rule).data ?? null;

const named = (actor: Actor, rules: (PastRule | null)[]): Promise<Names> =>
  namesIn(
    actor,
    rules.flatMap((rule) => (rule ? [{ ...rule, openTo: rule.openTo ?? [] }] : [])),
  );
