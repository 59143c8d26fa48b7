import { z } from 'zod';
import { endOfDate, startOfDate } from '@/core/calendar';
import { csvLine } from '@/core/csv';
import { isLocalDate, type Instant } from '@/core/instants';
import { listStaff } from '@/people/store/staff';
import { listMemberNames } from '@/people/store/members';
import { done } from '@/platform/result';
import { currentSite } from '@/platform/site';
import { searchAudit, type ActorKind, type AuditFilter, type AuditRow } from '@/platform/store/audit';
import { pool } from '@/platform/store/db';
import { staffUse } from '@/platform/use';
import { deskWordsOf } from '@/words/desk';
import { auditFacts, shortIds } from './lib/audit-detail';

export const ACTOR_KINDS = [
  'staff',
  'member',
  'visitor',
  'worker',
  'gateway',
  'setup',
] as const satisfies ActorKind[];
const PAGE_SIZE = 100;
/** Entries that are read at a time for an export. */
const AT_ONCE = 1_000;

const day = z
  .string()
  .refine((typed): boolean => isLocalDate(typed))
  .catch('')
  .default('');
/** As the address of the page says it; what cannot be read narrows nothing. */
const filterSchema = z.object({
  q: z.string().trim().max(100).catch('').default(''),
  who: z
    .union([z.enum(ACTOR_KINDS), z.uuid(), z.literal('')])
    .catch('')
    .default(''),
  /** "member:", "rule:" and so on, with an id. */
  about: z
    .string()
    .regex(/^[a-z]+:[^\s]{1,200}$/)
    .catch('')
    .default(''),
  from: day,
  to: day,
});

function filterOf({ q, who, about, from, to }: z.output<typeof filterSchema>, zone: string): AuditFilter {
  const kind = ACTOR_KINDS.find((one) => one === who);
  return {
    ...(q && { action: q }),
    ...(kind ? { actorKind: kind } : who && { actorId: who }),
    ...(about && { subject: about }),
    ...(isLocalDate(from) && { from: startOfDate(from, zone) }),
    ...(isLocalDate(to) && { until: endOfDate(to, zone) }),
  };
}

export type AuditLine = {
  id: string;
  at: Instant;
  kind: ActorKind;
  /** Their name; null for the site itself, and for visitors. */
  actor: string | null;
  action: string;
  subject: string;
  /** What it was done to, by its name where it is a member. */
  about: string;
  /** What was noted beside it, for people. */
  facts: string[];
  /** The same as it was noted: JSON. */
  detail: string;
};

const memberIn = (subject: string): string | undefined => /^member:(.+)$/.exec(subject)?.[1];

/** "comment 8684642e", "item zodiacal-light": long ids by their first letters. */
const subjectWords = (subject: string): string => shortIds(subject.replace(':', ' '));

/** Entries with the names of the people in them. */
async function linesOf(rows: AuditRow[]): Promise<AuditLine[]> {
  const ids = rows.flatMap(({ actorId, subject }) => [actorId ?? [], memberIn(subject) ?? []].flat());
  const names = new Map((await listMemberNames(pool(), [...new Set(ids)])).map(({ id, name }) => [id, name]));
  const t = deskWordsOf(await currentSite());
  return rows.map(({ id, at, actorKind, actorId, action, subject, detail }) => ({
    id: String(id),
    at,
    kind: actorKind,
    actor: actorId && (names.get(actorId) ?? actorId),
    action,
    subject,
    about: names.get(memberIn(subject) ?? '') ?? subjectWords(subject),
    facts: auditFacts(detail, (amount, currency) => t.money(amount, currency)),
    detail: JSON.stringify(detail),
  }));
}

const pageSchema = filterSchema.extend({
  before: z
    .string()
    .regex(/^\d{1,18}$/)
    .optional()
    .catch(undefined),
});

/** A page of the audit, the newest first. */
export const readAudit = staffUse('set up the site')(
  'read-audit',
  pageSchema,
  async (_, { before, ...asked }) => {
    const { zone } = await currentSite();
    const filter = filterOf(asked, zone);
    const rows = await searchAudit(pool(), filter, {
      limit: PAGE_SIZE + 1,
      ...(before && { before: BigInt(before) }),
    });
    const lines = await linesOf(rows.slice(0, PAGE_SIZE));
    return done({
      lines,
      older: rows.length > PAGE_SIZE ? (lines.at(-1)?.id ?? null) : null,
      staff: (await listStaff(pool())).map(({ id, name, email }) => ({ id, name: name || email })),
    });
  },
);

/** The audit as CSV, the newest first; instants are UTC. */
export const exportAudit = staffUse('set up the site')('export-audit', filterSchema, async (_, asked) => {
  const { zone } = await currentSite();
  const filter = filterOf(asked, zone);
  async function* lines(): AsyncGenerator<string> {
    yield csvLine(['at', 'who', 'name', 'action', 'about', 'subject', 'details']);
    for (let before: bigint | undefined; ;) {
      const rows = await searchAudit(pool(), filter, { limit: AT_ONCE, before });
      yield (await linesOf(rows))
        .map((line) =>
          csvLine([line.at, line.kind, line.actor ?? '', line.action, line.about, line.subject, line.detail]),
        )
        .join('');
      before = rows.at(-1)?.id;
      if (rows.length < AT_ONCE) return;
    }
  }
  return done({ lines: lines() });
});
