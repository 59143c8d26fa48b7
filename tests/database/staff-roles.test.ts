import { beforeAll, describe, expect, it } from 'vitest';
import { deleteTerm } from '../../src/access/services/delete-term';
import { accessWarnings } from '../../src/access/services/warnings';
import {
  contentCalendar,
  contentPlace,
  contentTerms,
  findItems,
  itemEditor,
  listTrash,
  menuEditor,
} from '../../src/access/services/content-place';
import { addressOfItem, matchingItems, rulebook } from '../../src/access/services/access-map';
import { doorstepsPlace } from '../../src/access/services/doorsteps';
import { exportMap, mapScreen } from '../../src/access/services/map';
import { deskComments } from '../../src/access/services/moderate-comments';
import { saveRule } from '../../src/access/services/save-rule';
import { siteAccess } from '../../src/access/services/site-access';
import { viewItem } from '../../src/access/services/view-item';
import { why } from '../../src/access/services/why';
import { changeItems } from '../../src/content/services/change-items';
import { saveCategory } from '../../src/content/services/categories';
import { duplicateItem } from '../../src/content/services/duplicate-item';
import { itemRevisions, restoreRevision } from '../../src/content/services/revisions';
import { saveItem } from '../../src/content/services/save-item';
import { trashItems } from '../../src/content/services/trash-items';
import { exportSite } from '../../src/desk/services/export-site';
import { findAnything } from '../../src/desk/services/find-anything';
import { readiness } from '../../src/desk/services/go-live';
import { importStep } from '../../src/desk/services/import-site';
import { readAudit } from '../../src/desk/services/read-audit';
import { saveStaffSettings } from '../../src/desk/services/save-staff-settings';
import { taxSettings } from '../../src/desk/services/site-settings';
import { saveTheme, themeSettings } from '../../src/desk/services/theme-settings';
import { reword } from '../../src/desk/services/wording';
import { webhooksPlace } from '../../src/billing/services/webhooks';
import { mailPreview } from '../../src/members/services/mail-preview';
import { tryMail } from '../../src/members/services/try-mail';
import { apiKeys } from '../../src/people/services/api-keys';
import { staffPlace } from '../../src/people/services/staff';
import { paymentList } from '../../src/desk/services/money-lists';
import { rolesPlace, saveRole } from '../../src/desk/services/staff-roles';
import { today } from '../../src/desk/services/today';
import { memberFile } from '../../src/members/services/member-file';
import { findMembers } from '../../src/members/services/find-members';
import { SETUP, type Actor } from '../../src/platform/actor';
import type { StaffRole } from '../../src/core/staff';
import { lanternMoor, memberNamed, newPerson, piecesOf, rows, value } from './lantern-moor';

lanternMoor();
const PASSWORD = 'lantern on the moor';
const SECRET = 'Comet in the cellar';
let owner: Actor;
let item = '';
let draft = '';

const set = async (role: StaffRole, change: Record<string, unknown>): Promise<void> =>
  void value(await saveRole(owner, { role, password: PASSWORD, ...change }));
async function staff(role: StaffRole): Promise<Actor> {
  const { memberId } = await newPerson(`Some ${role}`);
  await rows('UPDATE members SET staff_role = $2 WHERE id = $1', [memberId, role]);
  return { kind: 'staff', memberId, staffRole: role };
}
const post = (actor: Actor, more: Record<string, unknown> = {}) =>
  saveItem(actor, { type: 'post', title: 'Notes', publish: 'draft', categories: ['guides'], ...more });
const codes = (answer: { ok: boolean; problems?: object }): string[] =>
  answer.ok ? [] : Object.values(answer.problems ?? {}).map((one: { code: string }) => one.code);

beforeAll(async () => {
  owner = { kind: 'staff', memberId: (await memberNamed('ines@moor.example'))?.id ?? '', staffRole: 'owner' };
  value(await saveCategory(SETUP, { id: 'cellar', name: 'Cellar', parentId: 'frames' }));
  const one = { type: 'post', categories: ['cellar'], author: 'Ines' };
  item = value(await saveItem(SETUP, { ...one, title: SECRET, publish: 'publish' })).id;
  draft = value(await saveItem(SETUP, { ...one, title: `${SECRET}, part two`, publish: 'draft' })).id;
  const gone = value(await saveItem(SETUP, { ...one, title: `${SECRET}, thrown away`, publish: 'draft' })).id;
  value(await trashItems(SETUP, [gone]));
  value(
    await saveRule(SETUP, {
      name: 'One of the frames',
      covers: [{ kind: 'item', id: item }],
      openTo: [{ who: { kind: 'tier', id: 'warden' } }],
    }),
  );
});

/** All that the Desk shows of items, in one text. */
async function inDesk(actor: Actor): Promise<string> {
  const answers: unknown[] = [];
  for (const kind of ['page', 'post', 'file', 'link'])
    answers.push(
      value(await contentPlace(actor, { kind })),
      value(await contentPlace(actor, { kind, q: 'comet' })),
    );
  answers.push(value(await contentPlace(actor, { kind: 'post', access: 'tiers' })));
  answers.push(value(await contentCalendar(actor, {})), value(await findItems(actor, { q: 'comet' })));
  answers.push(value(await menuEditor(actor)), value(await listTrash(actor)), value(await rulebook(actor)));
  answers.push(value(await mapScreen(actor, { search: 'comet', open: ['category:cellar'] })));
  answers.push(value(await findAnything(actor, 'comet')), value(await matchingItems(actor, '/posts/comet*')));
  answers.push(
    value(await accessWarnings(actor)),
    value(await doorstepsPlace(actor)),
    value(await today(actor)),
  );
  answers.push(value(await siteAccess(actor)), await piecesOf(value(await exportMap(actor)).lines()));
  answers.push(await why(actor, { item, as: 'visitor', on: '' }), await addressOfItem(actor, item));
  return JSON.stringify(answers);
}

describe('what a role may not read', () => {
  it('is there for those who read everything', async () => {
    for (const one of [owner, await staff('editor')]) {
      const all = await inDesk(one);
      for (const title of [SECRET, `${SECRET}, part two`, `${SECRET}, thrown away`])
        expect(all).toContain(title);
    }
  });

  it('is absent from its lists, search, pickers, map and export', async () => {
    for (const role of ['helper', 'viewer'] as const) {
      const found = await inDesk(await staff(role));
      expect(found).not.toContain(SECRET);
      expect(found).not.toContain('comet-in-the-cellar');
      expect(found).toContain('an item that your role may not read');
    }
  });

  it('follows the switch of the role, from the next request on', async () => {
    const viewer = await staff('viewer');
    await set('viewer', { readsAll: true });
    expect(await inDesk(viewer)).toContain(SECRET);
    await set('viewer', { readsAll: false });
    expect(await inDesk(viewer)).not.toContain(SECRET);
    const read = value(await viewItem(viewer, '/posts/comet-in-the-cellar'));
    expect(read).toMatchObject({ kind: 'doorstep' });
  });

  it('holds for a category that is shut to a role which reads all else, and for what lies below it', async () => {
    const editor = await staff('editor');
    await set('editor', { shutFrom: { frames: true } });
    expect(await inDesk(editor)).not.toContain(SECRET);
    expect(JSON.stringify(value(await contentTerms(editor)))).not.toMatch(/Cellar|Raw frames/);
    expect(value(await viewItem(editor, '/posts/comet-in-the-cellar'))).toMatchObject({ kind: 'doorstep' });
    for (const id of [item, draft]) {
      expect(await itemEditor(editor, { id })).toMatchObject({ code: 'missing' });
      expect(codes(await itemRevisions(editor, { id }))).toEqual(['item.not-yours']);
      expect(codes(await restoreRevision(editor, { id, version: 1 }))).toEqual(['item.not-yours']);
      expect(codes(await duplicateItem(editor, id))).toEqual(['item.not-yours']);
      expect(codes(await trashItems(editor, [id]))).toEqual(['item.not-yours']);
      expect(codes(await post(editor, { id, title: 'Mine now' }))).toEqual(['item.not-yours']);
      const change = { kind: 'add-category', category: 'guides' };
      expect(codes(await changeItems(editor, { ids: [id], change }))).toEqual(['item.not-yours']);
    }
    // Nor does anything get in or out by the categories themselves.
    expect(codes(await post(editor, { categories: ['cellar'] }))).toEqual(['item.not-yours']);
    expect((await deleteTerm(editor, { of: 'category', id: 'cellar', into: 'guides' })).ok).toBe(false);
    expect((await saveCategory(editor, { id: 'cellar', name: 'Cellar', parentId: null })).ok).toBe(false);
    await set('editor', { shutFrom: { frames: false } });
    expect(await inDesk(editor)).toContain(SECRET);
  });
});

describe('what a role may write', () => {
  it('can be posts of some categories alone', async () => {
    const editor = await staff('editor');
    await set('editor', { rights: { 'write pages': false }, writes: 'some', writesIn: { guides: true } });
    const mine = value(await post(editor)).id;
    expect(codes(await post(editor, { categories: ['clinic'] }))).toEqual(['item.not-yours']);
    expect(codes(await post(editor, { id: mine, categories: ['clinic'] }))).toEqual(['item.not-yours']);
    expect(codes(await saveItem(editor, { type: 'page', title: 'A page', publish: 'draft' }))).toEqual([
      'item.not-yours',
    ]);
    const listed = value(await contentPlace(editor, { kind: 'post' })).rows;
    for (const row of listed)
      expect([row.item.id, row.mayWrite]).toEqual([row.item.id, row.item.categories.includes('guides')]);
    expect(JSON.stringify(value(await deskComments(editor, {})))).not.toContain(SECRET);
    await set('editor', { rights: { 'write pages': true }, writes: 'all' });
    value(await saveItem(editor, { type: 'page', title: 'A page', publish: 'draft' }));
  });

  it('does not have to be published by it, nor what is out changed', async () => {
    const editor = await staff('editor');
    await set('editor', { rights: { publish: false } });
    const { id } = value(await post(editor, { title: 'Written, not published' }));
    const out = value(await post(owner, { title: 'Out', publish: 'publish' })).id;
    const refused = ['item.not-published-by-you'];
    expect(codes(await post(editor, { id, publish: 'publish' }))).toEqual(refused);
    expect(codes(await post(editor, { id, publish: { at: '2030-01-01T00:00:00Z' } }))).toEqual(refused);
    expect(codes(await changeItems(editor, { ids: [id], change: { kind: 'publish' } }))).toEqual(refused);
    for (const change of [{ kind: 'unpublish' }, { kind: 'author', author: 'Me' }])
      expect(codes(await changeItems(editor, { ids: [out], change }))).toEqual(refused);
    expect(codes(await post(editor, { id: out, title: 'Changed' }))).toEqual(refused);
    expect(codes(await trashItems(editor, [out]))).toEqual(refused);
    value(await trashItems(editor, [id]));
    await set('editor', { rights: { publish: true } });
  });
});

describe('the rights of a role', () => {
  it('are set by the owner alone, with their password; what the form leaves out stays', async () => {
    const editor = await staff('editor');
    expect(await saveRole(editor, { role: 'editor', password: PASSWORD })).toMatchObject({
      code: 'forbidden',
    });
    expect((await saveRole(owner, { role: 'viewer', password: 'wrong', readsAll: true })).ok).toBe(false);
    expect((await saveRole(owner, { role: 'owner', password: PASSWORD })).ok).toBe(false);
    const rights = { 'set up the site': true };
    expect((await saveRole(owner, { role: 'helper', password: PASSWORD, rights })).ok).toBe(false);
    const before = value(await rolesPlace(owner)).roles;
    await set('helper', {});
    expect(value(await rolesPlace(owner)).roles).toEqual(before);
  });

  it('count at once: members and money are closed to a role without them', async () => {
    const viewer = await staff('viewer');
    const maren = (await memberNamed('maren.oakley@moor.example'))?.id;
    expect((await findMembers(viewer, {})).ok).toBe(true);
    await set('viewer', { rights: { 'see members': false, 'see money': false } });
    for (const refused of [
      await findMembers(viewer, {}),
      await memberFile(viewer, maren),
      await paymentList(viewer, {}),
    ])
      expect(refused).toMatchObject({ code: 'forbidden' });
    const found = JSON.stringify([
      value(await findAnything(viewer, 'maren')),
      value(await findAnything(viewer, '')),
    ]);
    expect(found).not.toMatch(/Maren|desk\/money|desk\/members/);
    expect(await why(viewer, { item: 'about', as: `member:${maren ?? ''}`, on: '' })).toMatchObject({
      code: 'missing',
    });
    await set('viewer', { rights: { 'see members': true, 'see money': true } });
    expect((await findMembers(viewer, {})).ok).toBe(true);
  });

  it('can be those to the settings, without those to staff, keys, webhooks and going live', async () => {
    const helper = await staff('helper');
    const { memberId } = await newPerson('Some Reader');
    const theme = value(await themeSettings(owner)).theme;
    const reworded = { key: 'site.join', words: 'Join the moor' };
    expect(await saveTheme(helper, { theme, markId: null })).toMatchObject({ code: 'forbidden' });
    const findable = async (): Promise<string> =>
      JSON.stringify(
        await Promise.all(
          ['theme', 'staff', 'webhooks', 'live'].map(async (name) => value(await findAnything(helper, name))),
        ),
      );
    expect(await findable()).not.toContain('/desk/settings');
    await set('helper', { rights: { 'change settings': true } });
    value(await saveTheme(helper, { theme, markId: null }));
    value(await reword(helper, reworded));
    expect(value(await taxSettings(helper))).toEqual(value(await taxSettings(owner)));
    expect(value(await mailPreview(helper, { template: 'welcome' })).members).not.toEqual([]);
    for (const refused of [
      await staffPlace(helper),
      await rolesPlace(helper),
      await saveStaffSettings(helper, {}),
      await apiKeys(helper),
      await webhooksPlace(helper),
      await readiness(helper),
      await exportSite(helper),
      await importStep(helper, {}),
      await readAudit(helper, {}),
    ])
      expect(refused).toMatchObject({ code: 'forbidden' });
    expect(await findable()).toContain('/desk/settings/theme');
    expect(await findable()).not.toMatch(/settings\/(staff|webhooks|live)/);
    // A mail as a member gets it says something of them.
    await set('helper', { rights: { 'see members': false } });
    expect(value(await mailPreview(helper, { template: 'welcome' }))).toMatchObject({
      preview: null,
      members: [],
    });
    expect(await tryMail(helper, { template: 'welcome', memberId })).toMatchObject({ code: 'forbidden' });
    await set('helper', { rights: { 'see members': true, 'change settings': false } });
  });

  it('follow a category that becomes part of another', async () => {
    value(await saveCategory(SETUP, { id: 'attic', name: 'Attic', parentId: null }));
    await set('editor', { writes: 'some', writesIn: { attic: true }, shutFrom: { attic: true } });
    value(await deleteTerm(SETUP, { of: 'category', id: 'attic', into: 'clinic' }));
    const [editor] = value(await rolesPlace(owner)).roles;
    expect(editor).toMatchObject({ writesIn: ['clinic'], shutFrom: ['clinic'] });
  });
});
