import { beforeAll, describe, expect, it } from 'vitest';
import { changeMembers, countForChange, type Changed } from '../../src/members/services/change-members';
import { exportMembers } from '../../src/members/services/export-members';
import { findMembers, memberFacets } from '../../src/members/services/find-members';
import { newLetter } from '../../src/members/services/letters';
import { setMailTopic } from '../../src/mail/services/mail-topics';
import { importMembers } from '../../src/members/services/import-members';
import { addNote } from '../../src/members/services/member-notes';
import { deleteMemberView, myMemberViews, saveMemberView } from '../../src/members/services/member-views';
import { blockMember } from '../../src/members/services/block-member';
import { guessColumns } from '../../src/core/people/member-lines';
import type { Actor } from '../../src/platform/actor';
import { parse } from 'csv-parse/sync';
import { heldBy, join, lanternMoor, memberNamed, piecesOf, rows, signInByCode, value } from './lantern-moor';

const moor = lanternMoor();
/** So many that they fill three pages. */
const MANY = 120;
let owner: Actor;
let payer: string;

const find = async (asked: Record<string, unknown> = {}) => value(await findMembers(owner, asked));
const names = async (asked: Record<string, unknown>) => (await find(asked)).rows.map(({ name }) => name);
const idOf = async (email: string): Promise<string> => (await memberNamed(email))?.id ?? '';

beforeAll(async () => {
  owner = { kind: 'staff', memberId: await idOf('ines@moor.example'), staffRole: 'owner' };
  const lines = Array.from({ length: MANY }, (_, n) => [
    `m${n}@list.example`,
    `Member ${String(n).padStart(3, '0')}`,
    n % 3 === 0 ? 'Observer' : '',
    n % 10 === 0 ? 'Committee' : '',
    // All on one day: what they are sorted by is the same, and the id decides.
    '2026-01-05',
  ]);
  const columns = ['email', 'name', 'tier', 'groups', 'joined'];
  value(
    await importMembers(owner, {
      first: 2,
      lines,
      columns,
      dates: 'year-first',
      isPaid: false,
      isDry: false,
    }),
  );
  payer = (await join(moor, 'warden-monthly', 'works')).memberId;
});

describe('the list of members', () => {
  it.each(['joined', 'name'])('sorted by %s, meets everyone once, forwards and back', async (sort) => {
    const seen: string[] = [];
    const pages: string[][] = [];
    for (let after: string | null | undefined; after !== null;) {
      const page: Awaited<ReturnType<typeof find>> = await find({ sort, ...(after && { after }) });
      pages.push(page.rows.map(({ id }) => id));
      seen.push(...page.rows.map(({ id }) => id));
      after = page.following;
    }
    const { count, isNear } = await find();
    expect(isNear).toBe(false);
    expect(new Set(seen).size).toBe(seen.length);
    expect(seen).toHaveLength(count);
    const last = pages.at(-1)?.[0] ?? '';
    const first = await find({ sort });
    const second = await find({ sort, after: first.following });
    expect(second.rows.map(({ id }) => id)).toEqual(pages[1]);
    expect((await find({ sort, before: second.previous })).rows.map(({ id }) => id)).toEqual(pages[0]);
    expect(first.previous).toBeNull();
    expect(last).not.toBe('');
  });

  it('finds by name, address, note, and by what they hold, are in and pay with', async () => {
    const noted = await idOf('m7@list.example');
    value(await addNote(owner, { memberId: noted, words: 'Brings the telescope', isShown: false }));
    expect(await names({ q: 'telescope' })).toEqual(['Member 007']);
    expect(await names({ q: 'm11@list' })).toEqual(['Member 011']);
    expect((await find({ tier: 'observer', q: 'list.example' })).count).toBe(40);
    expect((await find({ group: 'committee', q: 'list.example' })).count).toBe(12);
    expect((await find({ gateway: 'curlew-cards' })).rows.map(({ id }) => id)).toContain(payer);
    expect((await find({ gateway: 'dunlin-wallet' })).count).toBe(0);
    expect((await find({ due: '40' })).rows.map(({ id }) => id)).toEqual([payer]);
    expect((await find({ joinedFrom: '2026-01-05', joinedTo: '2026-01-05' })).count).toBe(MANY);
    expect((await find({ joinedFrom: '2026-01-06', q: 'list.example' })).count).toBe(0);
    expect((await find({ account: 'unconfirmed', q: 'list.example' })).count).toBe(MANY);
  });

  it('knows when someone was last seen, and who is blocked', async () => {
    await signInByCode('m3@list.example');
    expect(await names({ seen: '7', q: 'list.example' })).toEqual(['Member 003']);
    expect((await find({ unseen: '7', q: 'list.example' })).count).toBe(MANY - 1);
    value(await blockMember(owner, await idOf('m4@list.example')));
    expect(await names({ account: 'blocked' })).toEqual(['Member 004']);
  });

  it('narrows nothing by what cannot be read, and answers a made-up place', async () => {
    const { count } = await find();
    expect((await find({ joinedFrom: 'yesterday', due: '-1', sort: 'shoe size', account: 'x' })).count).toBe(
      count,
    );
    expect((await find({ after: 'nonsense' })).rows).toHaveLength(50);
    expect((await find({ after: '00000000-0000-4000-8000-000000000000~not a time' })).rows).toHaveLength(50);
  });

  it('can be of those who were ticked alone, and is of nobody where that cannot be read', async () => {
    const [one, two] = [await idOf('m3@list.example'), await idOf('m40@list.example')];
    const ids = `${one},${two}`;
    expect((await names({ ids })).sort()).toEqual(['Member 003', 'Member 040']);
    const { lines } = value(await exportMembers(owner, { filter: { ids }, form: 'csv' }));
    const emails = (await piecesOf(lines)).flatMap((piece) => piece.match(/m\d+@list\.example/g) ?? []);
    expect(emails.sort()).toEqual(['m3@list.example', 'm40@list.example']);
    value(await setMailTopic(owner, { memberId: one, topic: 'letters', isOn: true }));
    const reachOf = async (asked: string) => value(await newLetter(owner, { ids: asked })).reach;
    expect(await reachOf(ids)).toMatchObject({ listed: 2, members: 1 });
    for (const unreadable of ['x', ',', 'x'.repeat(100_000)]) {
      expect((await find({ ids: unreadable })).count).toBe(0);
      expect(await reachOf(unreadable)).toMatchObject({ listed: 0, members: 0 });
    }
  });

  it('counts what the facets would leave', async () => {
    const facets = value(await memberFacets(owner, {}));
    for (const { id, count } of facets.tier) expect((await find({ tier: id })).count).toBe(count);
    for (const { id, count } of facets.group) expect((await find({ group: id })).count).toBe(count);
    for (const { id, count } of facets.state) expect((await find({ state: id })).count).toBe(count);
    for (const { id, count } of facets.gateway) expect((await find({ gateway: id })).count).toBe(count);
    const narrowed = value(await memberFacets(owner, { group: 'committee', q: 'list.example' }));
    for (const { id, count } of narrowed.tier)
      expect((await find({ tier: id, group: 'committee', q: 'list.example' })).count).toBe(count);
    expect(narrowed.tier).toEqual([{ id: 'observer', count: 4 }]);
  });
});

describe('a change of several', () => {
  const run = async (whom: unknown, deed: unknown): Promise<Omit<Changed, 'next'>> => {
    const all: Omit<Changed, 'next'> = { changed: 0, refused: [] };
    for (let after: string | null = null, more = true; more;) {
      const step: Changed = value(await changeMembers(owner, { whom, deed, after }));
      all.changed += step.changed;
      all.refused.push(...step.refused);
      after = step.next;
      more = after !== null;
    }
    return all;
  };
  const committee = { by: 'filter', filter: { group: 'committee', q: 'list.example' } };

  it('meets all whom a filter leaves, also where it leaves fewer with each', async () => {
    expect(value(await countForChange(owner, committee)).count).toBe(12);
    expect(await run(committee, { do: 'take-out-of-group', groupId: 'committee' })).toEqual({
      changed: 12,
      refused: [],
    });
    expect((await find({ group: 'committee', q: 'list.example' })).count).toBe(0);
    const all = { by: 'filter', filter: { q: 'list.example' } };
    expect((await run(all, { do: 'put-in-group', groupId: 'committee' })).changed).toBe(MANY);
  });

  it('meets those who are ticked alone, and says who was not changed and why', async () => {
    const ids = [await idOf('m1@list.example'), await idOf('m2@list.example'), owner.memberId];
    const give = { do: 'give', tierId: 'warden', term: { for: 'good' }, isTold: false };
    expect((await run({ by: 'ids', ids: ids.slice(0, 2) }, give)).changed).toBe(2);
    expect((await heldBy(ids[0] ?? '')).map(({ tier }) => tier)).toEqual(['warden']);
    const again = await run(
      { by: 'ids', ids: ids.slice(0, 2) },
      { do: 'give', tierId: 'no-tier', term: { for: 'good' }, isTold: false },
    );
    expect(again).toMatchObject({ changed: 0, refused: [{ problems: { tier: { code: 'tier.gone' } } }, {}] });
    // Staff are not among the members whom a list names.
    expect((await run({ by: 'ids', ids }, { do: 'remove' })).changed).toBe(2);
    expect(await rows('SELECT deleted_at FROM members WHERE id = $1', [owner.memberId])).toEqual([
      { deleted_at: null },
    ]);
  });
});

it('an export can be imported again, and changes nothing', async () => {
  const asked = { filter: { q: 'list.example' }, form: 'csv' };
  const text = (await piecesOf(value(await exportMembers(owner, asked)).lines)).join('');
  const [head = [], ...lines] = parse(text);
  const columns = guessColumns(head);
  expect(lines.length).toBeGreaterThan(100);
  const report = value(
    await importMembers(owner, {
      first: 2,
      lines,
      columns,
      dates: 'year-first',
      isPaid: false,
      isDry: false,
    }),
  );
  expect(new Set(report.map(({ is }) => is))).toEqual(new Set(['same']));
  const json = (await piecesOf(value(await exportMembers(owner, { ...asked, form: 'json' })).lines)).join('');
  expect((JSON.parse(json) as { email: string }[]).map(({ email }) => email)).toContain('m7@list.example');
});

it('a view is its maker’s alone, begins at its first page, and is replaced by its name', async () => {
  const other: Actor = { kind: 'staff', memberId: payer, staffRole: 'helper' };
  value(await saveMemberView(owner, { name: 'Wardens', query: 'tier=warden&after=x' }));
  value(await saveMemberView(owner, { name: 'Wardens', query: 'tier=warden&sort=name' }));
  const [view] = value(await myMemberViews(owner));
  expect(view).toMatchObject({ name: 'Wardens', query: 'tier=warden&sort=name' });
  expect(value(await myMemberViews(other))).toEqual([]);
  expect((await deleteMemberView(other, view?.id)).ok).toBe(false);
  value(await deleteMemberView(owner, view?.id));
  expect(value(await myMemberViews(owner))).toEqual([]);
});
