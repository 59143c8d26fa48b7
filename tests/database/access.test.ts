import { describe, expect, it } from 'vitest';
import { VISITOR } from '../../src/core/access/facts';
import { SETUP, type Actor } from '../../src/services/actor';
import { accessMap, closedToVisitors, openersOf } from '../../src/services/access-map';
import { findAnything } from '../../src/services/find-anything';
import { readMarkdown } from '../../src/services/import-items';
import { addCategory, saveItem } from '../../src/services/save-item';
import { deleteRule, saveRule } from '../../src/services/save-rule';
import { saveTier } from '../../src/services/save-tier';
import { saveOffer } from '../../src/services/save-offer';
import { connectGateway } from '../../src/services/connect-gateway';
import { listItemsFor, viewItem } from '../../src/services/view-item';
import { viewerOf } from '../../src/services/viewer';
import { pool } from '../../src/store/db';
import { findItem } from '../../src/store/items';
import { listRules } from '../../src/store/rules';
import { join, memberNamed, rows, lanternMoor } from './lantern-moor';

const moor = lanternMoor();
const guide = '/posts/zodiacal-light';
const secret = 'third gatepost';

describe('what a person sees at an address', () => {
  it('is the teaser and the doorstep for a visitor: no closed word goes on', async () => {
    const seen = await viewItem(guide, VISITOR);
    expect(seen).toMatchObject({ kind: 'doorstep', state: 'closed', showSignIn: true });
    expect(JSON.stringify(seen)).not.toContain(secret);
    expect(JSON.stringify(seen)).toContain('Stand with the dome');
    expect(seen.kind === 'doorstep' && seen.tiers.map(({ tier }) => tier.id)).toEqual(['observer', 'warden']);
  });

  it('is the whole for a member who holds the tier, and the doorstep for one who does not', async () => {
    const { email } = await join(moor, 'observer-monthly', 'works');
    const observer = await viewerOf(await memberNamed(email), undefined);
    expect(JSON.stringify(await viewItem(guide, observer.person))).toContain(secret);
    const gazer = await join(moor, 'gazer-free', null);
    const other = await viewItem(guide, (await viewerOf(await memberNamed(gazer.email), undefined)).person);
    expect(other).toMatchObject({
      kind: 'doorstep',
      notice: 'Your tier does not open the guides yet.',
      showSignIn: false,
    });
    expect(JSON.stringify(other)).not.toContain(secret);
  });

  it('is a wait with its instant where the rule says so', async () => {
    const seen = await viewItem('/posts/frames-horsehead', VISITOR);
    expect(seen).toMatchObject({
      kind: 'doorstep',
      state: 'later',
      teaser: null,
      opensAt: expect.stringMatching(/Z$/) as string,
    });
  });

  it('is nothing at all for a draft, an unknown address or a crooked one', async () => {
    await saveItem(SETUP, {
      type: 'page',
      title: 'Unfinished',
      body: readMarkdown('Not yet.'),
      publish: 'draft',
    });
    for (const path of ['/unfinished', '/nowhere', '/posts%2Fzodiacal-light'])
      expect(await viewItem(path, VISITOR)).toEqual({ kind: 'missing' });
    const owner = await memberNamed('ines@moor.example');
    expect(await viewItem('/unfinished', (await viewerOf(owner, undefined)).person)).toMatchObject({
      kind: 'open',
      isDraft: true,
    });
  });

  it('is never a teaser that holds the whole', async () => {
    await saveItem(SETUP, {
      id: 'short',
      type: 'post',
      title: 'Short',
      body: readMarkdown('Only three words.'),
      publish: 'publish',
      categories: ['guides'],
    });
    expect(JSON.stringify(await viewItem('/posts/short', VISITOR))).not.toContain('three');
  });

  it('in lists and feeds is the title and what the doorstep allows', async () => {
    const items = await listItemsFor(VISITOR, { type: 'post' });
    expect(JSON.stringify(items)).not.toContain(secret);
    expect(items.find((item) => item.id === 'zodiacal-light')).toMatchObject({
      isOpen: false,
      summary: expect.stringContaining('pale cone') as string,
    });
  });
});

describe('through other eyes', () => {
  it('staff see what a visitor or a new holder sees; nobody else can look so', async () => {
    const owner = await memberNamed('ines@moor.example');
    expect((await viewItem(guide, (await viewerOf(owner, undefined)).person)).kind).toBe('open');
    expect((await viewItem(guide, (await viewerOf(owner, 'visitor')).person)).kind).toBe('doorstep');
    expect((await viewItem(guide, (await viewerOf(owner, 'tier:gazer')).person)).kind).toBe('doorstep');
    expect((await viewItem(guide, (await viewerOf(owner, 'tier:observer')).person)).kind).toBe('open');
    const { email } = await join(moor, 'gazer-free', null);
    expect((await viewerOf(await memberNamed(email), 'tier:observer')).lookingAs).toBeNull();
  });
});

describe('rules', () => {
  it('hold from the next request on, and gone they are as if never there', async () => {
    const map = await accessMap();
    expect(openersOf(map, 'about')).toEqual({ to: 'everyone' });
    const made = await saveRule(SETUP, {
      name: 'About',
      covers: [{ kind: 'item', id: 'about' }],
      openTo: [{ who: { kind: 'tier', id: 'warden' } }],
    });
    expect(made).toMatchObject({ ok: true, value: { id: 'about' } });
    const closed = await accessMap();
    expect(closedToVisitors(closed)).toBe(closedToVisitors(map) + 1);
    expect(openersOf(closed, 'about')).toMatchObject({ to: 'tiers', tiers: [{ id: 'warden' }] });
    expect(await deleteRule(SETUP, 'about')).toMatchObject({ ok: true });
    expect(await deleteRule(SETUP, 'about')).toMatchObject({ ok: false });
    expect(openersOf(await accessMap(), 'about')).toEqual({ to: 'everyone' });
  });

  it('are refused in words where they make no sense, and are not overwritten unseen', async () => {
    expect(await saveRule(SETUP, { name: '', covers: [], openTo: [] })).toMatchObject({
      ok: false,
      problems: { name: 'Name the rule.', covers: 'Say what the rule covers.' },
    });
    const rule = (await listRules(pool())).find((candidate) => candidate.id === 'guides');
    expect(await saveRule(SETUP, { ...rule, name: 'Guides' })).toMatchObject({ ok: true });
    expect(await saveRule(SETUP, { ...rule, name: 'Other' })).toMatchObject({
      ok: false,
      problems: { '': expect.stringContaining('Somebody else') as string },
    });
  });

  it('and everything else that staff change stand in the audit', async () => {
    const actions = (await rows<{ action: string }>('SELECT DISTINCT action FROM audit')).map(
      (row) => row.action,
    );
    expect(actions).toEqual(
      expect.arrayContaining([
        'site set up',
        'tier made',
        'offer made',
        'item made',
        'rule made',
        'rule changed',
        'rule deleted',
        'gateway connected',
        'webhook registered',
        'joined',
      ]),
    );
  });
});

describe('content', () => {
  it('moves the addresses below a page along with it', async () => {
    const library = (await findItem(pool(), 'library'))!;
    const saved = await saveItem(SETUP, {
      ...library,
      parentId: null,
      slug: 'stacks',
      categories: library.ownCategories,
      publish: 'publish',
    });
    expect(saved).toMatchObject({ ok: true, value: { path: '/stacks' } });
    expect((await findItem(pool(), 'winter-charts'))?.path).toBe('/stacks/winter-charts');
  });

  it('is refused where an address is taken or kept, a page would stand below itself, or the text is not text', async () => {
    const page = { type: 'page' as const, title: 'X', body: readMarkdown('x'), publish: 'publish' as const };
    expect(await saveItem(SETUP, { ...page, slug: 'about' })).toMatchObject({
      problems: { slug: expect.stringContaining('already') as string },
    });
    expect(await saveItem(SETUP, { ...page, slug: 'desk' })).toMatchObject({
      problems: { slug: expect.stringContaining('kept') as string },
    });
    expect(await saveItem(SETUP, { ...page, id: 'library', parentId: 'winter-charts' })).toMatchObject({
      problems: { parentId: expect.any(String) as string },
    });
    expect(
      (await saveItem(SETUP, { ...page, body: { type: 'doc', content: [{ type: 'script' }] } })).ok,
    ).toBe(false);
    expect((await saveItem(SETUP, { ...page, title: '  ' })).ok).toBe(false);
    expect(await addCategory(SETUP, { name: 'Observing guides', id: 'guides' })).toMatchObject({ ok: false });
  });
});

it('every change is authorised in the service, whatever the screen shows', async () => {
  const viewer: Actor = { kind: 'staff', memberId: null, staffRole: 'viewer' };
  const member: Actor = { kind: 'member', memberId: null, staffRole: null };
  for (const actor of [viewer, member]) {
    await expect(saveTier(actor, { name: 'X' })).rejects.toThrow('may not set tiers');
    await expect(saveOffer(actor, {})).rejects.toThrow('may not set tiers');
    await expect(saveRule(actor, {})).rejects.toThrow('may not set access');
    await expect(deleteRule(actor, 'guides')).rejects.toThrow('may not set access');
    await expect(
      saveItem(actor, { type: 'page', title: 'X', body: readMarkdown('x'), publish: 'draft' }),
    ).rejects.toThrow('may not write content');
    await expect(connectGateway(actor, 'curlew-cards', { siteKey: '', secretKey: '' })).rejects.toThrow(
      'may not manage money',
    );
  }
});

it('finds places, tiers, items and members by name', async () => {
  const { email } = await join(moor, 'gazer-free', null);
  const kinds = async (query: string) => (await findAnything(query)).map((hit) => hit.kind);
  expect(await kinds('observer')).toContain('tier');
  expect(await kinds('zodiacal')).toEqual(['post']);
  expect(await kinds(email)).toEqual(['member']);
  expect(await kinds('100%')).toEqual([]);
  expect((await findAnything('')).length).toBeGreaterThan(5);
});
