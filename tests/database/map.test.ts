import { beforeAll, describe, expect, it } from 'vitest';
import { applyDraft, draftMembers, previewDraft, undoDraft } from '../../src/access/services/draft';
import { differingRows, exportMap, mapScreen, moreRows } from '../../src/access/services/map';
import { saveRule } from '../../src/access/services/save-rule';
import { viewItem } from '../../src/access/services/view-item';
import { findRule, listRules } from '../../src/access/store/rules';
import { listRights } from '../../src/billing/store/rights';
import { saveItem } from '../../src/content/services/save-item';
import { addMembersToGroup, saveGroup } from '../../src/members/services/groups';
import { fromText } from '../../src/core/content/prose';
import { turningPoints } from '../../src/core/access/rights';
import { SETUP, VISITOR_ACTOR, type Actor } from '../../src/platform/actor';
import { siteNow } from '../../src/platform/clock';
import { currentSite } from '../../src/platform/site';
import { pool } from '../../src/platform/store/db';
import { asMember } from '../../scripts/lib/people';
import { join, lanternMoor, piecesOf, rows, value } from './lantern-moor';

const moor = lanternMoor();
const post = async (id: string, categories: string[]) =>
  value(
    await saveItem(SETUP, {
      id,
      type: 'post',
      title: id,
      body: fromText('Words of it.'),
      publish: 'publish',
      categories,
    }),
  );
const kindAt = async (id: string, actor: Actor = VISITOR_ACTOR) =>
  value(await viewItem(actor, `/posts/${id}`)).kind;
const category = (id: string) => ({ kind: 'category' as const, id });
const single = (id: string) => ({ kind: 'item' as const, id });

describe('the map', () => {
  it('has a line for each group, with how it is set, and rows for what is open', async () => {
    const screen = value(await mapScreen(SETUP, { open: ['category:guides'] }));
    expect(screen.viewpoints.slice(0, 2).map(({ id }) => id)).toEqual(['visitor', 'signed-in']);
    const guides = screen.groups.find(({ key }) => key === 'category:guides');
    const at = screen.viewpoints.findIndex(({ id }) => id === 'tier:observer');
    expect(guides?.cells[0]).toEqual({ state: 'closed', isOwn: true });
    expect(guides?.cells[at]).toEqual({ state: 'open', isOwn: true });
    const rowsOf = screen.rows['category:guides'] ?? [];
    expect(rowsOf).toHaveLength(guides?.count ?? -1);
    // What a rule for its category says is inherited.
    expect(rowsOf.find(({ id }) => id === 'zodiacal-light')?.cells[0]).toEqual({
      state: 'closed',
      isOwn: false,
    });
    expect(rowsOf.find(({ id }) => id === 'first-clear-night')?.cells[0]).toMatchObject({ state: 'open' });
    // What counts from publishing is as for something that comes out now.
    const frames = screen.groups.find(({ key }) => key === 'category:frames');
    expect(frames?.cells[at]).toMatchObject({ state: 'later', isOwn: true });
    const notes = screen.groups.find(({ key }) => key === 'category:sky-notes');
    expect(notes?.cells[0]).toEqual({ state: 'metered', left: 2, isOwn: true });
  });

  it('gives the rest in pieces, finds by words, compares with the group, and has a column for a member', async () => {
    for (let n = 0; n < 65; n++) await post(`many-${n}`, ['clinic']);
    value(
      await saveRule(SETUP, {
        name: 'One of many',
        covers: [single('many-7')],
        openTo: [{ who: { kind: 'everyone' } }],
      }),
    );
    const first = value(await mapScreen(SETUP, { open: ['category:clinic'] }));
    const [total, rowsOf] = [
      first.groups.find(({ key }) => key === 'category:clinic')?.count ?? 0,
      first.rows['category:clinic'] ?? [],
    ];
    const rest = value(await moreRows(SETUP, { group: 'category:clinic', offset: 60 }));
    expect(new Set([...rowsOf, ...rest].map(({ id }) => id)).size).toBe(total);
    const found = value(await mapScreen(SETUP, { search: 'many-64', open: ['category:clinic'] }));
    expect(found.groups.map(({ count }) => count)).toEqual([1]);
    const differing = value(await differingRows(SETUP, { group: 'category:clinic' }));
    expect(differing.rows.map(({ id }) => id)).toEqual(['many-7']);
    const { memberId } = await join(moor, 'observer-monthly', 'works');
    const withMember = value(
      await mapScreen(SETUP, { also: `member:${memberId}`, open: ['category:guides'] }),
    );
    expect(withMember.viewpoints.at(-1)?.id).toBe(`member:${memberId}`);
    expect(withMember.rows['category:guides']?.[0]?.cells.at(-1)).toMatchObject({ state: 'open' });
  });

  it('is a CSV file, a line for each item', async () => {
    const csv = (await piecesOf(value(await exportMap(SETUP, {})).lines())).join('');
    const lines = csv.trim().split('\r\n');
    expect(lines[0]).toMatch(/^group,title,id,Visitor,/);
    expect(lines.some((line) => line.includes('zodiacal-light') && line.includes('closed'))).toBe(true);
  });
});

describe('a draft', () => {
  let gazer: Actor;
  let observer: Actor;
  beforeAll(async () => {
    for (const id of ['d-1', 'd-2', 'd-3']) await post(id, ['frames']);
    gazer = asMember((await join(moor, 'gazer-free', null)).memberId);
    observer = asMember((await join(moor, 'observer-monthly', 'works')).memberId);
  });
  const paint = (target: object, as: string, to: string) => ({ target, as, to });

  it('is shown on the map as if it were applied, and says whom of the real members it affects', async () => {
    const paints = [paint(single('d-1'), 'tier:gazer', 'open')];
    const screen = value(await mapScreen(SETUP, { paints, open: ['category:frames'] }));
    const at = screen.viewpoints.findIndex(({ id }) => id === 'tier:gazer');
    expect(screen.rows['category:frames']?.find(({ id }) => id === 'd-1')?.cells[at]).toMatchObject({
      state: 'open',
      isOwn: true,
    });
    const preview = value(await previewDraft(SETUP, { paints }));
    expect(preview.changes).toMatchObject([{ name: 'd-1', before: null }]);
    expect(preview.items).toBe(1);
    expect(preview.viewpoints).toMatchObject([{ name: 'Gazer', opens: { count: 1, some: ['d-1'] } }]);
    expect(preview.members).toMatchObject({ gain: 1, lose: 0, affected: 1 });
    const names = value(await draftMembers(SETUP, { paints, which: 'gain' }));
    expect(names.map(({ id }) => id)).toEqual([gazer.memberId]);
    expect(value(await draftMembers(SETUP, { paints, which: 'lose' }))).toEqual([]);
    expect(await kindAt('d-1', gazer)).toBe('doorstep');
  });

  it('is applied as a whole, and undone as a whole', async () => {
    const paints = [
      paint(single('d-1'), 'tier:gazer', 'open'),
      paint(category('sky-notes'), 'signed-in', 'open'),
      paint(category('clinic'), 'tier:mirror-makers', 'closed'),
    ];
    const before = await listRules(pool());
    const { stamp, changes } = value(await previewDraft(SETUP, { paints }));
    expect(changes.map(({ id }) => id).sort()).toEqual(['clinic', 'd-1', 'sky-notes']);
    const { entry } = value(await applyDraft(SETUP, { paints, stamp }));
    expect(await kindAt('d-1', gazer)).toBe('open');
    expect(await kindAt('many-1', gazer)).toBe('doorstep');
    expect((await findRule(pool(), 'sky-notes'))?.meter).toBe('notes');
    value(await undoDraft(SETUP, { entry }));
    const shape = (all: typeof before) => all.map(({ version: _, ...rule }) => JSON.stringify(rule)).sort();
    expect(shape(await listRules(pool()))).toEqual(shape(before));
    expect(await kindAt('d-1', gazer)).toBe('doorstep');
  });

  it('is not applied to other rules than it was looked at with, nor undone over a later change', async () => {
    const paints = [paint(single('d-2'), 'visitor', 'open')];
    const { stamp } = value(await previewDraft(SETUP, { paints }));
    value(await saveRule(SETUP, { name: 'Meanwhile', covers: [single('d-3')], openTo: [] }));
    expect(await applyDraft(SETUP, { paints, stamp })).toMatchObject({
      ok: false,
      problems: { '': { code: 'draft.rules-changed' } },
    });
    const again = value(await previewDraft(SETUP, { paints }));
    const { entry } = value(await applyDraft(SETUP, { paints, stamp: again.stamp }));
    expect(await kindAt('d-2')).toBe('open');
    const made = await findRule(pool(), 'd-2');
    value(await saveRule(SETUP, { ...made, name: 'By hand' }));
    expect(await undoDraft(SETUP, { entry })).toMatchObject({
      ok: false,
      problems: { '': { code: 'draft.touched' } },
    });
    expect(await kindAt('d-2')).toBe('open');
  });

  it('of two at once, one is refused', async () => {
    const paints = [paint(single('many-2'), 'visitor', 'open')];
    const { stamp } = value(await previewDraft(SETUP, { paints }));
    const both = await Promise.all([
      applyDraft(SETUP, { paints, stamp }),
      applyDraft(SETUP, { paints, stamp }),
    ]);
    expect(both.filter(({ ok }) => ok)).toHaveLength(1);
    expect((await listRules(pool())).filter(({ id }) => id.startsWith('many-2'))).toHaveLength(1);
  });

  it('says which cells stay as they are, because another rule covers them too', async () => {
    value(
      await saveRule(SETUP, {
        id: 'narrow',
        name: 'Only wardens',
        covers: [single('d-1')],
        openTo: [{ who: { kind: 'tier', id: 'warden' } }],
        alsoRequire: true,
      }),
    );
    const { notAsPainted } = value(
      await previewDraft(SETUP, { paints: [paint(single('d-1'), 'tier:gazer', 'open')] }),
    );
    expect(notAsPainted).toMatchObject([{ target: 'd-1', as: 'Gazer', rules: ['Only wardens'] }]);
    expect(await kindAt('d-1', observer)).toBe('doorstep');
  });
});

describe('the rights of members', () => {
  it('put together those who are decided alike, by tiers, groups and how long they have them', async () => {
    value(await saveGroup(SETUP, { id: '', name: 'Helpers' }));
    const one = await join(moor, 'gazer-free', null);
    value(await addMembersToGroup(SETUP, { id: 'helpers', addresses: one.email }));
    const site = await currentSite();
    const [mode, at] = [site.mode, siteNow(site)];
    const all = await listRights(pool(), { mode, at, points: [], named: [] });
    expect(all.reduce((sum, { members }) => sum + members, 0)).toBe(
      Number((await rows<{ n: string }>('SELECT count(*) AS n FROM members WHERE deleted_at IS NULL'))[0]?.n),
    );
    expect(all.find(({ groups }) => groups.includes('helpers'))).toMatchObject({
      members: 1,
      tiers: [{ tier: 'gazer', paid: false }],
    });
    // A wait of three days from holding parts those who have waited from those who have not.
    const opens = { since: 'held', after: { n: 3, unit: 'day' } } as const;
    const rule = {
      id: 'r',
      covers: [category('guides')],
      openTo: [{ who: { kind: 'paying' }, opens }],
    } as const;
    await rows(`UPDATE holdings SET from_at = from_at - interval '4 days', since_at = since_at - interval '4 days'
                WHERE member_id = '${one.memberId}'`);
    const points = turningPoints(
      [{ ...rule, covers: [...rule.covers], openTo: [...rule.openTo] }],
      ['held'],
      at,
      site.zone,
    );
    expect(points).toHaveLength(1);
    const parted = await listRights(pool(), { mode, at, points, named: [one.memberId] });
    const held = parted.find(({ memberId }) => memberId === one.memberId);
    expect(held?.tiers[0]?.since && held.tiers[0].since < (points[0] ?? '')).toBe(true);
    expect(parted.length).toBeGreaterThan(0);
  });
});
