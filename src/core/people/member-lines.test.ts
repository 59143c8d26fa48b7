import { describe, expect, it } from 'vitest';
import type { LineContext } from './member-lines';
import { doublesIn, guessColumns, readMemberLine, type ColumnMap } from './member-lines';

const context: LineContext = {
  tiers: [
    { id: 'observer', name: 'Observer' },
    { id: 'star-warden', name: 'Star Warden' },
  ],
  groups: [{ id: 'committee', name: 'Committee' }],
  dates: 'year-first',
  zone: 'Europe/London',
  now: '2026-11-27T12:00:00Z',
};
const COLUMNS: ColumnMap = ['email', 'name', 'tier', 'since', 'until', 'groups', 'note'];
const read = (cells: string[], more: Partial<LineContext> = {}, columns = COLUMNS) =>
  readMemberLine(cells, columns, { ...context, ...more });
const codeOf = (cells: string[], more: Partial<LineContext> = {}) => {
  const answer = read(cells, more);
  return answer.ok ? null : answer.problem.code;
};

it('guesses columns by their headings, each once, and never a password', () => {
  expect(
    guessColumns(['\ufeffE-Mail', 'First_Name', 'Surname', 'Password', 'Plan', 'email', 'Expires']),
  ).toEqual(['email', 'first-name', 'last-name', null, 'tier', null, 'until']);
});

describe('a line', () => {
  it('is read with its tiers and groups by name or id, and whole days of the site’s zone', () => {
    expect(
      read([
        ' Ada@Moor.example ',
        'Ada Fell',
        'Star Warden; observer',
        '2026-06-01',
        '2027-05-31',
        'committee',
        'Hi',
      ]),
    ).toEqual({
      ok: true,
      line: {
        email: 'ada@moor.example',
        name: 'Ada Fell',
        joined: null,
        tiers: ['star-warden', 'observer'],
        since: '2026-05-31T23:00:00Z',
        until: '2027-05-31T23:00:00Z',
        groups: ['committee'],
        letters: null,
        note: 'Hi',
      },
    });
  });

  it('puts a name together from its parts', () => {
    const answer = read(['a@b.example', 'Ada', 'Fell'], {}, ['email', 'first-name', 'last-name']);
    expect(answer.ok && answer.line.name).toBe('Ada Fell');
  });

  it.each([
    [['', 'Ada'], 'member-line.no-email'],
    [['ada at moor', 'Ada'], 'member-line.email'],
    [['a@b.example', 'see www.b.example'], 'name.address'],
    [['a@b.example', '', 'Gold'], 'member-line.tier'],
    [['a@b.example', '', '', '', '', 'Choir'], 'member-line.group'],
    [['a@b.example', '', '', '31/05/2026'], 'member-line.date'],
    [['a@b.example', '', '', '2026-02-30'], 'member-line.date'],
    [['a@b.example', '', 'Observer', '2026-06-01', '2026-05-01'], 'member-line.ends-first'],
    [['a@b.example', '', 'Observer', '', '2026-05-01'], 'member-line.ends-first'],
  ])('%j is refused as %s', (cells, code) => expect(codeOf(cells)).toBe(code));

  it('never guesses which of two numbers is the day', () => {
    const cells = ['a@b.example', '', '', '03/04/2026'];
    const since = (dates: LineContext['dates']) => {
      const answer = read(cells, { dates });
      return answer.ok && answer.line.since;
    };
    expect(codeOf(cells)).toBe('member-line.date');
    expect(since('day-first')).toBe('2026-04-02T23:00:00Z');
    expect(since('month-first')).toBe('2026-03-04T00:00:00Z');
  });
});

it('tells which line had the same address and tier before', () => {
  const lines = [
    ['a@b.example', 'Observer'],
    ['c@d.example'],
    [' A@B.example', 'observer'],
    ['a@b.example', 'Gazer'],
    [''],
    [''],
  ];
  expect(doublesIn(lines, ['email', 'tier'], 2)).toEqual([null, null, 2, null, null, null]);
});
