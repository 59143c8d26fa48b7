import { beforeAll, describe, expect, it } from 'vitest';
import {
  claimPasses,
  enterSharedPassword,
  isPassLinkGood,
  leaveAddress,
  takeReadLink,
} from '../../src/access/services/get-pass';
import {
  deletePass,
  passEditor,
  revokePass,
  savePass,
  setSharedPassword,
} from '../../src/access/services/passes';
import { saveRule } from '../../src/access/services/save-rule';
import { viewItem, type ItemView } from '../../src/access/services/view-item';
import { saveItem } from '../../src/content/services/save-item';
import { fromText } from '../../src/core/content/prose';
import { myData } from '../../src/members/services/my-data';
import { deleteGroup, saveGroup } from '../../src/members/services/groups';
import { SETUP, VISITOR_ACTOR, type Actor } from '../../src/platform/actor';
import { asMember } from '../../scripts/lib/people';
import {
  join,
  lanternMoor,
  mailedTo,
  passDays,
  rows,
  signInByCode,
  value,
  visitorWith,
} from './lantern-moor';

const moor = lanternMoor();
const OWNER = 'ines@moor.example';
const PASSWORD = 'the heather is wet';
const with_ = (passes: string): Actor => visitorWith({ passes });
/** Seen with a request of its own each time. */
const seen = async (actor: Actor = VISITOR_ACTOR): Promise<ItemView> =>
  value(await viewItem({ ...actor }, '/posts/star-party'));
const isOpen = async (actor: Actor): Promise<boolean> => (await seen(actor)).kind === 'open';

const enter = (actor: Actor, password = PASSWORD) =>
  enterSharedPassword(actor, { pass: 'star-party', password, to: '/posts/star-party' });
/** A visitor's browser that has entered the password. */
const entered = async (): Promise<Actor> => with_(value(await enter(VISITOR_ACTOR)).browser ?? '');
const leave = (email: string) =>
  leaveAddress(VISITOR_ACTOR, { pass: 'star-party', email, to: '/posts/star-party' });
const linkTo = async (email: string): Promise<string> =>
  /\/pass\/([\w-]+)/.exec((await mailedTo(email)).text)?.[1] ?? '';

beforeAll(async () => {
  value(await savePass(SETUP, { name: 'Star party', byAddress: true, lasts: null }));
  value(await setSharedPassword(SETUP, { id: 'star-party', password: PASSWORD, endsOld: true }));
  value(
    await saveItem(SETUP, {
      id: 'star-party',
      type: 'post',
      title: 'Star party',
      summary: 'On Saturday.',
      body: fromText('Meet at the sheepfold.'),
      publish: 'publish',
    }),
  );
  const rule = {
    name: 'The party',
    covers: [{ kind: 'item', id: 'star-party' }],
    openTo: [{ who: { kind: 'pass', id: 'star-party' } }],
  };
  value(await saveRule(SETUP, rule));
});

describe('a shared password', () => {
  it('is asked for on the doorstep, and opens what the pass opens to the browser that enters it', async () => {
    expect(await seen()).toMatchObject({
      kind: 'doorstep',
      passes: [{ id: 'star-party', name: 'Star party', hasPassword: true, byAddress: true }],
    });
    const { browser, to } = value(await enter(VISITOR_ACTOR));
    expect(to).toBe('/posts/star-party');
    expect(await isOpen(with_(browser ?? ''))).toBe(true);
    expect(await isOpen(with_('another browser'))).toBe(false);
    expect(await isOpen(VISITOR_ACTOR)).toBe(false);
    // The cookie is not what is stored.
    expect(await rows('SELECT 1 FROM held_passes WHERE browser = $1', [Buffer.from(browser ?? '')])).toEqual(
      [],
    );
  });

  it('is refused where it is wrong, empty, or of a pass that has none', async () => {
    expect(await enter(VISITOR_ACTOR, 'the heather is dry')).toMatchObject({
      ok: false,
      problems: { password: { code: 'pass.wrong-password' } },
    });
    expect((await enter(VISITOR_ACTOR, '')).ok).toBe(false);
    value(await savePass(SETUP, { name: 'No password' }));
    const none = await enterSharedPassword(VISITOR_ACTOR, { pass: 'no-password', password: PASSWORD });
    expect(none).toMatchObject({ ok: false, problems: { password: { code: 'pass.wrong-password' } } });
    expect((await enterSharedPassword(VISITOR_ACTOR, { pass: 'nowhere', password: PASSWORD })).ok).toBe(
      false,
    );
  });

  it('is tried 20 times in a quarter of an hour from one address', async () => {
    const guesser = visitorWith({}, '198.51.100.77');
    const codes: unknown[] = [];
    for (let n = 0; n < 22; n++) {
      const tried = await enter(guesser, `guess ${n}`);
      codes.push(tried.ok ? 'in' : Object.values(tried.problems)[0]?.code);
    }
    expect(codes.slice(0, 20).every((code) => code === 'pass.wrong-password')).toBe(true);
    expect(codes.slice(20)).toEqual(['tries.too-many', 'tries.too-many']);
  });

  it('entered twice, in two tabs at once too, is one pass', async () => {
    const browser = value(await enter(VISITOR_ACTOR)).browser ?? '';
    const again = await Promise.all([enter(with_(browser)), enter(with_(browser))]);
    expect(again.map((one) => value(one).browser)).toEqual([null, null]);
    const { memberId } = await join(moor, 'gazer-free', null);
    await Promise.all([enter(asMember(memberId)), enter(asMember(memberId))]);
    expect(await rows('SELECT 1 FROM held_passes WHERE member_id = $1', [memberId])).toHaveLength(1);
  });

  it('does not make good a cookie that someone else has put into the browser', async () => {
    const planted = with_('planted');
    const { browser } = value(await enter(planted));
    expect(browser).toMatch(/^[\w-]{40,}$/);
    expect(await isOpen(planted)).toBe(false);
  });

  it('changed, lets those in who have the new one; the others enter it, or keep the pass, as the owner says', async () => {
    const before = await entered();
    value(await setSharedPassword(SETUP, { id: 'star-party', password: 'another word', endsOld: false }));
    expect(await isOpen(before)).toBe(true);
    expect((await enter(VISITOR_ACTOR)).ok).toBe(false);
    const { ended } = value(
      await setSharedPassword(SETUP, { id: 'star-party', password: PASSWORD, endsOld: true }),
    );
    expect(ended).toBeGreaterThan(0);
    expect(await isOpen(before)).toBe(false);
    expect(value(await enter(before)).browser).not.toBeNull();
    expect(
      await setSharedPassword(SETUP, { id: 'star-party', password: 'short', endsOld: true }),
    ).toMatchObject({ ok: false, problems: { password: { code: 'pass.short-password' } } });
  });

  it('removed, opens nothing, and is not asked for', async () => {
    const before = await entered();
    value(await setSharedPassword(SETUP, { id: 'star-party', password: null, endsOld: true }));
    expect(await seen(before)).toMatchObject({ kind: 'doorstep', passes: [{ hasPassword: false }] });
    expect((await enter(VISITOR_ACTOR)).ok).toBe(false);
    value(await setSharedPassword(SETUP, { id: 'star-party', password: PASSWORD, endsOld: true }));
  });
});

describe('an address that is proved', () => {
  it('is mailed a link, which is good once and opens nothing while it is only looked at', async () => {
    value(await leave('reader@moor.example'));
    const link = await linkTo('reader@moor.example');
    expect(value(await isPassLinkGood(VISITOR_ACTOR, link))).toBe(true);
    expect(await isOpen(VISITOR_ACTOR)).toBe(false);
    const { browser, to } = value(await takeReadLink(VISITOR_ACTOR, link));
    expect(to).toBe('/posts/star-party');
    expect(await isOpen(with_(browser ?? ''))).toBe(true);
    expect(await takeReadLink(VISITOR_ACTOR, link)).toMatchObject({
      ok: false,
      problems: { '': { code: 'pass.link-used' } },
    });
    expect(value(await isPassLinkGood(VISITOR_ACTOR, link))).toBe(false);
    const { holders } = value(await passEditor(SETUP, { id: 'star-party' }));
    expect(holders[0]).toMatchObject({ email: 'reader@moor.example', why: 'address', memberId: null });
  });

  it('is not asked for by a pass that is not given so, and leads to no other site', async () => {
    value(await savePass(SETUP, { name: 'By password only' }));
    const at = { email: 'reader@moor.example', to: '/' };
    expect((await leaveAddress(VISITOR_ACTOR, { ...at, pass: 'by-password-only' })).ok).toBe(false);
    value(
      await leaveAddress(VISITOR_ACTOR, {
        pass: 'star-party',
        email: 'r2@moor.example',
        to: '//evil.example',
      }),
    );
    const { to } = value(await takeReadLink(VISITOR_ACTOR, await linkTo('r2@moor.example')));
    expect(to).toBe('/');
  });

  it('lasts as long from the first time on, on whatever device, and once revoked stays so', async () => {
    const version = value(await passEditor(SETUP, { id: 'star-party' })).pass?.version;
    const lasting = { id: 'star-party', name: 'Star party', byAddress: true, version };
    value(await savePass(SETUP, { ...lasting, lasts: { n: 7, unit: 'day' } }));
    const get = async (email: string) => {
      value(await leave(email));
      return takeReadLink(VISITOR_ACTOR, await linkTo(email));
    };
    const first = with_(value(await get('week@moor.example')).browser ?? '');
    await passDays(moor, 6);
    const second = with_(value(await get('week@moor.example')).browser ?? '');
    expect([await isOpen(first), await isOpen(second)]).toEqual([true, true]);
    await passDays(moor, 2);
    expect([await isOpen(first), await isOpen(second)]).toEqual([false, false]);
    expect(await get('week@moor.example')).toMatchObject({ problems: { '': { code: 'pass.had' } } });

    const other = with_(value(await get('other@moor.example')).browser ?? '');
    const [held] = value(await passEditor(SETUP, { id: 'star-party' })).holders;
    value(await revokePass(SETUP, { pass: 'star-party', id: held?.id }));
    expect(await isOpen(other)).toBe(false);
    expect(await get('other@moor.example')).toMatchObject({ problems: { '': { code: 'pass.revoked' } } });
    // Of another pass, it is not ended by its id.
    expect((await revokePass(SETUP, { pass: 'by-password-only', id: held?.id })).ok).toBe(false);
  });
});

describe('a pass and its holders', () => {
  it('stays with the one who proved an address for it when someone else signs in with the browser', async () => {
    const theirs = await signInByCode(OWNER);
    for (const [email, isClaimed] of [
      ['stranger@moor.example', false],
      [OWNER, true],
    ] as const) {
      value(await leave(email));
      const { browser } = value(await takeReadLink(VISITOR_ACTOR, await linkTo(email)));
      const carried = { passes: browser ?? '', session: theirs.session };
      value(await claimPasses({ ...VISITOR_ACTOR, browser: carried }));
      const held = await rows('SELECT 1 FROM held_passes WHERE email = $1 AND member_id = $2', [
        email,
        theirs.memberId,
      ]);
      expect([email, held.length]).toEqual([email, isClaimed ? 1 : 0]);
    }
  });

  it('becomes the member’s who signs in with the browser, is in their data, and goes with their account', async () => {
    const visitor = await entered();
    const { memberId } = await join(moor, 'gazer-free', null);
    const [member] = await rows<{ email: string }>('SELECT email FROM members WHERE id = $1', [memberId]);
    const { session } = await signInByCode(member?.email ?? '');
    expect(await isOpen(asMember(memberId))).toBe(false);
    value(await claimPasses({ ...visitor, browser: { ...visitor.browser, session } }));
    expect(await isOpen(asMember(memberId))).toBe(true);
    expect(value(await myData(asMember(memberId)))).toMatchObject({
      passes: [{ pass: 'Star party', why: 'password' }],
    });
  });

  it('is not deleted while a rule or a section names it', async () => {
    expect(await deletePass(SETUP, 'star-party')).toMatchObject({
      problems: { '': { code: 'pass.in-rule' } },
    });
    const section = (who: object) => ({
      type: 'doc',
      content: [
        {
          type: 'section',
          attrs: { rule: null, openTo: [{ who }], instead: '' },
          content: [{ type: 'paragraph', content: [{ type: 'text', text: 'Behind the wall.' }] }],
        },
      ],
    });
    const group = value(await saveGroup(SETUP, { id: '', name: 'Wall builders' }));
    const page = { type: 'page', summary: '', publish: 'publish' };
    for (const [id, who] of [
      ['wall', { kind: 'pass', id: 'by-password-only' }],
      ['wall-2', { kind: 'group', id: group.id }],
    ] as const)
      value(await saveItem(SETUP, { ...page, id, title: id, body: section(who) }));
    expect(await deletePass(SETUP, 'by-password-only')).toMatchObject({
      problems: { '': { code: 'pass.in-section' } },
    });
    expect(await deleteGroup(SETUP, group.id)).toMatchObject({
      problems: { '': { code: 'group.in-section' } },
    });
    value(await deletePass(SETUP, 'no-password'));
    expect(
      (
        await saveRule(SETUP, {
          name: 'Gone',
          covers: [{ kind: 'site' }],
          openTo: [{ who: { kind: 'pass', id: 'no-password' } }],
        })
      ).ok,
    ).toBe(false);
  });

  it('does not count in live mode what was got in test mode', async () => {
    const visitor = await entered();
    expect(await isOpen(visitor)).toBe(true);
    await rows("UPDATE held_passes SET mode = 'live'");
    expect(await isOpen(visitor)).toBe(false);
  });
});
