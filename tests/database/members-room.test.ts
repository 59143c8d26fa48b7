import { beforeAll, describe, expect, it } from 'vitest';
import { keepReadingPlace } from '../../src/access/services/reading-place';
import { listItems } from '../../src/access/services/list-items';
import { membersRoom } from '../../src/access/services/members-room';
import { saveItem } from '../../src/content/services/save-item';
import { fromText } from '../../src/core/content/prose';
import { giveTier } from '../../src/members/services/gifts';
import { SETUP, VISITOR_ACTOR, type Actor } from '../../src/platform/actor';
import { siteNow } from '../../src/platform/clock';
import { currentSite } from '../../src/platform/site';
import { asMember, join, lanternMoor, newPerson, passDays, rows, value } from './lantern-moor';

const moor = lanternMoor();
let observer: Actor;
let nobody: Actor;

beforeAll(async () => {
  [observer, nobody] = [await newPerson('Runa Sedge'), await newPerson('Odo Marsh')];
  const term = { for: 'good' };
  value(await giveTier(SETUP, { memberId: observer.memberId, tierId: 'observer', term, isTold: false }));
});

const post = async (title: string, more: Record<string, unknown> = {}): Promise<string> =>
  value(
    await saveItem(SETUP, {
      type: 'post',
      title,
      body: fromText('Under the heather. '.repeat(400)),
      publish: 'publish',
      ...more,
    }),
  ).id;
const room = async (actor: Actor) => value(await membersRoom(actor));
const newestFor = async (actor: Actor) => (await room(actor)).newest.map(({ id }) => id);

describe('the members’ room', () => {
  it('lists the newest that is open to the member, and nothing that is hidden from them', async () => {
    const [open, hidden] = [await post('The ford in March'), await post('The back gate')];
    await rows(`INSERT INTO rules (id, name, definition) VALUES ('back-gate', 'Back gate', $1)`, [
      {
        covers: [{ kind: 'item', id: hidden }],
        openTo: [{ who: { kind: 'tier', id: 'observer' } }],
        listed: false,
      },
    ]);
    expect((await newestFor(observer)).slice(0, 2)).toEqual([hidden, open]);
    expect((await newestFor(nobody)).slice(0, 1)).toEqual([open]);
    expect(JSON.stringify(await room(nobody))).not.toContain('back gate');
    await rows(`DELETE FROM rules WHERE id = 'back-gate'`);
    expect((await newestFor(nobody))[0]).toBe(hidden);
  });

  it('has what was scheduled as soon as it is out, and what is withdrawn no longer', async () => {
    const at = new Date(Date.parse(siteNow(await currentSite())) + 36 * 3_600_000).toISOString();
    const late = await post('The occultation', { publish: { at } });
    expect(await newestFor(nobody)).not.toContain(late);
    await passDays(moor, 2);
    expect((await newestFor(nobody))[0]).toBe(late);
    value(await saveItem(SETUP, { id: late, type: 'post', title: 'The occultation', publish: 'draft' }));
    expect(await newestFor(nobody)).not.toContain(late);
  });

  it('and the lists have none of what staff saw who looked as on a later day', async () => {
    const at = new Date(Date.parse(siteNow(await currentSite())) + 36 * 3_600_000).toISOString();
    const later = await post('The total eclipse', { publish: { at } });
    const day = new Date(Date.parse(at) + 2 * 86_400_000).toISOString().slice(0, 10);
    const looking: Actor = { ...moor.owner, look: `visitor@${day}` };
    const listed = async (actor: Actor) => value(await listItems(actor, {})).items.map(({ id }) => id);
    // The first to ask since something was changed.
    expect(await listed(looking)).toContain(later);
    expect(await listed(VISITOR_ACTOR)).not.toContain(later);
    expect(await newestFor(nobody)).not.toContain(later);
    await passDays(moor, 2);
    expect(await listed(VISITOR_ACTOR)).toContain(later);
    expect(await listed({ ...moor.owner, look: 'visitor@2020-01-01' })).toEqual([]);
    expect(await listed(VISITOR_ACTOR)).toContain(later);
  });

  it('leads back to what was begun, as long as it is open', async () => {
    const begun = await post('The long walk');
    value(await keepReadingPlace(nobody, { itemId: begun, place: 400 }));
    expect((await room(nobody)).begun).toMatchObject([{ id: begun, place: 400 }]);
    expect((await room(observer)).begun).toEqual([]);
    await rows(`INSERT INTO rules (id, name, definition) VALUES ('long-walk', 'Long walk', $1)`, [
      { covers: [{ kind: 'item', id: begun }], openTo: [{ who: { kind: 'tier', id: 'observer' } }] },
    ]);
    expect((await room(nobody)).begun).toEqual([]);
    await rows(`DELETE FROM rules WHERE id = 'long-walk'`);
  });

  it('says how much the next tier of their ladder would open, and how much there is of each category', async () => {
    value(
      await saveItem(SETUP, {
        id: 'guide-1',
        type: 'post',
        title: 'A guide',
        publish: 'publish',
        categories: ['guides'],
      }),
    );
    const of = (found: Awaited<ReturnType<typeof room>>) =>
      found.categories.find(({ id }) => id === 'guides')?.count ?? 0;
    const [theirs, none] = [await room(observer), await room(nobody)];
    expect(of(theirs)).toBeGreaterThan(of(none));
    expect(theirs.total).toBeGreaterThan(none.total);
    const gazer = await newPerson('Ebba Fenn');
    const term = { for: 'good' };
    value(await giveTier(SETUP, { memberId: gazer.memberId, tierId: 'gazer', term, isTold: false }));
    const up = (await room(gazer)).up;
    expect(up).toMatchObject({ name: 'Observer' });
    // The next tier is one that is paid for, which a gift is not.
    const paying = asMember((await join(moor, 'observer-monthly', 'works')).memberId);
    expect(up?.more).toBe((await room(paying)).total - (await room(gazer)).total);
  });
});
