import { describe, expect, it } from 'vitest';
import { SETUP, type Actor, VISITOR_ACTOR } from '../../src/platform/actor';
import { accessOf, countClosedToVisitors, readViewpoints } from '../../src/access/services/lib/access-map';
import { findAnything } from '../../src/desk/services/find-anything';
import { fromText, type Prose } from '../../src/core/content/prose';
import { importItem } from '../../src/content/services/import-items';
import { saveCategory } from '../../src/content/services/categories';
import { saveItem } from '../../src/content/services/save-item';
import { deleteRule, saveRule } from '../../src/access/services/save-rule';
import { saveTier } from '../../src/billing/services/save-tier';
import { saveOffer } from '../../src/tiers/services/save-offer';
import { connectGateway } from '../../src/billing/services/connect-gateway';
import { listItems } from '../../src/access/services/list-items';
import { viewItem } from '../../src/access/services/view-item';
import {
  addMembersToGroup,
  deleteGroup,
  removeMemberFromGroup,
  saveGroup,
} from '../../src/members/services/groups';
import { previewRule } from '../../src/access/services/preview-rule';
import { chooseViewpoint } from '../../src/access/services/who-is-looking';
import { why } from '../../src/access/services/why';
import { whySentence } from '../../src/access/ui/why-words';
import { localDate } from '../../src/core/calendar';
import { deskWordsOf } from '../../src/words/desk';
import { shareWithAlike } from '../../src/access/services/share-with-alike';
import { fromMs, toMs } from '../../src/core/instants';
import { siteNow } from '../../src/platform/clock';
import { answering, type InHand } from '../../src/platform/request';
import { currentSite } from '../../src/platform/site';
import { judge, readerFor } from '../../src/access/services/lib/reader';
import { VISITOR } from '../../src/core/access/facts';
import { listPublished } from '../../src/content/store/item-lists';
import { viewerOf } from '../../src/access/services/lib/viewer';
import { pool } from '../../src/platform/store/db';
import { findItem } from '../../src/content/store/items';
import { listRules } from '../../src/access/store/rules';
import { join, memberNamed, rows, lanternMoor, value } from './lantern-moor';

const moor = lanternMoor();
const guide = '/posts/zodiacal-light';
const secret = 'third gatepost';
const readMarkdown = (text: string): Prose => fromText(text);
const actorNamed = async (email: string): Promise<Actor> => {
  const member = await memberNamed(email);
  return {
    kind: member?.staffRole ? 'staff' : 'member',
    memberId: member?.id ?? null,
    staffRole: member?.staffRole ?? null,
  };
};

describe('what a person sees at an address', () => {
  it('is the teaser and the doorstep for a visitor: no closed word is returned', async () => {
    const seen = value(await viewItem(VISITOR_ACTOR, guide));
    expect(seen).toMatchObject({ kind: 'doorstep', state: 'closed', showSignIn: true });
    expect(JSON.stringify(seen)).not.toContain(secret);
    expect(JSON.stringify(seen)).toContain('Stand with the dome');
    expect(seen.kind === 'doorstep' && seen.tiers.map(({ tier }) => tier.id)).toEqual(['observer', 'warden']);
  });

  it('is the whole for a member who holds the tier, and the doorstep for one who does not', async () => {
    const { email } = await join(moor, 'observer-monthly', 'works');
    expect(JSON.stringify(value(await viewItem(await actorNamed(email), guide)))).toContain(secret);
    const gazer = await join(moor, 'gazer-free', null);
    const other = value(await viewItem(await actorNamed(gazer.email), guide));
    expect(other).toMatchObject({
      kind: 'doorstep',
      notice: 'Your tier does not open the guides yet.',
      showSignIn: false,
    });
    expect(JSON.stringify(other)).not.toContain(secret);
  });

  it('is a wait with its instant where the rule says so', async () => {
    const seen = value(await viewItem(VISITOR_ACTOR, '/posts/frames-horsehead'));
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
      expect(value(await viewItem(VISITOR_ACTOR, path))).toEqual({ kind: 'missing' });
    expect(value(await viewItem(await actorNamed('ines@moor.example'), '/unfinished'))).toMatchObject({
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
    expect(JSON.stringify(value(await viewItem(VISITOR_ACTOR, '/posts/short')))).not.toContain('three');
  });

  it('in lists and feeds is the title and what the doorstep allows', async () => {
    const { items } = value(await listItems(VISITOR_ACTOR, { type: 'post' }));
    expect(JSON.stringify(items)).not.toContain(secret);
    expect(items.find((item) => item.id === 'zodiacal-light')).toMatchObject({
      isOpen: false,
      summary: expect.stringContaining('pale cone') as string,
    });
  });
});

describe('sections', () => {
  const gated = (who: object[], instead = ''): object => ({
    rule: null,
    openTo: who.map((one) => ({ who: one })),
    instead,
  });
  const wardens = gated([{ kind: 'tier', id: 'warden' }]);
  const payers = gated([{ kind: 'paying' }], 'a word for members');
  const words = (text: string, attrs?: object): object => ({
    type: 'text',
    text,
    ...(attrs && { marks: [{ type: 'bold' }, { type: 'sectionWords', attrs }] }),
  });
  const line = (...content: object[]): object => ({ type: 'paragraph', content });
  const section = (attrs: object, ...content: object[]): object => ({ type: 'section', attrs, content });
  const item = (...content: object[]): object => ({ type: 'listItem', content });
  /** A secret in each place that a section can be in; each is open to wardens, those marked `-paid` to all who pay. */
  const body = {
    type: 'doc',
    content: [
      section(wardens, line(words('secret-first'))),
      line(words('open-start '), words('secret-words-paid', payers), words(' open-end')),
      section(payers, line(words('secret-outer-paid')), section(wardens, line(words('secret-inner')))),
      section(wardens, section(payers, line(words('secret-open-inside-closed')))),
      {
        type: 'bulletList',
        content: [
          item(line(words('secret-item', wardens))),
          item(section(wardens, line(words('secret-block-in-item')))),
        ],
      },
      {
        type: 'blockquote',
        content: [
          section(wardens, { type: 'heading', attrs: { level: 2 }, content: [words('secret-heading')] }),
        ],
      },
      section(
        { rule: 'guides', openTo: [{ who: { kind: 'everyone' } }], instead: '' },
        line(words('secret-by-rule-paid')),
      ),
      section(
        { rule: 'nothing', openTo: [{ who: { kind: 'everyone' } }], instead: '' },
        line(words('hidden-no-rule')),
      ),
      section(wardens, line(words('secret-last'))),
    ],
  };
  const save = (id: string, categories: string[] = []) =>
    saveItem(SETUP, { id, type: 'post', title: id, body, publish: 'publish', categories });
  const seenBy = async (actor: Actor, id: string): Promise<string> =>
    JSON.stringify(value(await viewItem(actor, `/posts/${id}`)));
  const secretsIn = (sent: string): string[] => [...new Set(sent.match(/(secret|hidden)-[a-z-]+/g) ?? [])];

  it('are sent to those alone whom each of them, all around it and its item let in', async () => {
    expect(value(await save('in-parts'))).toMatchObject({ path: '/posts/in-parts' });
    const gazer = await join(moor, 'gazer-free', null);
    const observer = await join(moor, 'observer-yearly', 'works');
    const warden = await join(moor, 'warden-monthly', 'works');
    for (const actor of [VISITOR_ACTOR, await actorNamed(gazer.email)]) {
      const sent = await seenBy(actor, 'in-parts');
      expect(secretsIn(sent)).toEqual([]);
      expect(sent).toContain('open-start');
      expect(sent).toContain('a word for members');
      expect(sent).not.toMatch(/openTo|sectionWords|"rule"/);
    }
    expect(secretsIn(await seenBy(await actorNamed(observer.email), 'in-parts'))).toEqual([
      'secret-words-paid',
      'secret-outer-paid',
      'secret-by-rule-paid',
    ]);
    expect(secretsIn(await seenBy(await actorNamed(warden.email), 'in-parts'))).toHaveLength(10);
    expect(secretsIn(await seenBy(moor.owner, 'in-parts'))).toContain('hidden-no-rule');
  });

  it('are in no teaser of a closed item, even for people who could open them', async () => {
    await save('in-parts-closed', ['guides']);
    const gazer = await join(moor, 'gazer-free', null);
    for (const actor of [VISITOR_ACTOR, await actorNamed(gazer.email)]) {
      const sent = await seenBy(actor, 'in-parts-closed');
      expect(sent).toContain('doorstep');
      expect(secretsIn(sent)).toEqual([]);
    }
    expect(JSON.stringify(value(await listItems(VISITOR_ACTOR, {})))).not.toContain('secret-');
  });

  it('keep their rule: it cannot be deleted while a section names it', async () => {
    expect(await deleteRule(SETUP, 'guides')).toMatchObject({
      problems: { '': { code: 'rule.in-sections' } },
    });
  });

  it('are imported from Markdown; one that is mistyped is refused, not opened', async () => {
    const markdown = (text: string) =>
      importItem(SETUP, {
        id: 'directive',
        text: `---\ntype: page\ntitle: Directive\npublished: 1\n---\n${text}`,
        now: '2026-01-01T00:00:00Z',
        zone: 'Europe/London',
      });
    value(
      await markdown(
        'Before :section[secret-words]{tiers="warden" instead="ask us"} after.\n\n:::section {paying}\n\nsecret-block\n\n:::\n',
      ),
    );
    const sent = JSON.stringify(value(await viewItem(VISITOR_ACTOR, '/directive')));
    expect(secretsIn(sent)).toEqual([]);
    expect(sent).toContain('ask us');
    for (const text of [
      ':::section {paying}\n\nsecret',
      'One :section[secret',
      '::: section\n\nsecret\n\n:::',
    ])
      expect(await markdown(text), text).toMatchObject({
        problems: { directive: { code: 'import.section-unreadable' } },
      });
  });

  it('are only in pages and posts', async () => {
    const saved = await saveTier(SETUP, { id: 'gazer', description: body });
    expect(saved.ok).toBe(false);
  });
});

describe('through other eyes', () => {
  it('staff see what a visitor or a new holder sees; nobody else can look so', async () => {
    const owner = await actorNamed('ines@moor.example');
    const seenBy = async (actor: Actor): Promise<string> => value(await viewItem(actor, guide)).kind;
    expect(await seenBy(owner)).toBe('open');
    expect(await seenBy({ ...owner, look: 'visitor' })).toBe('doorstep');
    expect(await seenBy({ ...owner, look: 'tier:gazer' })).toBe('doorstep');
    expect(await seenBy({ ...owner, look: 'tier:observer' })).toBe('open');
    const { email } = await join(moor, 'gazer-free', null);
    expect((await viewerOf({ ...(await actorNamed(email)), look: 'tier:observer' })).lookingAs).toBeNull();
  });
});

describe('rules', () => {
  const openers = async () => {
    const about = await findItem(pool(), 'about');
    return (await accessOf(await readViewpoints(), about ? [about] : []))[0]?.openers;
  };

  it('hold from the next request on, and gone they are as if never there', async () => {
    const before = await countClosedToVisitors();
    expect(await openers()).toEqual({ to: 'everyone' });
    const made = await saveRule(SETUP, {
      name: 'About',
      covers: [{ kind: 'item', id: 'about' }],
      openTo: [{ who: { kind: 'tier', id: 'warden' } }],
    });
    expect(made).toMatchObject({ ok: true, value: { id: 'about' } });
    expect(await countClosedToVisitors()).toBe(before + 1);
    expect(await openers()).toMatchObject({ to: 'tiers', tiers: [{ id: 'warden' }] });
    expect(await deleteRule(SETUP, 'about')).toMatchObject({ ok: true });
    expect(await deleteRule(SETUP, 'about')).toMatchObject({ ok: false });
    expect(await openers()).toEqual({ to: 'everyone' });
  });

  it('are refused in words where they make no sense, and are not overwritten unseen', async () => {
    expect(await saveRule(SETUP, { name: '', covers: [], openTo: [] })).toMatchObject({
      ok: false,
      problems: { name: { code: 'rule.no-name' }, covers: { code: 'rule.covers-nothing' } },
    });
    const rule = (await listRules(pool())).find((candidate) => candidate.id === 'guides');
    expect(await saveRule(SETUP, { ...rule, name: 'Guides' })).toMatchObject({ ok: true });
    expect(await saveRule(SETUP, { ...rule, name: 'Other' })).toMatchObject({
      ok: false,
      problems: { '': { code: 'rule.changed-elsewhere' } },
    });
  });

  it('and everything else that staff change are in the audit', async () => {
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

  it('keeps what a change leaves out: a post that a tag closes stays closed when only its title is saved', async () => {
    value(
      await saveItem(SETUP, {
        id: 'tagged',
        type: 'post',
        title: 'Tagged',
        body: readMarkdown('The flint is under the sill.'),
        tags: ['inner'],
        categories: ['clinic'],
        position: 7,
        publish: 'publish',
      }),
    );
    value(
      await saveRule(SETUP, {
        name: 'Inner',
        covers: [{ kind: 'tag', id: 'inner' }],
        openTo: [{ who: { kind: 'tier', id: 'warden' } }],
      }),
    );
    const before = (await findItem(pool(), 'tagged'))!;
    value(await saveItem(SETUP, { id: 'tagged', type: 'post', title: 'Tagged anew', publish: 'publish' }));
    const after = (await findItem(pool(), 'tagged'))!;
    expect(after).toMatchObject({ tags: ['inner'], ownCategories: ['clinic'], position: 7 });
    expect([after.path, after.body]).toEqual([before.path, before.body]);
    expect(JSON.stringify(value(await viewItem(VISITOR_ACTOR, after.path)))).not.toContain('flint');
    value(await deleteRule(SETUP, 'inner'));
  });

  it('saved twice from one version at the same moment is saved once', async () => {
    const { version } = (await findItem(pool(), 'about'))!;
    const save = (title: string) =>
      saveItem(SETUP, { id: 'about', version, type: 'page', title, publish: 'publish' });
    const answers = await Promise.all([
      save('About us, one'),
      save('About us, two'),
      save('About us, three'),
    ]);
    expect(answers.filter((answer) => answer.ok)).toHaveLength(1);
    value(await saveItem(SETUP, { id: 'about', type: 'page', title: 'About us', publish: 'publish' }));
  });

  it('is refused where an address is taken or kept, a page would stand below itself, or the text is not text', async () => {
    const page = { type: 'page' as const, title: 'X', body: readMarkdown('x'), publish: 'publish' as const };
    expect(await saveItem(SETUP, { ...page, slug: 'about' })).toMatchObject({
      problems: { slug: { code: 'item.taken' } },
    });
    expect(await saveItem(SETUP, { ...page, slug: 'desk' })).toMatchObject({
      problems: { slug: { code: 'item.reserved' } },
    });
    expect(await saveItem(SETUP, { ...page, id: 'library', parentId: 'winter-charts' })).toMatchObject({
      problems: { parentId: { code: expect.any(String) as string } },
    });
    expect(
      (await saveItem(SETUP, { ...page, body: { type: 'doc', content: [{ type: 'script' }] } })).ok,
    ).toBe(false);
    expect((await saveItem(SETUP, { ...page, title: '  ' })).ok).toBe(false);
    expect(await saveCategory(SETUP, { name: 'raw frames', id: 'guides' })).toMatchObject({
      ok: false,
    });
  });
});

it('every change is authorised in the service, whatever the screen shows', async () => {
  const viewer: Actor = {
    kind: 'staff',
    memberId: '00000000-0000-4000-8000-00000000000a',
    staffRole: 'viewer',
  };
  const member: Actor = { kind: 'member', memberId: null, staffRole: null };
  for (const actor of [viewer, member]) {
    expect(await saveTier(actor, { name: 'X' })).toMatchObject({
      ok: false,
      code: expect.any(String) as string,
    });
    expect(await saveOffer(actor, {})).toMatchObject({ ok: false, code: expect.any(String) as string });
    expect(await saveRule(actor, {})).toMatchObject({ ok: false, code: expect.any(String) as string });
    expect(await deleteRule(actor, 'guides')).toMatchObject({
      ok: false,
      code: expect.any(String) as string,
    });
    expect(
      await saveItem(actor, { type: 'page', title: 'X', body: readMarkdown('x'), publish: 'draft' }),
    ).toMatchObject({ ok: false, code: expect.any(String) as string });
    expect(
      await connectGateway(actor, { gateway: 'curlew-cards', siteKey: '', secretKey: '' }),
    ).toMatchObject({
      ok: false,
      code: expect.any(String) as string,
    });
  }
});

it('finds places, tiers, items and members by name', async () => {
  const { email } = await join(moor, 'gazer-free', null);
  const kinds = async (query: string) => value(await findAnything(moor.owner, query)).map((hit) => hit.kind);
  expect(await kinds('observer')).toContain('tier');
  expect(await kinds('zodiacal')).toEqual(['post']);
  expect(await kinds(email)).toEqual(['member']);
  expect(await kinds('100%')).toEqual([]);
  expect(value(await findAnything(moor.owner, '')).length).toBeGreaterThan(5);
});

describe('what is the same for all visitors', () => {
  const shareOf = async (run: () => Promise<unknown>): Promise<InHand['share']> => {
    const request: InHand = { isTakenUp: false, isUnreadable: false, share: {} };
    await answering(request, run);
    return request.share;
  };
  const minutesLeft = ({ until }: InHand['share']): number => ((until ?? 0) - Date.now()) / 60_000;

  it('is shared until the next item comes out, and with nobody who carries something of ours', async () => {
    const before = await shareOf(() => shareWithAlike(VISITOR_ACTOR));
    expect(minutesLeft(before)).toBeGreaterThan(0);
    const at = fromMs(toMs(siteNow(await currentSite())) + 45_000);
    await saveItem(SETUP, { type: 'post', title: 'Soon out', publish: { at } });
    const soon = await shareOf(() => shareWithAlike(VISITOR_ACTOR));
    expect(minutesLeft(soon)).toBeLessThanOrEqual(0.75);
    expect(await shareOf(() => shareWithAlike({ ...VISITOR_ACTOR, browser: { session: 'x' } }))).toEqual({});
    expect(await shareOf(async () => shareWithAlike(await actorNamed('ines@moor.example')))).toEqual({});
  });

  it('is not what has a part that opens by dates of its own', async () => {
    const part = (opens?: unknown): unknown => ({
      type: 'doc',
      content: [
        {
          type: 'section',
          attrs: { rule: null, openTo: [{ who: { kind: 'everyone' }, opens }], instead: '' },
          content: [{ type: 'paragraph', content: [{ type: 'text', text: 'Later' }] }],
        },
      ],
    });
    const refusedFor = async (title: string, body: unknown): Promise<boolean> => {
      const { id } = value(await saveItem(SETUP, { type: 'post', title, publish: 'publish', body }));
      const { path } = (await findItem(pool(), id))!;
      return (await shareOf(() => viewItem(VISITOR_ACTOR, path))).isRefused === true;
    };
    expect(await refusedFor('With a date', part({ on: '2030-01-01' }))).toBe(true);
    expect(await refusedFor('Without one', part())).toBe(false);
  });
});

describe('why', () => {
  const because = async (item: string, as: string, on = '') => value(await why(SETUP, { item, as, on }));

  it('names what decides, what was not looked at, whose doorstep is met and what would open it', async () => {
    const asked = await because('zodiacal-light', 'signed-in');
    expect(asked.explanation.decision).toMatchObject({ state: 'closed', by: 'rule' });
    expect(asked.explanation.deciding.map(({ rule }) => asked.rules[rule]?.name)).toEqual(['Guides']);
    expect(asked.doorstep?.name).toBe('Guides');
    expect(asked.opening.map(({ tier }) => tier.id)).toEqual(['observer', 'warden']);
    const { t } = { t: deskWordsOf(await currentSite()) };
    expect(whySentence(asked, t)).toBe(
      'The rule “Guides” opens it to Observer and Star Warden. This viewpoint isn’t among them.',
    );
    const held = await because('zodiacal-light', 'tier:observer');
    expect(whySentence(held, t)).toBe('The rule “Guides” opens it to Observer.');
    expect([held.doorstep, held.opening]).toEqual([undefined, []]);
  });

  it('is asked of one member, and of a day', async () => {
    const { memberId } = await join(moor, 'observer-monthly', 'works');
    const member = await because('zodiacal-light', `member:${memberId}`);
    expect(member.explanation.decision.state).toBe('open');
    const frames = await because('frames-horsehead', 'tier:observer');
    expect(frames.explanation.decision.state).toBe('later');
    expect(whySentence(frames, deskWordsOf(await currentSite()))).toMatch(/opens it to Observer, on /);
    const day = localDate(frames.explanation.decision.opensAt!, 'Europe/London');
    const next = localDate(fromMs(toMs(frames.explanation.decision.opensAt!) + 86_400_000), 'Europe/London');
    expect(frames.on).toBeNull();
    expect((await because('frames-horsehead', 'tier:observer', next)).explanation.decision.state).toBe(
      'open',
    );
    expect((await because('frames-horsehead', 'visitor', day)).explanation.decision.state).toBe('later');
    expect((await why(SETUP, { item: 'frames-horsehead', as: 'member:nobody', on: '' })).ok).toBe(false);
  });

  it('staff look as a group, as one member and on another day, and nobody else does', async () => {
    const { id } = value(await saveGroup(SETUP, { name: 'Reading circle' }));
    const ines = await actorNamed('ines@moor.example');
    const choose = async (actor: Actor, as: string, on = '') => {
      const chosen = await chooseViewpoint(actor, { as, on });
      return chosen.ok ? chosen.value : Object.values(chosen.problems)[0]?.code;
    };
    expect(await choose(ines, `group:${id}`)).toBe(`group:${id}`);
    expect(await choose(ines, 'visitor', '2031-01-01')).toBe('visitor@2031-01-01');
    expect(await choose(ines, 'group:nobody')).toBe('viewpoint.unknown');
    expect(await choose(ines, 'self')).toBeNull();
    expect(await choose({ ...ines, staffRole: 'helper' }, 'visitor')).toBe('viewpoint.not-allowed');
    const seen = value(await viewItem({ ...ines, look: 'visitor@2031-01-01' }, '/posts/frames-horsehead'));
    expect(seen.kind).toBe('open');
  });
});

describe('groups', () => {
  it('open what a rule opens to them, to those in them alone, until they are taken out', async () => {
    const { id: groupId } = value(await saveGroup(SETUP, { name: 'Volunteers' }));
    const one = await join(moor, 'gazer-free', null);
    const other = await join(moor, 'gazer-free', null);
    value(
      await saveRule(SETUP, {
        name: 'Rota',
        covers: [{ kind: 'item', id: 'visit' }],
        openTo: [{ who: { kind: 'group', id: groupId } }],
      }),
    );
    const kindFor = async (email: string) => value(await viewItem(await actorNamed(email), '/visit')).kind;
    expect([await kindFor(one.email), await kindFor(other.email)]).toEqual(['doorstep', 'doorstep']);
    const report = value(
      await addMembersToGroup(SETUP, {
        id: groupId,
        addresses: `name,email\nOne,${one.email.toUpperCase()}\n"Nobody" <nobody@moor.example>; ${one.email}`,
      }),
    );
    expect(report).toEqual({ added: 1, already: 0, unknown: ['nobody@moor.example'] });
    expect([await kindFor(one.email), await kindFor(other.email)]).toEqual(['open', 'doorstep']);
    expect((await deleteGroup(SETUP, groupId)).ok).toBe(false);
    value(await removeMemberFromGroup(SETUP, { groupId, memberId: one.memberId }));
    expect(await kindFor(one.email)).toBe('doorstep');
    value(await deleteRule(SETUP, 'rota'));
    value(await deleteGroup(SETUP, groupId));
    const gone = await saveRule(SETUP, {
      name: 'Gone',
      covers: [{ kind: 'item', id: 'visit' }],
      openTo: [{ who: { kind: 'group', id: groupId } }],
    });
    expect(gone.ok ? null : gone.problems.openTo?.code).toBe('rule.group-gone');
  });
});

it('a rule says before it is saved what it opens and closes, and which rules it meets', async () => {
  const impact = value(
    await previewRule(SETUP, {
      name: 'Posts',
      covers: [{ kind: 'type', id: 'post' }],
      openTo: [{ who: { kind: 'tier', id: 'warden' } }],
    }),
  );
  const about = (viewpoint: string) => impact.changes.find((change) => change.viewpoint === viewpoint);
  const reader = await readerFor(VISITOR);
  const posts = await listPublished(pool(), reader.now, { type: 'post' });
  const judged = await judge(reader, posts);
  const openPosts = posts.filter(({ id }) => judged(id).by === 'default' && judged(id).state === 'open');
  expect(about('Visitor')?.closes.count).toBe(openPosts.length);
  expect(about('Star Warden')).toBeUndefined();
  const guides = impact.meets.find(({ rule }) => rule === 'guides');
  expect(guides).toMatchObject({ name: 'Guides', together: 0, decides: 0 });
  expect(guides?.gives).toBeGreaterThan(0);
  expect((await listRules(pool())).some(({ name }) => name === 'Posts')).toBe(false);
});
