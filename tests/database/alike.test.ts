import { randomUUID } from 'node:crypto';
import { beforeAll, describe, expect, it } from 'vitest';
import { saveDoorstepOfItem } from '../../src/access/services/doorsteps';
import { saveKind } from '../../src/access/services/save-kind';
import { saveRule } from '../../src/access/services/save-rule';
import { alikeNameOf, shareWithAlike } from '../../src/access/services/share-with-alike';
import { viewItem } from '../../src/access/services/view-item';
import { hasMyComments, itemComments } from '../../src/access/services/item-comments';
import { listNames } from '../../src/access/services/list-items';
import { writeComment } from '../../src/access/services/write-comment';
import { saveItem } from '../../src/content/services/save-item';
import { fromText, type Node } from '../../src/core/content/prose';
import { NO_COMMENTS } from '../../src/core/content/comments';
import type { Opener } from '../../src/core/access/rule';
import { giveTier } from '../../src/members/services/gifts';
import { myAccount } from '../../src/members/services/my-account';
import { saveLetterSettings } from '../../src/members/services/letter-settings';
import { SETUP, VISITOR_ACTOR, type Actor } from '../../src/platform/actor';
import { answering, type InHand } from '../../src/platform/request';
import { doorstepWith } from '../lib/doorsteps';
import { join, lanternMoor, newPerson, rows, value } from './lantern-moor';

const moor = lanternMoor();

const post = async (id: string, categories: string[], ...parts: Node[]): Promise<unknown> =>
  value(
    await saveItem(SETUP, {
      id,
      type: 'post',
      title: id,
      body: { type: 'doc', content: [...fromText('Under the heather.').content, ...parts] },
      publish: 'publish',
      categories,
    }),
  );
const section = (...openTo: Opener[]): Node => ({
  type: 'section',
  attrs: { rule: null, openTo, instead: '' },
  content: fromText('Under the stone.').content,
});
const holder = async (tierId: string): Promise<Actor> => {
  const person = await newPerson();
  value(await giveTier(SETUP, { memberId: person.memberId, tierId, term: { for: 'good' }, isTold: false }));
  return person;
};
const nameOf = async (actor: Actor): Promise<string | null> => value(await alikeNameOf(actor));

/** Whether a page with an item is kept for others who are alike, as the web asks for it. */
async function isKept(id: string, actor: Actor, also?: () => Promise<unknown>): Promise<boolean> {
  const name = actor.memberId === null ? null : await nameOf(actor);
  const request: InHand = {
    isTakenUp: false,
    isUnreadable: false,
    share: {},
    ...(actor.memberId !== null && name !== null && { alike: { memberId: actor.memberId, name } }),
  };
  await answering(request, async () => {
    value(await shareWithAlike(actor));
    value(await viewItem(actor, `/posts/${id}`));
    await also?.();
  });
  return request.share.until !== undefined && !request.share.isRefused;
}

let observer: Actor;
let warden: Actor;
let nobody: Actor;
beforeAll(async () => {
  [observer, warden, nobody] = [await holder('observer'), await holder('warden'), await newPerson()];
  await post('alike-open', []);
  await post('alike-guide', ['guides']);
});

describe('what members who are alike are called', () => {
  it('is the same for all who hold the same', async () => {
    expect(await nameOf(observer)).toBe(await nameOf(await holder('observer')));
    expect(await nameOf(nobody)).toBe(await nameOf(await newPerson()));
    const names = [await nameOf(observer), await nameOf(warden), await nameOf(nobody)];
    expect(new Set(names).size).toBe(3);
    expect(names).not.toContain(null);
  });

  it('tells those who held something once from those who never did, and is not there for staff and visitors', async () => {
    const once = await holder('observer');
    await rows(`UPDATE holdings SET until_at = from_at + interval '1 ms' WHERE member_id = $1`, [
      once.memberId,
    ]);
    expect(await nameOf(once)).not.toBe(await nameOf(nobody));
    expect(await nameOf(VISITOR_ACTOR)).toBeNull();
    expect(await nameOf({ ...observer, kind: 'staff', staffRole: 'viewer' })).toBeNull();
    expect(await nameOf({ ...observer, look: 'visitor' })).toBeNull();
  });

  it('is not there where a rule counts from joining, or names the member', async () => {
    const personal = async (line: Opener) =>
      value(
        await saveRule(SETUP, {
          name: 'Personal',
          covers: [{ kind: 'item', id: 'alike-open' }],
          openTo: [line],
        }),
      ).id;
    const named = await personal({ who: { kind: 'member', id: observer.memberId ?? '' } });
    expect([await nameOf(observer), (await nameOf(warden)) === null]).toEqual([null, false]);
    await rows('DELETE FROM rules WHERE id = $1', [named]);
    const after = { n: 3, unit: 'day' } as const;
    const counting = await personal({ who: { kind: 'signed-in' }, opens: { since: 'joined', after } });
    expect([await nameOf(observer), await nameOf(nobody)]).toEqual([null, null]);
    await rows('DELETE FROM rules WHERE id = $1', [counting]);
    expect(await nameOf(observer)).not.toBeNull();
  });
});

describe('a page is kept for them', () => {
  it('where nothing in it is for one alone', async () => {
    for (const actor of [observer, warden, nobody, VISITOR_ACTOR])
      expect(await isKept('alike-open', actor)).toBe(true);
    expect([await isKept('alike-guide', observer), await isKept('alike-guide', nobody)]).toEqual([
      true,
      true,
    ]);
  });

  it('but not for another member than the web has named, and not once anything else was asked', async () => {
    const request: InHand = {
      isTakenUp: false,
      isUnreadable: false,
      share: {},
      alike: { memberId: warden.memberId ?? '', name: 'x' },
    };
    await answering(request, async () => value(await shareWithAlike(observer)));
    expect(request.share.until).toBeUndefined();
    expect(await isKept('alike-open', observer, () => myAccount(observer))).toBe(false);
    expect(await isKept('alike-open', observer, () => listNames(observer))).toBe(true);
  });

  it('but not where a section is for one member, or opens by time', async () => {
    await post('alike-named', [], section({ who: { kind: 'member', id: observer.memberId ?? '' } }));
    expect([await isKept('alike-named', observer), await isKept('alike-named', warden)]).toEqual([
      false,
      true,
    ]);
    await post('alike-tier', [], section({ who: { kind: 'tier', id: 'observer' } }));
    expect([await isKept('alike-tier', observer), await isKept('alike-tier', warden)]).toEqual([true, true]);
    await post('alike-late', [], section({ who: { kind: 'signed-in' }, opens: { on: '2030-01-01' } }));
    expect([await isKept('alike-late', observer), await isKept('alike-late', warden)]).toEqual([
      false,
      false,
    ]);
  });

  it('but not where free reads are counted, or opens are', async () => {
    await post('alike-metered', ['sky-notes']);
    expect(
      value(await viewItem({ ...nobody, browser: { isView: true } }, '/posts/alike-metered')),
    ).toMatchObject({ kind: 'open', by: 'rule', meter: { left: 2 } });
    expect(await isKept('alike-metered', nobody)).toBe(false);
    const settings = { lettersPerMinute: 60, asksLetters: false };
    value(await saveLetterSettings(moor.owner, { ...settings, countsOpens: true }));
    const opening = { ...observer, browser: { isView: true } };
    expect([await isKept('alike-open', opening), await isKept('alike-open', observer)]).toEqual([
      false,
      true,
    ]);
    value(await saveLetterSettings(moor.owner, { ...settings, countsOpens: false }));
    expect(await isKept('alike-open', opening)).toBe(true);
  });

  it('but not where a doorstep calls them by name, or reckons with what they hold or held', async () => {
    expect(await isKept('alike-guide', await holder('gazer'))).toBe(false);
    const said = 'Hello {first name}, {item} is for members.';
    value(await saveDoorstepOfItem(SETUP, { itemId: 'alike-guide', doorstep: doorstepWith({ said }) }));
    expect(await isKept('alike-guide', nobody)).toBe(false);
    expect(await isKept('alike-guide', VISITOR_ACTOR)).toBe(true);
  });

  it('with its comments, but not for those who have written any, nor where a member is named who may', async () => {
    await post('alike-talk', []);
    await rows(`UPDATE items SET comments_on = true WHERE id = 'alike-talk'`);
    const talk = (actor: Actor) => () => itemComments(actor, { itemId: 'alike-talk' });
    const isKeptFor = (actor: Actor) => isKept('alike-talk', actor, talk(actor));
    for (const actor of [observer, nobody, VISITOR_ACTOR]) expect(await isKeptFor(actor)).toBe(true);
    const writer = await newPerson();
    const said = { itemId: 'alike-talk', words: 'Under the bracken.', formKey: randomUUID() };
    value(await writeComment(writer, said));
    expect([await isKeptFor(writer), await isKeptFor(nobody)]).toEqual([false, true]);
    // Not under this alone: what others have is theirs, too.
    expect(await isKept('alike-open', writer)).toBe(true);
    expect([
      value(await hasMyComments(writer, 'alike-talk')),
      value(await hasMyComments(nobody, 'alike-talk')),
    ]).toEqual([true, false]);
    const named = { who: { kind: 'member', id: observer.memberId ?? '' } } as const;
    const comments = { ...NO_COMMENTS, isOn: true, writers: [named] };
    value(await saveKind(SETUP, { id: 'post', name: '', plural: '', path: 'posts', comments }));
    expect([await isKeptFor(observer), await isKeptFor(nobody)]).toEqual([false, true]);
    value(await saveKind(SETUP, { id: 'post', name: '', plural: '', path: 'posts', comments: NO_COMMENTS }));
  });

  it('and what they paid for is found in the same way', async () => {
    const paying = await join(moor, 'observer-monthly', 'works');
    const actor: Actor = { kind: 'member', memberId: paying.memberId, staffRole: null };
    expect(await nameOf(actor)).not.toBe(await nameOf(observer));
    expect(await isKept('alike-open', actor)).toBe(true);
  });
});
