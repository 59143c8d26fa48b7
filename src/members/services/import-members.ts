import { z } from 'zod';
import { earliest, isBefore, type Instant } from '@/core/instants';
import {
  DATE_FORMS,
  LINES_AT_ONCE,
  MEMBER_COLUMNS,
  readMemberLine,
  type MemberLine,
} from '@/core/people/member-lines';
import type { Problem } from '@/core/problem';
import { happen, openBook } from '@/billing/services/lib/open-book';
import { listHoldings } from '@/billing/store/holdings';
import { listChoices, setChoice } from '@/mail/store/mail-choices';
import { insertNote, listNotes } from '@/members/store/member-notes';
import { addToGroup, listGroups } from '@/people/store/groups';
import { insertMembers, lockMembersByEmails, setName, type Member } from '@/people/store/members';
import type { Actor } from '@/platform/actor';
import { siteNow } from '@/platform/clock';
import { record } from '@/platform/record';
import { done, refusedField, type Result } from '@/platform/result';
import { currentSite } from '@/platform/site';
import { pool, transactionUnlessRefused, type Transaction } from '@/platform/store/db';
import type { Site } from '@/platform/store/site';
import { staffUse } from '@/platform/use';
import { listTiers } from '@/tiers/store/tiers';
import { refusal, type ProblemCode } from '@/words/problems';

export type ImportedLine = {
  line: number;
  email: string;
  is: 'new' | 'changed' | 'same' | 'problem';
  problem?: Problem<ProblemCode>;
};

const importSchema = z.object({
  /** The number of the first line in its file. */
  first: z.number().int().min(1).max(2_000_000),
  lines: z.array(z.array(z.string().max(10_000)).max(100)).max(LINES_AT_ONCE),
  columns: z.array(z.enum(MEMBER_COLUMNS).nullable()).max(100),
  dates: z.enum(DATE_FORMS),
  /** Whether what is brought along counts as paid. */
  isPaid: z.boolean(),
  isDry: z.boolean(),
});

/**
 * Brings some lines of a file of members in, or, dry, only says what would become of each. A line that was brought in
 * before changes nothing again; a member who is there keeps what they have.
 */
export const importMembers = staffUse('manage members')(
  'import-members',
  importSchema,
  async (actor, { first, lines, columns, dates, isPaid, isDry }): Promise<Result<ImportedLine[]>> => {
    const named = columns.filter((column) => column !== null);
    if (!named.includes('email')) return refusedField('columns', 'import.no-email-column');
    const twice = named.find((column, at) => named.indexOf(column) !== at);
    if (twice) return refusedField('columns', 'import.columns-twice', { column: twice });
    const site = await currentSite();
    const at = siteNow(site);
    const [tiers, groups] = [await listTiers(pool()), await listGroups(pool())];
    const context = { tiers, groups, dates, zone: site.zone, now: at };
    const read = lines.map((cells, index) => ({
      number: first + index,
      typed: (cells[columns.indexOf('email')] ?? '').trim(),
      ...readMemberLine(cells, columns, context),
    }));
    const wanted = read.flatMap((one) => (one.ok ? one.line : []));
    const { report } = await transactionUnlessRefused(async (db) => {
      const { members, added } = await membersFor(db, wanted, at);
      const report: ImportedLine[] = [];
      for (const one of read) {
        const said = { line: one.number, email: one.typed };
        if (!one.ok) {
          report.push({ ...said, is: 'problem', problem: one.problem });
          continue;
        }
        const member = members.get(one.line.email);
        if (!member || member.staffRole) {
          report.push({ ...said, is: 'problem', problem: { code: 'member-line.staff' } });
          continue;
        }
        const brought = await bring(db, { site, actor, at, isPaid }, member, one.line);
        const isNew = added.delete(member.email);
        if (!brought.ok) {
          report.push({ ...said, is: 'problem', problem: brought.problem });
          continue;
        }
        const is = isNew ? 'new' : brought.isChanged ? 'changed' : 'same';
        if (is !== 'same') await record(db, actor, at, 'imported', `member:${member.id}`);
        report.push({ ...said, is });
      }
      // What is only looked at is not kept.
      return { ok: !isDry, report };
    });
    return done(report);
  },
);

/** The members of these lines, locked; those who are not there yet are added. */
async function membersFor(
  db: Transaction,
  lines: MemberLine[],
  at: Instant,
): Promise<{ members: Map<string, Member>; added: Set<string> }> {
  const byEmail = new Map(lines.map((line) => [line.email, line]));
  const added = await insertMembers(
    db,
    [...byEmail.values()].map(({ email, name, joined, since }) => ({
      email,
      name,
      joinedAt: earliest(joined ?? since ?? at, at),
    })),
  );
  const members = await lockMembersByEmails(db, [...byEmail.keys()]);
  return { members: new Map(members.map((member) => [member.email, member])), added: new Set(added) };
}

type Bringing = { site: Site; actor: Actor; at: Instant; isPaid: boolean };
type Brought = { ok: true; isChanged: boolean } | { ok: false; problem: Problem<ProblemCode> };

async function bring(
  db: Transaction,
  { site, actor, at, isPaid }: Bringing,
  member: Member,
  line: MemberLine,
): Promise<Brought> {
  let isChanged = false;
  if (line.tiers.length > 0) {
    const has = await listHoldings(db, member.id, site.mode);
    const open = await openBook(db, site, actor, { memberId: member.id, mode: site.mode });
    for (const tier of line.tiers) {
      const imported = has.filter((one) => one.tierId === tier && one.why === 'import');
      const isThere = imported.some(
        ({ fromAt, untilAt }) => untilAt === line.until && (!line.since || !isBefore(fromAt, line.since)),
      );
      if (isThere) continue;
      const runs = imported.find(({ untilAt }) => untilAt === null || isBefore(at, untilAt));
      const from = imported.length === 0 && line.since ? line.since : at;
      const happened = await happen(
        open,
        runs
          ? { do: 'extend', holding: runs.id, to: line.until }
          : { do: 'import', kind: 'tier', tier, from, to: line.until, isPaid },
      );
      if (!happened.ok) return { ok: false, problem: refusal(happened.why) };
      isChanged = true;
    }
  }
  for (const group of line.groups)
    if ((await addToGroup(db, group, [member.id], at)).length > 0) isChanged = true;
  if (line.name && !member.name) {
    await setName(db, member.id, line.name);
    isChanged = true;
  }
  if (line.note && !(await listNotes(db, member.id, false)).some(({ words }) => words === line.note)) {
    await insertNote(db, {
      memberId: member.id,
      staffId: actor.memberId,
      words: line.note,
      isShown: false,
      at,
    });
    isChanged = true;
  }
  if (line.letters !== null && !(await listChoices(db, member.id)).some(({ topic }) => topic === 'letters')) {
    await setChoice(db, member.id, { topic: 'letters', isOn: line.letters, how: 'import', at });
    isChanged = true;
  }
  return { ok: true, isChanged };
}
