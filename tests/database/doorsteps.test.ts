import { beforeAll, describe, expect, it } from 'vitest';
import { saveDoorstepOfItem } from '../../src/access/services/doorsteps';
import {
  listItems,
  listArchive,
  listFeed,
  listNames,
  searchSite,
} from '../../src/access/services/list-items';
import { claimReads } from '../../src/access/services/claim-reads';
import { deleteMeter, metersPlace, saveMeter } from '../../src/access/services/meters';
import { saveRule } from '../../src/access/services/save-rule';
import { saveAccessDefault, saveOpenWeek } from '../../src/access/services/site-access';
import { openFile } from '../../src/access/services/open-file';
import { siteMenu } from '../../src/access/services/site-menu';
import { viewItem, type ItemView } from '../../src/access/services/view-item';
import { why } from '../../src/access/services/why';
import { saveMenuEntry } from '../../src/content/services/menu';
import { saveItem } from '../../src/content/services/save-item';
import { beginUpload, finishUpload, takePiece } from '../../src/content/services/upload-file';
import { addMembersToGroup, saveGroup } from '../../src/members/services/groups';
import { fromText } from '../../src/core/content/prose';
import { addLength, localDate } from '../../src/core/calendar';
import { SETUP, VISITOR_ACTOR, type Actor } from '../../src/platform/actor';
import { siteNow } from '../../src/platform/clock';
import { currentSite } from '../../src/platform/site';
import { asMember } from '../../scripts/lib/people';
import { doorstepWith } from '../lib/doorsteps';
import { join, lanternMoor, rows, signInByCode, value } from './lantern-moor';

const moor = lanternMoor();
const post = async (id: string, categories: string[], words = 'Under the heather lies a secret.') =>
  value(
    await saveItem(SETUP, {
      id,
      type: 'post',
      title: id,
      summary: `Summary of ${id}`,
      body: fromText(words),
      publish: 'publish',
      categories,
    }),
  );
const seen = async (id: string, actor: Actor = VISITOR_ACTOR): Promise<ItemView> =>
  value(await viewItem(actor, `/posts/${id}`));
/** A visitor who opens a page, with what their browser carries. */
const browsing = (reads?: string, isView = true): Actor => ({
  ...VISITOR_ACTOR,
  address: '203.0.113.9',
  browser: { isView, ...(reads && { reads }) },
});
/** A member who opens a page. */
const reading = (actor: Actor): Actor => ({ ...actor, browser: { isView: true } });

describe('as whom someone is met at a doorstep', () => {
  const meets = {
    ...doorstepWith().meets,
    visitor: { kind: 'notice', words: '{item} is for members.' },
    'wrong-tier': { kind: 'redirect', to: '/join' },
    lapsed: { kind: 'notice', words: 'Welcome back, {first name}.' },
    'payment-failed': { kind: 'notice', words: 'Pay first.' },
    'must-wait': { kind: 'notice', words: 'Soon.' },
  } as const;
  let observer: Awaited<ReturnType<typeof join>>;
  beforeAll(async () => {
    for (const id of ['met', 'met-2']) await post(id, ['guides']);
    observer = await join(moor, 'observer-monthly', 'works');
    const doorstep = doorstepWith({ meets, showTiers: true, button: { words: 'Ask us', to: '/about' } });
    value(await saveDoorstepOfItem(SETUP, { itemId: 'met', doorstep }));
  });

  it('is a visitor, with the words for visitors, the button and the tiers that open it', async () => {
    const at = await seen('met');
    expect(at).toMatchObject({
      kind: 'doorstep',
      asker: 'visitor',
      notice: '{item} is for members.',
      button: { words: 'Ask us', to: '/about' },
      summary: '',
    });
    expect(JSON.stringify(at)).not.toContain('lies a secret');
    expect(await seen('met', asMember(observer.memberId))).toMatchObject({ kind: 'open' });
  });

  it('is someone with another tier, who is led elsewhere; but not round in a circle', async () => {
    const gazer = asMember((await join(moor, 'gazer-free', null)).memberId);
    expect(await seen('met', gazer)).toEqual({ kind: 'leads-on', target: '/join' });
    const round = { ...meets, 'wrong-tier': { kind: 'redirect', to: '/posts/met?again=1' } } as const;
    value(await saveDoorstepOfItem(SETUP, { itemId: 'met-2', doorstep: doorstepWith({ meets: round }) }));
    expect(await seen('met-2', gazer)).toMatchObject({ kind: 'doorstep', asker: 'wrong-tier', notice: '' });
  });

  it('is one whose payment failed, or whose tier has ended, where that tier would open it', async () => {
    const { memberId } = await join(moor, 'observer-monthly', 'works');
    await rows(`UPDATE holdings SET from_at = from_at - interval '2 days', until_at = now() - interval '1 day'
                WHERE member_id = '${memberId}'`);
    expect(await seen('met', asMember(memberId))).toMatchObject({
      asker: 'lapsed',
      notice: 'Welcome back, {first name}.',
      firstName: 'Someone',
    });
    await rows(`UPDATE subscriptions SET state = 'overdue' WHERE member_id = '${memberId}'`);
    expect(await seen('met', asMember(memberId))).toMatchObject({
      asker: 'payment-failed',
      notice: 'Pay first.',
    });
    // What they held would not open the clinic.
    await post('not-theirs', ['clinic']);
    expect(await seen('not-theirs', asMember(memberId))).toMatchObject({ asker: 'wrong-tier' });
  });

  it('is one who has to wait', async () => {
    const gazer = asMember((await join(moor, 'gazer-free', null)).memberId);
    expect(await seen('frames-horsehead', gazer)).toMatchObject({ state: 'later', asker: 'must-wait' });
  });

  it('is said by Why, with whose doorstep it is', async () => {
    const owner = moor.owner;
    const asked = { as: 'visitor', on: '' };
    expect(value(await why(owner, { ...asked, item: 'met' })).doorstep).toMatchObject({
      by: 'item',
      asker: 'visitor',
    });
  });

  it('refuses a target that is no address, and what was changed meanwhile', async () => {
    const unsafe = doorstepWith({ button: { words: 'Go', to: 'javascript:alert(1)' } });
    const refused = await saveDoorstepOfItem(SETUP, { itemId: 'met', doorstep: unsafe, version: 1 });
    expect(refused).toMatchObject({ ok: false, problems: { 'doorstep.button.to': { code: 'link.unsafe' } } });
    const late = await saveDoorstepOfItem(SETUP, { itemId: 'met', doorstep: null, version: 7 });
    expect(late).toMatchObject({ ok: false, problems: { '': { code: 'doorstep.changed-elsewhere' } } });
  });
});

describe('what is hidden', () => {
  let inside: Actor;
  beforeAll(async () => {
    value(await saveGroup(SETUP, { id: '', name: 'Wardens of the moor' }));
    const { email, memberId } = await join(moor, 'gazer-free', null);
    value(await addMembersToGroup(SETUP, { id: 'wardens-of-the-moor', addresses: email }));
    inside = asMember(memberId);
    for (const id of ['hidden-1', 'hidden-2', 'between']) await post(id, [], 'The minutes of the wardens.');
    value(
      await saveRule(SETUP, {
        name: 'Hidden',
        covers: [
          { kind: 'item', id: 'hidden-1' },
          { kind: 'item', id: 'hidden-2' },
        ],
        openTo: [{ who: { kind: 'group', id: 'wardens-of-the-moor' } }],
        listed: false,
      }),
    );
    value(await saveMenuEntry(SETUP, { kind: 'item', target: 'hidden-1', audience: 'everyone' }));
  });

  it('is in no list, menu, search, feed, archive or line of neighbours for those outside', async () => {
    const everything = async (actor: Actor): Promise<string> =>
      JSON.stringify([
        value(await listItems(actor, { size: 100 })),
        value(await searchSite(actor, { words: 'hidden' })),
        value(await siteMenu(actor)),
        await seen('between', actor),
      ]);
    expect(await everything(VISITOR_ACTOR)).not.toContain('hidden-');
    expect(await everything(inside)).toContain('hidden-1');
    expect(JSON.stringify(value(await listFeed(VISITOR_ACTOR)))).not.toContain('hidden-');
    const count = async (actor: Actor) =>
      value(await listArchive(actor)).reduce((sum, { items }) => sum + items, 0);
    expect((await count(inside)) - (await count(VISITOR_ACTOR))).toBe(2);
    expect(value(await listItems(inside, {})).total - value(await listItems(VISITOR_ACTOR, {})).total).toBe(
      2,
    );
    expect(value(await listNames(VISITOR_ACTOR)).categories.length).toBeGreaterThan(0);
  });

  it('has a doorstep at its own address, which robots are told to leave', async () => {
    expect(await seen('hidden-1')).toMatchObject({ kind: 'doorstep', isListed: false });
    expect(await seen('hidden-1', inside)).toMatchObject({ kind: 'open' });
  });
});

describe('free reads', () => {
  beforeAll(async () => {
    for (const id of ['m-1', 'm-2', 'm-3', 'm-4']) await post(id, ['metered']);
    value(
      await saveMeter(SETUP, {
        name: 'Two',
        window: 'rolling',
        days: 30,
        allowances: [
          { who: { kind: 'everyone' }, reads: 2 },
          { who: { kind: 'tier', id: 'gazer' }, reads: 3 },
        ],
      }),
    );
    value(
      await saveRule(SETUP, {
        name: 'Metered',
        covers: ['m-1', 'm-2', 'm-3', 'm-4'].map((id) => ({ kind: 'item', id })),
        openTo: [{ who: { kind: 'paying' } }],
        meter: 'two',
      }),
    );
  });
  const readAll = async (actor: Actor, ...ids: string[]) => {
    const all: string[] = [];
    for (const id of ids) {
      const at = await seen(id, actor);
      all.push(at.kind === 'open' ? `${at.meter?.left}/${at.meter?.of}` : at.kind);
    }
    return all;
  };

  it('are counted for a visitor by what their browser carries; reading again is free', async () => {
    const first = await seen('m-1', browsing());
    const cookie = first.kind === 'open' ? (first.readsCookie ?? '') : '';
    expect(first).toMatchObject({ kind: 'open', meter: { left: 1, of: 2 } });
    const visitor = browsing(cookie);
    expect(await readAll(visitor, 'm-1', 'm-2', 'm-2', 'm-1', 'm-3')).toEqual([
      '1/2',
      '0/2',
      '0/2',
      '0/2',
      'doorstep',
    ]);
    const end = await seen('m-3', visitor);
    expect(end).toMatchObject({ kind: 'doorstep', meter: { left: null, of: 2 } });
    expect(JSON.stringify(end)).not.toContain('lies a secret');
    // What is open in it stays so for those who did not open the page themselves.
    expect(await readAll(browsing(cookie, false), 'm-1')).toEqual(['0/2']);
  });

  it('are not spent, nor given, by what is no view of a person: fetched ahead, a robot, a forged cookie', async () => {
    const before = (await rows('SELECT * FROM meter_reads')).length;
    expect(await readAll(browsing(undefined, false), 'm-1')).toEqual(['doorstep']);
    const forged = await seen('m-1', browsing('AAAA.BBBB', false));
    expect(forged.kind).toBe('doorstep');
    expect((await rows('SELECT * FROM meter_reads')).length).toBe(before);
    const listed = value(await listItems(browsing(), { size: 100 })).items.find(({ id }) => id === 'm-1');
    expect(listed).toMatchObject({ isOpen: false });
  });

  it('of two at once never give more than there are', async () => {
    const { memberId } = await join(moor, 'gazer-free', null);
    const actor = reading(asMember(memberId));
    const ids = ['m-1', 'm-2', 'm-3', 'm-4', 'm-1', 'm-2', 'm-3', 'm-4'];
    const at = await Promise.all(ids.map((id) => seen(id, actor)));
    const counted = await rows(`SELECT DISTINCT item_id FROM meter_reads WHERE member_id = '${memberId}'`);
    expect(counted).toHaveLength(3);
    expect(at.filter(({ kind }) => kind === 'open')).toHaveLength(6);
    expect(await rows(`SELECT * FROM meter_reads WHERE member_id = '${memberId}'`)).toHaveLength(3);
  });

  it('of a visitor are the member’s who signs in with that browser, and stay the browser’s', async () => {
    const first = await seen('m-1', browsing());
    const cookie = first.kind === 'open' ? (first.readsCookie ?? '') : '';
    const { memberId, email } = await join(moor, 'gazer-free', null);
    const { session } = await signInByCode(email);
    value(await claimReads({ ...VISITOR_ACTOR, browser: { session, reads: cookie } }));
    expect(await readAll(reading(asMember(memberId)), 'm-2', 'm-3', 'm-4')).toEqual([
      '1/3',
      '0/3',
      'doorstep',
    ]);
    expect(await readAll(browsing(cookie), 'm-2', 'm-3')).toEqual(['0/2', 'doorstep']);
  });

  it('start again when the window has passed', async () => {
    const { memberId } = await join(moor, 'gazer-free', null);
    const actor = reading(asMember(memberId));
    expect(await readAll(actor, 'm-1', 'm-2', 'm-3', 'm-4')).toEqual(['2/3', '1/3', '0/3', 'doorstep']);
    await rows(`UPDATE meter_reads SET at = at - interval '31 days' WHERE member_id = '${memberId}'`);
    expect(await readAll(actor, 'm-4')).toEqual(['2/3']);
  });

  it('open a file that the text offers, once it was read', async () => {
    const { id: uploadId } = value(await beginUpload(SETUP, { name: 'a.txt', size: 5 }));
    value(await takePiece(SETUP, { id: uploadId, number: 0, bytes: Buffer.from('hello') }));
    const { itemId } = value(await finishUpload(SETUP, { id: uploadId, title: 'A file' }));
    value(
      await saveItem(SETUP, {
        id: 'with-file',
        type: 'post',
        title: 'with-file',
        body: { type: 'doc', content: [{ type: 'file', attrs: { item: itemId } }] },
        publish: 'publish',
      }),
    );
    value(
      await saveRule(SETUP, {
        name: 'With a file',
        covers: [{ kind: 'item', id: 'with-file' }],
        openTo: [],
        meter: 'two',
      }),
    );
    const { memberId } = await join(moor, 'gazer-free', null);
    const actor = reading(asMember(memberId));
    const opened = async () => (await openFile(actor, { id: itemId, range: null })).ok;
    expect(await opened()).toBe(false);
    expect(await readAll(actor, 'with-file')).toEqual(['2/3']);
    expect(await opened()).toBe(true);
  });

  it('are told to staff: who met the end, and who joined then', async () => {
    const { memberId } = await join(moor, 'gazer-free', null);
    const before = value(await metersPlace(SETUP)).meters.find(({ id }) => id === 'two');
    await readAll(reading(asMember(memberId)), 'm-1', 'm-2', 'm-3', 'm-4', 'm-4');
    await rows(`UPDATE holdings SET since_at = since_at + interval '1 hour' WHERE member_id = '${memberId}'`);
    const after = value(await metersPlace(SETUP)).meters.find(({ id }) => id === 'two');
    expect([(after?.met ?? 0) - (before?.met ?? 0), (after?.joined ?? 0) - (before?.joined ?? 0)]).toEqual([
      1, 1,
    ]);
    expect(await deleteMeter(SETUP, 'two')).toMatchObject({
      ok: false,
      problems: { '': { code: 'meter.in-rule' } },
    });
  });
});

describe('the whole site', () => {
  it('is read by everyone as by holders of a tier, in an open week', async () => {
    await post('in-week', ['guides']);
    expect((await seen('in-week')).kind).toBe('doorstep');
    const site = await currentSite();
    const today = localDate(siteNow(site), site.zone);
    const week = { tier: 'observer', from: today, until: today };
    value(await saveOpenWeek(SETUP, { openWeek: week }));
    expect((await seen('in-week')).kind).toBe('open');
    expect((await seen('not-theirs')).kind).toBe('doorstep');
    const next = localDate(addLength(siteNow(site), { n: 2, unit: 'day' }, site.zone), site.zone);
    value(await saveOpenWeek(SETUP, { openWeek: { ...week, from: next, until: next } }));
    expect((await seen('in-week')).kind).toBe('doorstep');
    const wrong = await saveOpenWeek(SETUP, { openWeek: { ...week, from: next } });
    expect(wrong).toMatchObject({ ok: false, problems: { until: { code: 'open-week.ends-first' } } });
    value(await saveOpenWeek(SETUP, { openWeek: null }));
  });

  it('closes but for the pages that stay open', async () => {
    expect(value(await viewItem(VISITOR_ACTOR, '/visit')).kind).toBe('open');
    value(await saveAccessDefault(SETUP, { accessDefault: 'signed-in', staysOpen: ['about'] }));
    const kinds: string[] = [];
    for (const path of ['/visit', '/about']) kinds.push(value(await viewItem(VISITOR_ACTOR, path)).kind);
    expect(kinds).toEqual(['doorstep', 'open']);
    value(await saveAccessDefault(SETUP, { accessDefault: 'everyone' }));
    expect(value(await viewItem(VISITOR_ACTOR, '/visit')).kind).toBe('open');
  });
});
