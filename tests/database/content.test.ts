import { beforeAll, describe, expect, it } from 'vitest';
import sharp from 'sharp';
import {
  listTrash,
  menuEditor,
  contentCalendar,
  contentPlace,
  itemEditor,
} from '../../src/access/services/content-place';
import { deleteTerm, removeKind } from '../../src/access/services/delete-term';
import { kindAt, listArchive, listItems, searchSite } from '../../src/access/services/list-items';
import { openFile } from '../../src/access/services/open-file';
import { feedFile, makeFeed, myFeed, privateFeed, revokeFeed } from '../../src/access/services/private-feed';
import { plainHtml } from '../../src/core/content/html';
import { previewItem } from '../../src/access/services/preview-item';
import { saveKind } from '../../src/access/services/save-kind';
import { deleteRule, saveRule } from '../../src/access/services/save-rule';
import { seePicture } from '../../src/access/services/see-picture';
import { siteMenu } from '../../src/access/services/site-menu';
import { viewItem } from '../../src/access/services/view-item';
import { arrangePages } from '../../src/content/services/arrange-pages';
import { saveCategory } from '../../src/content/services/categories';
import { changeItems } from '../../src/content/services/change-items';
import { discardDraft, saveDraft } from '../../src/content/services/drafts';
import { duplicateItem } from '../../src/content/services/duplicate-item';
import { arrangeMenu, removeMenuEntry, saveMenuEntry } from '../../src/content/services/menu';
import { itemRevisions, restoreRevision } from '../../src/content/services/revisions';
import { saveItem } from '../../src/content/services/save-item';
import { saveContentPicture } from '../../src/content/services/save-picture';
import { addTag, renameTag } from '../../src/content/services/tags';
import { deleteItems, restoreItem, trashItems } from '../../src/content/services/trash-items';
import { beginUpload, finishUpload, takePiece } from '../../src/content/services/upload-file';
import { listPublished } from '../../src/content/store/item-lists';
import { findItem, listHeads, listItems as listAllItems, type ItemHead } from '../../src/content/store/items';
import { fromText, type Node, type Prose } from '../../src/core/content/prose';
import { PIECE_BYTES } from '../../src/core/upload-bounds';
import { SETUP, VISITOR_ACTOR, type Actor } from '../../src/platform/actor';
import { siteNow } from '../../src/platform/clock';
import { currentSite } from '../../src/platform/site';
import { pool } from '../../src/platform/store/db';
import { asMember } from '../../scripts/lib/people';
import { doorstepWith } from '../lib/doorsteps';
import { join, lanternMoor, passDays, rows, value } from './lantern-moor';

const moor = lanternMoor();
let observer: Actor;
beforeAll(async () => {
  observer = asMember((await join(moor, 'observer-monthly', 'works')).memberId);
});

const page = (title: string, more: Record<string, unknown> = {}) =>
  saveItem(SETUP, { type: 'page', title, publish: 'publish', ...more });
const post = (title: string, more: Record<string, unknown> = {}) =>
  saveItem(SETUP, { type: 'post', title, publish: 'publish', ...more });
const doc = (...content: Node[]): Prose => ({ type: 'doc', content });
const seen = async (path: string, actor: Actor = VISITOR_ACTOR) => value(await viewItem(actor, path));
const forTier = (tier: string) => ({
  rule: null,
  openTo: [{ who: { kind: 'tier' as const, id: tier } }],
  instead: '',
});

describe('an address', () => {
  it('leads on from every place where a page and those below it have been', async () => {
    const top = value(await page('Hides'));
    const below = value(await page('North hide', { parentId: top.id }));
    expect(below.path).toBe('/hides/north-hide');
    value(await page('Hides', { id: top.id, slug: 'shelters' }));
    value(await page('Hides', { id: top.id, slug: 'huts' }));
    for (const old of ['/hides/north-hide', '/shelters/north-hide'])
      expect(await seen(old)).toEqual({ kind: 'moved', path: '/huts/north-hide' });
    expect(await seen('/hides')).toEqual({ kind: 'moved', path: '/huts' });
    // Another page may take the address, and then it is there.
    value(await page('Hides'));
    expect(await seen('/hides')).toMatchObject({ kind: 'open', item: { title: 'Hides' } });
  });

  it('of an item that was never published is not redirected, and neither is that of a draft', async () => {
    const draft = value(await page('Not yet', { publish: 'draft' }));
    value(await page('Not yet', { id: draft.id, slug: 'later', publish: 'draft' }));
    expect(await seen('/not-yet')).toEqual({ kind: 'missing' });
    const out = value(await page('Out once'));
    value(await page('Out once', { id: out.id, slug: 'gone', publish: 'draft' }));
    expect(await seen('/out-once')).toEqual({ kind: 'missing' });
  });

  it('is refused where a kind has its list, or the product its own', async () => {
    for (const slug of ['posts', 'files', 'search', 'tags', 'downloads'])
      expect(await page('Mine', { slug })).toMatchObject({ problems: { slug: { code: 'item.reserved' } } });
    const under = value(await page('Anything'));
    expect(await page('Mine', { slug: 'x', parentId: under.id })).toMatchObject({ ok: true });
  });

  it('follows a page that is dragged elsewhere in the tree; no page is put below itself', async () => {
    const [a, b] = [value(await page('Dome')), value(await page('Mirror', {}))];
    const c = value(await page('Silver', { parentId: b.id }));
    expect(value(await arrangePages(SETUP, { id: b.id, parentId: a.id, before: null })).path).toBe(
      '/dome/mirror',
    );
    expect(await seen('/mirror/silver')).toEqual({ kind: 'moved', path: '/dome/mirror/silver' });
    expect(await arrangePages(SETUP, { id: a.id, parentId: c.id, before: null })).toMatchObject({
      problems: { '': { code: 'item.own-parent' } },
    });
    value(await page('Mirror'));
    expect(await arrangePages(SETUP, { id: b.id, parentId: null, before: null })).toMatchObject({
      problems: { '': { code: 'item.taken' } },
    });
  });
});

describe('a long list', () => {
  it('says the same of each item as is said of it alone, with all that lies above', async () => {
    const top = value(await page('Observatory'));
    const dome = value(await page('Dome', { parentId: top.id }));
    const hatch = value(await page('Hatch', { parentId: dome.id }));
    await rows(
      `INSERT INTO categories (id, name, parent_id) VALUES ('a-1', 'A', NULL), ('a-2', 'B', 'a-1'), ('a-3', 'C', 'a-2')`,
    );
    const filed = value(await post('Filed', { categories: ['a-3', 'a-1'] }));
    const sorted = (items: ItemHead[]) =>
      items
        .map((item) => ({ ...item, categories: item.categories.toSorted() }))
        .sort((a, b) => a.id.localeCompare(b.id));
    const all = await listAllItems(pool());
    expect(all.find(({ id }) => id === hatch.id)?.ancestors).toEqual([dome.id, top.id]);
    expect(all.find(({ id }) => id === filed.id)?.categories.toSorted()).toEqual(['a-1', 'a-2', 'a-3']);
    expect(sorted(all)).toEqual(
      sorted(
        await listHeads(
          pool(),
          all.map(({ id }) => id),
        ),
      ),
    );
    const now = siteNow(await currentSite());
    const page1 = await listPublished(pool(), now, {}, { limit: 300, offset: 0 });
    expect(sorted((await listPublished(pool(), now)).slice(0, 300))).toEqual(sorted(page1));
  });
});

describe('an item on its way', () => {
  it('is scheduled until its hour comes', async () => {
    const now = siteNow(await currentSite());
    const at = new Date(Date.parse(now) + 36 * 3_600_000).toISOString();
    const { id, path } = value(await post('The occultation', { publish: { at } }));
    expect(await seen(path)).toEqual({ kind: 'missing' });
    const { items } = value(await listItems(VISITOR_ACTOR, {}));
    expect(items.map((item) => item.id)).not.toContain(id);
    expect(value(await contentCalendar(moor.owner, { month: at.slice(0, 7) })).items).toContainEqual(
      expect.objectContaining({ id, state: 'scheduled' }),
    );
    await passDays(moor, 2);
    expect(await seen(path)).toMatchObject({ kind: 'open', item: { title: 'The occultation' } });
  });

  it('is unpublished without losing when it was out', async () => {
    const { id } = value(await post('Withdrawn'));
    value(await post('Withdrawn', { id, publish: 'draft' }));
    const place = value(await contentPlace(moor.owner, { kind: 'post', state: 'unpublished' }));
    expect(place.rows.map(({ item }) => item.id)).toContain(id);
    expect(place.rows.every(({ state }) => state === 'unpublished')).toBe(true);
  });

  it('goes to the trash with all below it, gives its address up, and comes back unpublished', async () => {
    const top = value(await page('Workshop'));
    const below = value(
      await page('Lathe', { parentId: top.id, body: fromText('The chuck is left-handed.') }),
    );
    expect(value(await trashItems(SETUP, [top.id])).count).toBe(2);
    for (const path of ['/workshop', '/workshop/lathe'])
      for (const actor of [VISITOR_ACTOR, moor.owner])
        expect(await seen(path, actor)).toEqual({ kind: 'missing' });
    expect(await page('Workshop', { id: top.id })).toMatchObject({
      problems: { '': { code: 'item.trashed' } },
    });
    value(await page('Workshop'));
    expect(value(await restoreItem(SETUP, top.id)).path).toBe('/workshop-2');
    expect(await findItem(pool(), below.id)).toMatchObject({
      path: '/workshop-2/lathe',
      publishedAt: null,
      trashedAt: null,
      parentId: top.id,
    });
    expect(value(await listTrash(moor.owner)).map(({ id }) => id)).not.toContain(below.id);
  });

  it('is deleted for good from the trash alone', async () => {
    const { id } = value(await page('To be gone'));
    expect(value(await deleteItems(SETUP, [id])).count).toBe(0);
    value(await trashItems(SETUP, [id]));
    expect(value(await deleteItems(SETUP, [id])).count).toBe(1);
    expect(await restoreItem(SETUP, id)).toMatchObject({ code: 'missing' });
  });

  it('is copied as a draft with an address of its own', async () => {
    const { id } = value(await post('Original', { body: fromText('As it was.'), tags: ['moon'] }));
    const copy = value(await duplicateItem(SETUP, id)).id;
    expect(await findItem(pool(), copy)).toMatchObject({
      title: 'Copy of Original',
      path: '/posts/original-2',
      publishedAt: null,
      tags: ['moon'],
    });
  });
});

describe('versions', () => {
  it('are kept, compared and restored; who may read stays as it is', async () => {
    const { id } = value(
      await post('Seeing', { body: fromText('The seeing was good.'), categories: ['sky-notes'] }),
    );
    value(await post('Seeing', { id, body: fromText('The seeing was bad.'), categories: ['guides'] }));
    const { revisions, compared } = value(await itemRevisions(SETUP, { id, version: 1 }));
    expect(revisions.map(({ version }) => version)).toEqual([2, 1]);
    expect(compared?.body.filter(({ is }) => is !== 'same')).toEqual([
      { words: 'good', is: 'removed' },
      { words: 'bad', is: 'added' },
    ]);
    value(await restoreRevision(SETUP, { id, version: 1 }));
    const item = (await findItem(pool(), id))!;
    expect(JSON.stringify(item.body)).toContain('was good');
    expect([item.version, item.ownCategories]).toEqual([3, ['guides']]);
    expect(await restoreRevision(SETUP, { id, version: 99 })).toMatchObject({ code: 'missing' });
  });

  it('are beside what someone has written and not saved: theirs alone, until they save', async () => {
    const { id } = value(await post('Half written', { body: fromText('One.') }));
    const words = {
      key: id,
      baseVersion: 1,
      title: 'Half written',
      summary: '',
      body: fromText('One, two.'),
    };
    value(await saveDraft(moor.owner, words));
    const mine = value(await itemEditor(moor.owner, { id }));
    expect([JSON.stringify(mine.draft?.body), mine.others]).toEqual([expect.stringContaining('two'), []]);
    const other: Actor = { kind: 'staff', memberId: observer.memberId, staffRole: 'editor' };
    const theirs = value(await itemEditor(other, { id }));
    expect(theirs.draft).toBeNull();
    expect(theirs.others).toEqual([{ name: 'Ines Halloway', at: expect.any(String) as string }]);
    // A reader sees none of it.
    expect(JSON.stringify(await seen('/posts/half-written'))).not.toContain('two');
    value(await saveItem(moor.owner, { id, type: 'post', title: 'Half written', publish: 'publish' }));
    expect(value(await itemEditor(moor.owner, { id })).draft).toBeNull();
    value(await saveDraft(moor.owner, words));
    value(await discardDraft(moor.owner, id));
    expect(value(await itemEditor(moor.owner, { id })).draft).toBeNull();
  });
});

describe('kinds', () => {
  it('of the owner have a list, a rule of their own, and addresses that can be changed', async () => {
    const kind = value(
      await saveKind(moor.owner, {
        name: 'Lecture',
        plural: 'Lectures',
        path: '',
        openTo: { who: 'tiers', tiers: ['observer'] },
      }),
    );
    const body = fromText('The crater is named after nobody.');
    value(await saveItem(SETUP, { type: kind.id, title: 'Craters', body, publish: 'publish' }));
    expect(await seen('/lectures/craters')).toMatchObject({ kind: 'doorstep', state: 'closed' });
    expect(JSON.stringify(await seen('/lectures/craters', observer))).toContain('named after nobody');
    expect(value(await kindAt(VISITOR_ACTOR, '/lectures'))).toEqual({
      id: kind.id,
      path: '/lectures',
      name: 'Lecture',
      plural: 'Lectures',
    });
    value(await saveKind(moor.owner, { id: kind.id, name: 'Talk', plural: 'Talks', path: 'talks' }));
    expect(await seen('/lectures/craters')).toEqual({ kind: 'moved', path: '/talks/craters' });
    expect(await removeKind(moor.owner, kind.id)).toMatchObject({
      problems: { '': { code: 'kind.has-items' } },
    });
    expect(await saveKind(moor.owner, { name: 'X', plural: 'Xs', path: 'desk' })).toMatchObject({
      problems: { path: { code: 'item.reserved' } },
    });
    expect(await saveKind(moor.owner, { name: 'X', plural: 'Xs', path: 'visit' })).toMatchObject({
      problems: { path: { code: 'item.taken' } },
    });
    const { id } = (await findItem(
      pool(),
      ((await seen('/talks/craters', observer)) as { item: { id: string } }).item.id,
    ))!;
    value(await trashItems(SETUP, [id]));
    value(await deleteItems(SETUP, [id]));
    expect(await removeKind(moor.owner, kind.id)).toMatchObject({
      problems: { '': { code: 'term.in-rule' } },
    });
    value(await deleteRule(moor.owner, kind.ruleId ?? ''));
    value(await removeKind(moor.owner, kind.id));
    expect(await removeKind(moor.owner, 'post')).toMatchObject({ code: 'missing' });
  });

  it('a link tells where it leads only to those whom it is open to', async () => {
    const target = 'https://sky.example/secret-camera';
    value(
      await saveItem(SETUP, {
        id: 'camera',
        type: 'link',
        title: 'The dome camera',
        target,
        publish: 'publish',
      }),
    );
    value(
      await saveRule(SETUP, {
        id: 'camera',
        name: 'Camera',
        covers: [{ kind: 'item', id: 'camera' }],
        openTo: [{ who: { kind: 'tier', id: 'observer' } }],
      }),
    );
    expect(await seen('/links/the-dome-camera', observer)).toEqual({ kind: 'leads-on', target });
    const shut = await seen('/links/the-dome-camera');
    expect(shut).toMatchObject({ kind: 'doorstep' });
    expect(JSON.stringify([shut, value(await listItems(VISITOR_ACTOR, { type: 'link' }))])).not.toContain(
      'secret-camera',
    );
    expect(
      await saveItem(SETUP, { type: 'link', title: 'Bad', target: 'javascript:1', publish: 'draft' }),
    ).toMatchObject({
      problems: { target: { code: 'item.no-target' } },
    });
  });
});

describe('categories and tags', () => {
  it('are merged and deleted, but not while a rule names them', async () => {
    const from = value(await saveCategory(SETUP, { name: 'Frost' }));
    const into = value(await saveCategory(SETUP, { name: 'Weather' }));
    const child = value(await saveCategory(SETUP, { name: 'Hoar', parentId: from.id }));
    const { id } = value(await post('A white morning', { categories: [from.id] }));
    value(
      await saveRule(SETUP, {
        id: 'frost',
        name: 'Frost',
        covers: [{ kind: 'category', id: from.id }],
        openTo: [],
      }),
    );
    const merge = { of: 'category', id: from.id, into: into.id };
    expect(await deleteTerm(SETUP, merge)).toMatchObject({
      problems: { '': { code: 'term.in-rule', values: { rule: 'Frost' } } },
    });
    value(await deleteRule(SETUP, 'frost'));
    value(await deleteTerm(SETUP, merge));
    expect(await findItem(pool(), id)).toMatchObject({ ownCategories: [into.id] });
    expect(await rows('SELECT parent_id FROM categories WHERE id = $1', [child.id])).toEqual([
      { parent_id: null },
    ]);
  });

  it('a category cannot be above itself, and two have not one name', async () => {
    const top = value(await saveCategory(SETUP, { name: 'Planets' }));
    const below = value(await saveCategory(SETUP, { name: 'Moons', parentId: top.id }));
    expect(await saveCategory(SETUP, { id: top.id, name: 'Planets', parentId: below.id })).toMatchObject({
      problems: { parentId: { code: 'category.own-parent' } },
    });
    expect(await saveCategory(SETUP, { name: 'planets' })).toMatchObject({
      problems: { name: { code: 'category.taken' } },
    });
    // Renamed without a word of its parent, it stays below it.
    value(await saveCategory(SETUP, { id: below.id, name: 'Satellites' }));
    expect(await rows('SELECT name, parent_id FROM categories WHERE id = $1', [below.id])).toEqual([
      { name: 'Satellites', parent_id: top.id },
    ]);
  });

  it('a list of a category holds what is in those below it', async () => {
    const top = value(await saveCategory(SETUP, { name: 'Instruments' }));
    const below = value(await saveCategory(SETUP, { name: 'Eyepieces', parentId: top.id }));
    const { id } = value(await post('A wide eyepiece', { categories: [below.id] }));
    const { items, total } = value(await listItems(VISITOR_ACTOR, { category: top.id }));
    expect([items.map((item) => item.id), total]).toEqual([[id], 1]);
  });

  it('tags are made as they are typed, once, and renamed in their place', async () => {
    const { id } = value(await post('Tagged twice', { tags: ['Full Moon', 'full moon', 'C++', 'C'] }));
    expect((await findItem(pool(), id))?.tags).toEqual(['full-moon', 'c', 'c-2']);
    expect(value(await addTag(SETUP, { name: 'FULL MOON' })).id).toBe('full-moon');
    value(await renameTag(SETUP, { id: 'full-moon', name: 'Moonlight' }));
    expect(await renameTag(SETUP, { id: 'c', name: 'moonlight' })).toMatchObject({
      problems: { name: { code: 'tag.taken' } },
    });
    value(await deleteTerm(SETUP, { of: 'tag', id: 'c', into: 'full-moon' }));
    expect((await findItem(pool(), id))?.tags).toEqual(['full-moon', 'c-2']);
    expect(value(await listItems(VISITOR_ACTOR, { tag: 'full-moon' })).items.map((item) => item.id)).toEqual([
      id,
    ]);
  });
});

describe('many at once', () => {
  it('are changed in one way; what is so already is not counted', async () => {
    const ids: string[] = [];
    for (const n of [1, 2, 3]) ids.push(value(await post(`Of many ${n}`, { publish: 'draft' })).id);
    const change = (what: Record<string, unknown>) => changeItems(SETUP, { ids, change: what });
    expect(value(await change({ kind: 'publish' })).count).toBe(3);
    expect(value(await change({ kind: 'publish' })).count).toBe(0);
    expect(value(await change({ kind: 'add-tag', tag: 'Many' })).count).toBe(3);
    expect(value(await change({ kind: 'add-category', category: 'sky-notes' })).count).toBe(3);
    expect(await change({ kind: 'add-category', category: 'nowhere' })).toMatchObject({
      problems: { category: { code: 'category.gone' } },
    });
    expect(value(await change({ kind: 'unpublish' })).count).toBe(3);
    expect(value(await itemRevisions(SETUP, { id: ids[0] })).revisions).toHaveLength(5);
  });
});

describe('pictures', () => {
  const picture = async (): Promise<string> =>
    value(
      await saveContentPicture(
        SETUP,
        await sharp({ create: { width: 900, height: 300, channels: 3, background: '#123' } })
          .png()
          .toBuffer(),
      ),
    ).id;
  const image = (id: string): Node => ({
    type: 'image',
    attrs: { picture: id, alt: 'The dome', caption: '' },
  });
  const isSeen = async (id: string, actor: Actor = VISITOR_ACTOR): Promise<boolean> =>
    (await seePicture(actor, { id })).ok;

  it('in a text are seen by those who may read that part of it, and by nobody before', async () => {
    const [open, closed, inside] = [await picture(), await picture(), await picture()];
    expect(await isSeen(open)).toBe(false);
    expect(await isSeen(open, moor.owner)).toBe(true);
    value(
      await post('With pictures', {
        body: doc(image(open), { type: 'section', attrs: forTier('observer'), content: [image(inside)] }),
      }),
    );
    value(
      await post('Closed pictures', {
        categories: ['guides'],
        body: doc(...fromText('word '.repeat(200)).content, image(closed)),
      }),
    );
    expect([await isSeen(open), await isSeen(inside), await isSeen(closed)]).toEqual([true, false, false]);
    expect([await isSeen(inside, observer), await isSeen(closed, observer)]).toEqual([true, true]);
  });

  it('beside a title are seen by all once it is out, and are smaller where that is asked for', async () => {
    const id = await picture();
    const { id: item } = value(
      await post('Led by a picture', { pictureId: id, pictureAlt: 'A pale cone', publish: 'draft' }),
    );
    expect(await isSeen(id)).toBe(false);
    value(await post('Led by a picture', { id: item, publish: 'publish' }));
    expect(await isSeen(id)).toBe(true);
    const { bytes } = value(await seePicture(VISITOR_ACTOR, { id, isSmall: true }));
    expect(await sharp(bytes).metadata()).toMatchObject({ format: 'webp', width: 720, height: 240 });
    expect((await listItems(VISITOR_ACTOR, {})).ok).toBe(true);
    expect(await seen('/posts/led-by-a-picture')).toMatchObject({
      item: { picture: { id, width: 900, height: 300, alt: 'A pale cone' } },
    });
  });
});

describe('files', () => {
  const pdf = (size: number): Buffer => Buffer.concat([Buffer.from('%PDF-1.7\n'), Buffer.alloc(size, 'x')]);
  async function upload(name: string, bytes: Buffer, itemId = '') {
    const begun = await beginUpload(SETUP, { name, size: bytes.length });
    if (!begun.ok) return begun;
    const { id } = begun.value;
    for (let number = 0; number * PIECE_BYTES < bytes.length; number++)
      value(
        await takePiece(SETUP, {
          id,
          number,
          bytes: bytes.subarray(number * PIECE_BYTES, (number + 1) * PIECE_BYTES),
        }),
      );
    return finishUpload(SETUP, { id, itemId });
  }
  async function bytesOf(actor: Actor, id: string, range: string | null = null): Promise<Buffer | null> {
    const opened = await openFile(actor, { id, range });
    if (!opened.ok) return null;
    const pieces: Uint8Array[] = [];
    for await (const piece of opened.value.bytes()) pieces.push(piece);
    return Buffer.concat(pieces);
  }

  it('come in pieces, are told by their content, and go out whole or in part', async () => {
    const bytes = pdf(2.5 * PIECE_BYTES);
    bytes.write('middle', PIECE_BYTES - 3);
    const file = value(await upload('Winter Atlas.PDF', bytes));
    expect([file.title, file.path]).toEqual(['Winter Atlas', '/files/winter-atlas.pdf']);
    expect((await bytesOf(VISITOR_ACTOR, file.itemId))?.equals(bytes)).toBe(true);
    const part = `bytes=${PIECE_BYTES - 3}-${PIECE_BYTES + 2}`;
    expect((await bytesOf(VISITOR_ACTOR, file.itemId, part))?.toString()).toBe('middle');
    expect(await seen(file.path)).toMatchObject({
      kind: 'open',
      file: { name: 'Winter Atlas.PDF', mediaType: 'application/pdf', size: bytes.length },
    });
  });

  it('are refused where they are not what they say, or are not whole', async () => {
    expect(await upload('trick.pdf', Buffer.from('<script>alert(1)</script>'))).toMatchObject({
      problems: { '': { code: 'file.unknown-kind' } },
    });
    expect(await upload('page.html', Buffer.from('<p>'))).toMatchObject({
      problems: { '': { code: 'file.unknown-kind' } },
    });
    const { id } = value(await beginUpload(SETUP, { name: 'a.pdf', size: 10 }));
    expect(await finishUpload(SETUP, { id })).toMatchObject({
      problems: { '': { code: 'file.incomplete' } },
    });
    value(await takePiece(SETUP, { id, number: 1, bytes: pdf(10) }));
    expect(await finishUpload(SETUP, { id })).toMatchObject({
      problems: { '': { code: 'file.incomplete' } },
    });
    expect(await takePiece(SETUP, { id, number: 0, bytes: Buffer.alloc(PIECE_BYTES + 1) })).toMatchObject({
      ok: false,
    });
    expect(await beginUpload(SETUP, { name: 'a.pdf', size: 2_000_000_000 })).toMatchObject({
      problems: { '': { code: 'file.too-large' } },
    });
  });

  it('are replaced where they are: the address, the rules and what offers them stay', async () => {
    const file = value(await upload('Finder.pdf', pdf(100)));
    const again = value(await upload('Finder chart.pdf', pdf(5), file.itemId));
    expect(again.path).toBe(file.path);
    expect((await bytesOf(VISITOR_ACTOR, file.itemId))?.length).toBe(pdf(5).length);
    expect(await rows('SELECT count(*)::int AS n FROM files WHERE item_id = $1', [file.itemId])).toEqual([
      { n: 1 },
    ]);
  });

  it('that no rule covers are as open as the most open text that offers them, sections included', async () => {
    const file = value(await upload('Frames.pdf', pdf(50)));
    const offer: Node = { type: 'file', attrs: { item: file.itemId } };
    const inGuide = value(await post('A guide with a file', { categories: ['guides'], body: doc(offer) }));
    expect(await bytesOf(VISITOR_ACTOR, file.itemId)).toBeNull();
    expect(await bytesOf(observer, file.itemId)).not.toBeNull();
    const guide = await seen('/posts/a-guide-with-a-file', observer);
    expect(guide).toMatchObject({
      shown: { files: { [file.itemId]: { isOpen: true, name: 'Frames.pdf' } } },
    });
    // Offered in a closed section of an open post too, it stays closed to visitors; in the open part, it is open.
    const section: Node = { type: 'section', attrs: forTier('warden'), content: [offer] };
    const beside = value(await post('An open post', { body: doc(...fromText('Hello.').content, section) }));
    expect(await bytesOf(VISITOR_ACTOR, file.itemId)).toBeNull();
    value(await post('An open post', { id: beside.id, body: doc(offer) }));
    expect(await bytesOf(VISITOR_ACTOR, file.itemId)).not.toBeNull();
    // A rule of its own comes before all that.
    value(
      await saveRule(SETUP, {
        id: 'file',
        name: 'File',
        covers: [{ kind: 'item', id: file.itemId }],
        openTo: [{ who: { kind: 'tier', id: 'warden' } }],
      }),
    );
    expect([await bytesOf(VISITOR_ACTOR, file.itemId), await bytesOf(observer, file.itemId)]).toEqual([
      null,
      null,
    ]);
    value(await deleteRule(SETUP, 'file'));
    value(await trashItems(SETUP, [beside.id, inGuide.id]));
  });
});

describe('links to items', () => {
  it('lead where the item is by now, and to nothing that is not out', async () => {
    const target = value(await page('The ford'));
    const hidden = value(await page('A draft', { publish: 'draft' }));
    const link = (id: string, href: string): Node => ({
      type: 'paragraph',
      content: [{ type: 'text', text: 'there', marks: [{ type: 'link', attrs: { href, item: id } }] }],
    });
    value(await post('Ways', { body: doc(link(target.id, '/the-ford'), link(hidden.id, '/a-draft')) }));
    value(await page('The ford', { id: target.id, slug: 'crossing' }));
    expect(await seen('/posts/ways')).toMatchObject({ shown: { links: { [target.id]: '/crossing' } } });
    expect(JSON.stringify(((await seen('/posts/ways')) as { shown: unknown }).shown)).not.toContain('draft');
  });
});

describe('search', () => {
  it('finds titles for all, texts for those whom they are open to, and sections for nobody', async () => {
    const find = async (actor: Actor, words: string): Promise<string[]> =>
      value(await searchSite(actor, { words })).items.map((item) => item.title);
    value(await post('Heliotrope nights', { categories: ['guides'], body: fromText('The quokka sleeps.') }));
    value(
      await post('Open to all', {
        body: doc(...fromText('A wallaby walks.').content, {
          type: 'section',
          attrs: forTier('observer'),
          content: fromText('A numbat hides.').content,
        }),
      }),
    );
    expect(await find(VISITOR_ACTOR, 'heliotrope night')).toEqual(['Heliotrope nights']);
    expect(await find(VISITOR_ACTOR, 'quokka')).toEqual([]);
    expect(await find(observer, 'quokkas sleeping')).toEqual(['Heliotrope nights']);
    expect(await find(VISITOR_ACTOR, 'wallabies')).toEqual(['Open to all']);
    expect([await find(VISITOR_ACTOR, 'numbat'), await find(observer, 'numbat')]).toEqual([[], []]);
    expect(await find(VISITOR_ACTOR, '')).toEqual([]);
    expect(await find(VISITOR_ACTOR, `'"&|!:*(`)).toEqual([]);
  });

  it('finds a summary only where the doorstep shows it', async () => {
    const rule = (kind: 'none' | 'summary') => ({
      id: 'shy',
      name: 'Shy',
      covers: [{ kind: 'item', id: 'shy-post' }],
      openTo: [],
      doorstep: doorstepWith({ teaser: { kind } }),
    });
    value(await post('Shy', { id: 'shy-post', summary: 'A bandicoot digs.' }));
    value(await saveRule(SETUP, rule('none')));
    expect(value(await searchSite(VISITOR_ACTOR, { words: 'bandicoot' })).items).toEqual([]);
    value(await saveRule(SETUP, { ...rule('summary'), version: 1 }));
    expect(value(await searchSite(VISITOR_ACTOR, { words: 'bandicoot' })).items).toHaveLength(1);
  });
});

describe('lists of the site', () => {
  it('come in pages, and by month', async () => {
    const all = value(await listItems(VISITOR_ACTOR, { size: 100 }));
    const [one, two] = [
      value(await listItems(VISITOR_ACTOR, { size: 5 })),
      value(await listItems(VISITOR_ACTOR, { size: 5, page: 2 })),
    ];
    expect([...one.items, ...two.items].map(({ id }) => id)).toEqual(
      all.items.slice(0, 10).map(({ id }) => id),
    );
    const months = value(await listArchive(VISITOR_ACTOR));
    const inMonths = months.reduce((sum, { items }) => sum + items, 0);
    expect(inMonths).toBe(value(await listItems(VISITOR_ACTOR, { type: 'post', size: 1 })).total);
    const first = value(await listItems(VISITOR_ACTOR, { type: 'post', month: months[0]?.month, size: 100 }));
    expect(first.total).toBe(months[0]?.items);
  });
});

describe('the menu', () => {
  it('shows entries to those they are meant for, nested, and leaves out entries whose target is gone', async () => {
    const titles = async (actor: Actor): Promise<string[]> =>
      value(await siteMenu(actor)).flatMap((entry) => [
        entry.title,
        ...entry.below.map((one) => `> ${one.title}`),
      ]);
    for (const { id, parentId } of value(await menuEditor(moor.owner)).entries)
      if (parentId === null) value(await removeMenuEntry(SETUP, id));
    const add = async (entry: Record<string, unknown>): Promise<string> =>
      value(await saveMenuEntry(SETUP, entry)).id;
    const top = await add({ kind: 'heading', label: 'Read' });
    const room = await add({ kind: 'item', target: 'members-room', audience: 'can-open' });
    const signIn = await add({ kind: 'sign-in' });
    const join = await add({ kind: 'join', audience: 'signed-out' });
    const account = await add({ kind: 'account', audience: 'signed-in' });
    const outside = await add({ kind: 'outside', target: 'https://sky.example/', label: 'The weather' });
    const gone = await add({ kind: 'item', target: 'no-such-item' });
    const places = [top, room, signIn, join, account, outside, gone].map((id) => ({
      id,
      parentId: id === room ? top : null,
    }));
    value(await arrangeMenu(SETUP, places));
    expect(await titles(VISITOR_ACTOR)).toEqual(['Sign in', 'Join', 'The weather']);
    expect(await titles(observer)).toEqual([
      'Read',
      '> Members’ room',
      'Sign out',
      'Your account',
      'The weather',
    ]);
    expect(await arrangeMenu(SETUP, places.slice(1))).toMatchObject({
      problems: { '': { code: 'menu.changed-elsewhere' } },
    });
    expect(await saveMenuEntry(SETUP, { kind: 'outside', target: 'javascript:1', label: 'x' })).toMatchObject(
      { ok: false },
    );
    value(await removeMenuEntry(SETUP, top));
    expect(await titles(observer)).toEqual(['Sign out', 'Your account', 'The weather']);
  });
});

describe('the Content place', () => {
  it('says of each item who opens it and what sets that, and filters by it', async () => {
    const place = async (filter: Record<string, unknown>) => value(await contentPlace(moor.owner, filter));
    const guides = await place({ kind: 'post', category: 'guides' });
    const row = guides.rows.find(({ item }) => item.id === 'zodiacal-light')!;
    expect(row.access).toMatchObject({
      openers: { to: 'tiers', tiers: [{ id: 'warden' }, { id: 'observer' }] },
      setBy: { by: 'inherited', rules: [{ name: 'Observing guides' }] },
    });
    const tree = await place({});
    expect(tree.isTree).toBe(true);
    const own = tree.rows.find(({ item }) => item.id === 'members-room')!;
    expect(own.access).toMatchObject({ openers: { to: 'signed-in' }, setBy: { by: 'own' } });
    expect((await place({ kind: 'page', access: 'own' })).rows.map(({ item }) => item.id)).toContain(
      'library',
    );
    expect(
      (await place({ kind: 'post', access: 'everyone' })).rows.every(
        ({ access }) => access.openers.to === 'everyone',
      ),
    ).toBe(true);
    expect((await place({ kind: 'post', q: '100%' })).rows).toEqual([]);
    expect((await place({ kind: 'post', q: 'zodiacal' })).rows.map(({ item }) => item.id)).toEqual([
      'zodiacal-light',
    ]);
  });
});

describe('a private feed', () => {
  it('carries what its member may read, for as long as they may and its address is good', async () => {
    const gazer = asMember((await join(moor, 'gazer-free', null)).memberId);
    const { token } = value(await makeFeed(observer));
    const read = async (given: string): Promise<string> =>
      JSON.stringify(await privateFeed(VISITOR_ACTOR, { token: given }));
    expect(await read(token)).toContain('third gatepost');
    const other = value(await makeFeed(gazer)).token;
    expect(await read(other)).not.toMatch(/third gatepost|Frames 61/);
    expect(await read(other)).toContain('Finding the zodiacal light');
    // Another address in its place, and none at all.
    const next = value(await makeFeed(observer)).token;
    expect(
      [await read(token), await read('x'.repeat(43))].every((answer) => answer.includes('missing')),
    ).toBe(true);
    value(await revokeFeed(observer));
    expect(await read(next)).toContain('missing');
    expect(value(await myFeed(observer)).since).toBeNull();
  });

  it('of staff carries what a member of theirs would read, not all that they see at the Desk', async () => {
    const { token } = value(await makeFeed(moor.owner));
    expect(JSON.stringify(await privateFeed(VISITOR_ACTOR, { token }))).not.toContain('third gatepost');
  });

  it('has sound as an enclosure, fetched by its token', async () => {
    const sound = Buffer.concat([
      Buffer.from('ID3\u0003\0\0\0\0\0\0', 'latin1'),
      Buffer.from([0xff, 0xfb, 0x90, 0x64]),
      Buffer.alloc(2000),
    ]);
    const { id } = value(await beginUpload(SETUP, { name: 'Night walk.mp3', size: sound.length }));
    value(await takePiece(SETUP, { id, number: 0, bytes: sound }));
    const { itemId } = value(await finishUpload(SETUP, { id, itemId: '' }));
    const body = doc(...fromText('Listen.').content, { type: 'file', attrs: { item: itemId } });
    value(await post('A walk to hear', { categories: ['guides'], body }));
    const { token } = value(await makeFeed(observer));
    const { items } = value(await privateFeed(VISITOR_ACTOR, { token }));
    const walk = items.find(({ title }) => title === 'A walk to hear')!;
    expect(walk.enclosures).toEqual([
      { id: itemId, name: 'Night walk.mp3', mediaType: 'audio/mpeg', size: sound.length },
    ]);
    const fileHref = (id: string, { name }: { name: string }): string =>
      `https://moor.example/f/${id}/${encodeURIComponent(name)}`;
    const where = { base: 'https://moor.example', fileHref, shown: walk.shown };
    expect(plainHtml(walk.body!, where)).toBe(
      `<p>Listen.</p><p><a href="https://moor.example/f/${itemId}/Night%20walk.mp3">Night walk</a></p>`,
    );
    expect(await feedFile(VISITOR_ACTOR, { token, id: itemId, range: null })).toMatchObject({ ok: true });
    expect(await openFile(VISITOR_ACTOR, { id: itemId, range: null })).toMatchObject({ ok: false });
    value(await revokeFeed(observer));
    expect(await feedFile(VISITOR_ACTOR, { token, id: itemId, range: null })).toMatchObject({ ok: false });
  });
});

describe('a preview', () => {
  const asked = (id: string, as: string, more: Record<string, unknown> = {}) =>
    previewItem(moor.owner, {
      id,
      type: 'post',
      title: 'T',
      summary: 'In short',
      body: fromText('Open words.'),
      as,
      ...more,
    });

  it('shows what is being written as each would be shown it, by the rules of the item', async () => {
    const { id } = value(await post('For observers', { publish: 'draft' }));
    value(
      await saveRule(SETUP, {
        id: 'previewed',
        name: 'Previewed',
        on: true,
        covers: [{ kind: 'item', id }],
        openTo: [{ who: { kind: 'tier', id: 'observer' } }],
      }),
    );
    const words = Array.from({ length: 300 }, (_, n) => `word${n}`).join(' ');
    const body = fromText(`${words} the last of it`);
    const visitor = value(await asked(id, 'visitor', { body }));
    expect(visitor.doorstep?.tiers).toContain('Observer');
    expect(JSON.stringify(visitor)).not.toContain('the last of it');
    const holder = value(await asked(id, 'tier:observer', { body }));
    expect(holder.doorstep).toBeNull();
    expect(JSON.stringify(holder.text)).toContain('the last of it');
    // Nothing of it was saved.
    expect(JSON.stringify((await findItem(pool(), id))?.body)).not.toContain('word7');
    value(await deleteRule(SETUP, 'previewed'));
  });

  it('closes the sections of what is not yet saved', async () => {
    const closed: Node = {
      type: 'section',
      attrs: forTier('observer'),
      content: fromText('Behind the gate.').content,
    };
    const body = doc(...fromText('In front of it.').content, closed);
    expect(JSON.stringify(value(await asked('', 'signed-in', { body })).text)).not.toContain(
      'Behind the gate',
    );
    expect(JSON.stringify(value(await asked('', 'tier:observer', { body })).text)).toContain(
      'Behind the gate',
    );
    expect(await asked('', 'nobody-at-all', { body })).toMatchObject({ code: 'missing' });
    expect(await asked('no-such-item', 'visitor', { body })).toMatchObject({ code: 'missing' });
  });
});
