import { z } from 'zod';
import { endOfDate, startOfDate } from '../calendar';
import { isBefore, isLocalDate, type Instant, type LocalDate } from '../instants';
import type { CoreCode, Problem } from '../problem';
import { nameProblem } from './name';

/** What a column of a list of members can be. Nobody's password is ever brought along. */
export const MEMBER_COLUMNS = [
  'email',
  'name',
  'first-name',
  'last-name',
  'joined',
  'tier',
  'since',
  'until',
  'groups',
  'letters',
  'note',
] as const;
/** Lines that are brought in at once. */
export const LINES_AT_ONCE = 250;
export type MemberColumn = (typeof MEMBER_COLUMNS)[number];
/** Of each column of the file, what it is; null: it is left out. */
export type ColumnMap = (MemberColumn | null)[];

/** How dates are written: as 2026-11-25, 25/11/2026 or 11/25/2026. Which of the last two is never guessed. */
export const DATE_FORMS = ['year-first', 'day-first', 'month-first'] as const;
export type DateForm = (typeof DATE_FORMS)[number];

const NAMES: Record<MemberColumn, string[]> = {
  email: ['email', 'e-mail', 'mail', 'email address', 'e-mail address', 'address'],
  name: ['name', 'full name', 'member', 'display name'],
  'first-name': ['first name', 'firstname', 'given name', 'forename', 'vorname'],
  'last-name': ['last name', 'lastname', 'surname', 'family name', 'nachname'],
  joined: ['joined', 'joined on', 'member since', 'registered', 'created'],
  tier: ['tier', 'tiers', 'membership', 'level', 'plan'],
  since: ['since', 'from', 'start', 'started'],
  until: ['until', 'to', 'end', 'ends', 'expires', 'paid until'],
  groups: ['groups', 'group'],
  letters: ['letters', 'newsletter', 'wants letters', 'mailing list'],
  note: ['note', 'notes', 'comment'],
};

/** What each column of a file is, as far as its heading tells; each at most once. */
export function guessColumns(head: string[]): ColumnMap {
  const taken = new Set<MemberColumn>();
  return head.map((heading) => {
    const name = heading
      .replace(/^\ufeff/, '')
      .trim()
      .toLowerCase()
      .replaceAll('_', ' ');
    const column = MEMBER_COLUMNS.find((one) => !taken.has(one) && NAMES[one].includes(name));
    if (column) taken.add(column);
    return column ?? null;
  });
}

/** What one line asks for. Instants UTC; `until` null: no end. */
export type MemberLine = {
  email: string;
  name: string;
  joined: Instant | null;
  tiers: string[];
  since: Instant | null;
  until: Instant | null;
  groups: string[];
  /** Whether they want letters; null: the line says nothing about it. */
  letters: boolean | null;
  note: string;
};
type LineProblem = Problem;
type Named = { id: string; name: string };
export type LineContext = { tiers: Named[]; groups: Named[]; dates: DateForm; zone: string; now: Instant };

const address = z.email();
const MOST_NOTE = 2_000;

/** A line of a file of members, read by what its columns are; or what is wrong with it. */
export function readMemberLine(
  cells: string[],
  columns: ColumnMap,
  { tiers, groups, dates, zone, now }: LineContext,
): { ok: true; line: MemberLine } | { ok: false; problem: LineProblem } {
  const cell = (column: MemberColumn): string => {
    const at = columns.indexOf(column);
    return at === -1 ? '' : (cells[at]?.trim() ?? '');
  };
  const not = (code: CoreCode, typed: string) => ({
    ok: false as const,
    problem: { code, values: { typed } },
  });
  const email = cell('email').toLowerCase();
  if (email === '') return { ok: false, problem: { code: 'member-line.no-email' } };
  if (email.length > 254 || !address.safeParse(email).success) return not('member-line.email', email);
  const name = cell('name') || [cell('first-name'), cell('last-name')].filter(Boolean).join(' ');
  const wrongName = nameProblem(name);
  if (wrongName) return { ok: false, problem: wrongName };
  const found: Record<'tier' | 'groups', string[]> = { tier: [], groups: [] };
  for (const [column, known] of [
    ['tier', tiers],
    ['groups', groups],
  ] as const)
    for (const typed of partsOf(cell(column))) {
      const one = known.find(({ id, name: called }) =>
        [id, called.toLowerCase()].includes(typed.toLowerCase()),
      );
      if (!one) return not(column === 'tier' ? 'member-line.tier' : 'member-line.group', typed);
      found[column].push(one.id);
    }
  const days: Partial<Record<MemberColumn, LocalDate>> = {};
  for (const column of ['joined', 'since', 'until'] as const) {
    const typed = cell(column);
    if (typed === '') continue;
    const date = readDay(typed, dates);
    if (!date) return not('member-line.date', typed);
    days[column] = date;
  }
  const { joined, since, until } = days;
  const [begins, ends] = [since ? startOfDate(since, zone) : null, until ? endOfDate(until, zone) : null];
  if (ends && isBefore(ends, begins ?? now)) return not('member-line.ends-first', until ?? '');
  const letters = cell('letters') === '' ? null : YES_NO[cell('letters').toLowerCase()];
  if (letters === undefined) return not('member-line.yes-no', cell('letters'));
  const note = cell('note').slice(0, MOST_NOTE);
  return {
    ok: true,
    line: {
      email,
      name,
      joined: joined ? startOfDate(joined, zone) : null,
      tiers: [...new Set(found.tier)],
      since: begins,
      until: ends,
      groups: [...new Set(found.groups)],
      letters,
      note,
    },
  };
}

/** What a cell says that is yes or no. */
const YES_NO: Partial<Record<string, boolean>> = {
  yes: true,
  y: true,
  true: true,
  '1': true,
  x: true,
  no: false,
  n: false,
  false: false,
  '0': false,
};

/** Several in one cell are parted by semicolons or bars. */
const partsOf = (cell: string): string[] =>
  cell
    .split(/[;|]/)
    .map((part) => part.trim())
    .filter(Boolean);

/** A date as a file writes it, with or without a time after it; null where it is none. */
function readDay(typed: string, dates: DateForm): LocalDate | null {
  const text = typed.replace(/[T ].*$/, '');
  if (isLocalDate(text)) return text;
  const [, first = '', second = '', year] = /^(\d{1,2})[./-](\d{1,2})[./-](\d{4})$/.exec(text) ?? [];
  if (!year || dates === 'year-first') return null;
  const [day, month] = dates === 'day-first' ? [first, second] : [second, first];
  const date = `${year}-${month.padStart(2, '0')}-${day.padStart(2, '0')}`;
  return isLocalDate(date) ? date : null;
}

/**
 * Of each line, the number of an earlier one with the same address and tier; null where there is none. Lines count from
 * `first`. Several tiers of one member can be in a line each.
 */
export function doublesIn(lines: string[][], columns: ColumnMap, first: number): (number | null)[] {
  const [email, tier] = [columns.indexOf('email'), columns.indexOf('tier')];
  const seen = new Map<string, number>();
  return lines.map((cells, index) => {
    const key = [cells[email], cells[tier]].map((cell) => (cell ?? '').trim().toLowerCase()).join('\n');
    const earlier = key.startsWith('\n') ? undefined : seen.get(key);
    if (earlier === undefined) seen.set(key, first + index);
    return earlier ?? null;
  });
}
