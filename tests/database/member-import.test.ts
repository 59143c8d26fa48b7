import { beforeAll, describe, expect, it } from 'vitest';
import { addMember } from '../../src/members/services/add-member';
import { importMembers, type ImportedLine } from '../../src/members/services/import-members';
import type { Actor } from '../../src/platform/actor';
import { heldBy, join, lanternMoor, memberNamed, rows, value } from './lantern-moor';

const moor = lanternMoor();
const COLUMNS = ['email', 'name', 'tier', 'since', 'until', 'groups', 'note'];
const LINES = [
  ['ada@fell.example', 'Ada Fell', 'Observer', '2026-01-01', '2030-12-31', 'Committee', 'Paid in cash'],
  ['bo@fell.example', 'Bo Fell', 'Star Warden', '2025-01-01', '2025-12-31', '', ''],
  ['not an address', 'Cy Fell'],
  ['dee@fell.example', 'Dee Fell', 'Gold'],
];
let owner: Actor;

const bring = async (lines: string[][], isDry = false, isPaid = true): Promise<ImportedLine[]> =>
  value(
    await importMembers(owner, { first: 2, lines, columns: COLUMNS, dates: 'year-first', isPaid, isDry }),
  );
const results = (report: ImportedLine[]) => report.map(({ line, is }) => `${line} ${is}`);
const idOf = async (email: string): Promise<string> => (await memberNamed(email))?.id ?? '';
const holdings = async (email: string) =>
  rows('SELECT tier_id, why, is_paid, until_at FROM holdings WHERE member_id = $1 ORDER BY from_at', [
    await idOf(email),
  ]);

beforeAll(async () => {
  owner = { kind: 'staff', memberId: await idOf('ines@moor.example'), staffRole: 'owner' };
});

describe('a file of members', () => {
  it('is only looked through first: nothing of it stays', async () => {
    const report = await bring(LINES, true);
    expect(results(report)).toEqual(['2 new', '3 new', '4 problem', '5 problem']);
    expect(report[2]?.problem?.code).toBe('member-line.email');
    expect(report[3]?.problem).toEqual({ code: 'member-line.tier', values: { typed: 'Gold' } });
    expect(await memberNamed('ada@fell.example')).toBeUndefined();
    expect(await rows(`SELECT 1 FROM audit WHERE action = 'imported'`)).toEqual([]);
  });

  it('brings in who is new, with tiers, groups and notes, and changes nothing when it comes again', async () => {
    expect(results(await bring(LINES))).toEqual(['2 new', '3 new', '4 problem', '5 problem']);
    const ada = await idOf('ada@fell.example');
    expect(await heldBy(ada)).toEqual([{ tier: 'observer', since: '2026-01-01T00:00:00Z', paid: true }]);
    expect(await rows('SELECT words, is_shown FROM member_notes WHERE member_id = $1', [ada])).toEqual([
      { words: 'Paid in cash', is_shown: false },
    ]);
    expect(await rows('SELECT group_id FROM group_members WHERE member_id = $1', [ada])).toHaveLength(1);
    // What has ended already is known, and not held.
    expect(await heldBy(await idOf('bo@fell.example'))).toEqual([]);
    expect(await holdings('bo@fell.example')).toHaveLength(1);
    expect(results(await bring(LINES))).toEqual(['2 same', '3 same', '4 problem', '5 problem']);
    expect(await holdings('bo@fell.example')).toHaveLength(1);
    expect((await memberNamed('ada@fell.example'))?.passwordHash).toBeNull();
  });

  it('changes when an imported tier ends, and begins it anew where it had ended', async () => {
    const until = (email: string, tier: string, day: string) => [[email, '', tier, '', day]];
    expect(results(await bring(until('ada@fell.example', 'observer', '2029-12-31')))).toEqual(['2 changed']);
    expect(await holdings('ada@fell.example')).toEqual([
      { tier_id: 'observer', why: 'import', is_paid: true, until_at: '2030-01-01T00:00:00Z' },
    ]);
    const again = until('bo@fell.example', 'star warden', '2031-12-31');
    expect(results(await bring(again))).toEqual(['2 changed']);
    expect(results(await bring(again))).toEqual(['2 same']);
    expect(await holdings('bo@fell.example')).toHaveLength(2);
  });

  it('leaves a member who is there as they are, and never touches staff', async () => {
    const { email, memberId } = await join(moor, 'observer-monthly', 'works');
    expect(results(await bring([[email, 'Another Name']]))).toEqual(['2 same']);
    expect((await rows('SELECT name FROM members WHERE id = $1', [memberId]))[0]).toEqual({
      name: 'Someone New',
    });
    const [staff] = await bring([['ines@moor.example', 'Ines', 'Observer']]);
    expect(staff?.problem?.code).toBe('member-line.staff');
  });

  it('is refused without a column of addresses, or with two of one kind', async () => {
    const ask = (columns: (string | null)[]) =>
      importMembers(owner, { first: 2, lines: [], columns, dates: 'year-first', isPaid: true, isDry: true });
    expect(await ask(['name'])).toMatchObject({ problems: { columns: { code: 'import.no-email-column' } } });
    expect(await ask(['email', 'email'])).toMatchObject({
      problems: { columns: { code: 'import.columns-twice' } },
    });
  });
});

it('a member who is added by hand signs in by a code, and is added once', async () => {
  value(await addMember(owner, { email: ' Eve@Fell.example', name: 'Eve' }));
  expect(await memberNamed('eve@fell.example')).toMatchObject({ name: 'Eve', emailConfirmedAt: null });
  expect(await addMember(owner, { email: 'eve@fell.example', name: '' })).toMatchObject({
    problems: { email: { code: 'member.there' } },
  });
});
