import { beforeAll, describe, expect, it } from 'vitest';
import { findHolder } from '../../src/billing/store/holdings';
import { tidyUp } from '../../src/desk/services/tidy-up';
import { giveTier } from '../../src/members/services/gifts';
import {
  addGroupSource,
  addMemberToGroup,
  groupPage,
  groupSources,
  removeGroupSource,
  removeMemberFromGroup,
  saveGroup,
} from '../../src/members/services/groups';
import { makeCodes } from '../../src/tiers/services/codes';
import { saveJoinFields } from '../../src/tiers/services/save-join-fields';
import { redeemCode } from '../../src/members/services/redeem-code';
import { SETUP, WORKER } from '../../src/platform/actor';
import { siteNow } from '../../src/platform/clock';
import { currentSite } from '../../src/platform/site';
import { pool } from '../../src/platform/store/db';
import {
  join,
  joinInput,
  joinNew,
  lanternMoor,
  newPerson,
  passDays,
  rows,
  subscriptionOf,
  value,
} from './lantern-moor';
import { cancelSubscription } from '../../src/billing/services/cancel-subscription';
import { NO_TERMS } from '../lib/code-terms';

const moor = lanternMoor();
let groupId = '';
const add = (kind: string, source: string, more: object = {}) =>
  addGroupSource(moor.owner, { groupId, kind, source, takesOut: true, ...more });
const members = async () =>
  value(await groupPage(moor.owner, { id: groupId })).members.map(({ id }) => id as string);
/** As access is decided. */
const isIn = async (memberId: string): Promise<boolean> => {
  const site = await currentSite();
  return (await findHolder(pool(), memberId, site.mode, siteNow(site)))?.groups.includes(groupId) ?? false;
};

const joinWith = async (scope: string) =>
  value(await joinNew(await joinInput(moor, 'observer-monthly', 'works', { answers: { scope } })));

beforeAll(async () => {
  groupId = value(await saveGroup(SETUP, { name: 'Night crew' })).id;
});

describe('a tier', () => {
  it('brings in who holds it already, and who gets it; they leave with it at the very moment it ends', async () => {
    const early = await join(moor, 'warden-monthly', 'works');
    expect(value(await add('tier', 'warden')).added).toBe(1);
    expect(await members()).toEqual([early.memberId]);
    const { memberId } = await newPerson();
    value(
      await giveTier(moor.owner, {
        memberId,
        tierId: 'warden',
        term: { for: 'length', length: { n: 10, unit: 'day' } },
        isTold: false,
      }),
    );
    expect(await isIn(memberId ?? '')).toBe(true);
    // The clock alone ends it: nothing has been done yet by the worker.
    await rows(`UPDATE site SET clock_ahead_ms = clock_ahead_ms + 11 * 86400000::int8`);
    expect(await isIn(memberId ?? '')).toBe(false);
    expect(await isIn(early.memberId)).toBe(true);
    await tidyUp(WORKER);
    expect(await members()).toEqual([early.memberId]);
  });

  it('does not put back whom staff took out, and lets stay whom staff put in', async () => {
    const [one] = await members();
    value(await removeMemberFromGroup(moor.owner, { groupId, memberId: one }));
    await passDays(moor, 40);
    expect(await isIn(one ?? '')).toBe(false);
    value(await addMemberToGroup(moor.owner, { groupId, memberId: one }));
    await rows('DELETE FROM holdings WHERE member_id = $1', [one]);
    await tidyUp(WORKER);
    expect(await isIn(one ?? '')).toBe(true);
  });

  it('leaves its members in the group when it is removed as a source', async () => {
    const { memberId } = await join(moor, 'warden-monthly', 'works');
    const [source] = value(await groupSources(moor.owner, groupId)).sources;
    expect(source).toMatchObject({ kind: 'tier', source: 'warden', name: 'Star Warden', takesOut: true });
    value(await removeGroupSource(moor.owner, { groupId, id: source?.id }));
    await rows('DELETE FROM holdings WHERE member_id = $1', [memberId]);
    await tidyUp(WORKER);
    expect(await isIn(memberId)).toBe(true);
    const later = await join(moor, 'warden-monthly', 'works');
    expect(await isIn(later.memberId)).toBe(false);
  });
});

describe('an offer, a code, an answer', () => {
  it('bring in who joins by them, until that membership ends', async () => {
    value(await add('offer', 'eclipse-week-once'));
    const by = await join(moor, 'eclipse-week-once', 'works');
    const other = await join(moor, 'observer-monthly', 'works');
    expect([await isIn(by.memberId), await isIn(other.memberId)]).toEqual([true, false]);
    await passDays(moor, 400);
    expect((await subscriptionOf(by.memberId)).state).toBe('ended');
    expect(await isIn(by.memberId)).toBe(false);
  });

  it('an answer counts as it was given, and can bring them in to stay', async () => {
    value(
      await saveJoinFields(SETUP, [
        { id: 'name', kind: 'name', label: 'Name', isOn: true },
        {
          id: 'scope',
          kind: 'choice',
          label: 'Your telescope',
          options: ['A mirror', 'A lens'],
          isOn: true,
        },
      ]),
    );
    expect((await add('answer', 'scope', { value: 'A drawer' })).ok).toBe(false);
    value(await add('answer', 'scope', { value: 'A mirror', takesOut: false }));
    const mirror = await joinWith('A mirror');
    const lens = await joinWith('A lens');
    expect([await isIn(mirror.memberId), await isIn(lens.memberId)]).toEqual([true, false]);
    value(await cancelSubscription(moor.owner, (await subscriptionOf(mirror.memberId)).id));
    await passDays(moor, 60);
    expect(await isIn(mirror.memberId)).toBe(true);
  });

  it('a code does, at joining and where it gives something by itself', async () => {
    const terms = {
      ...NO_TERMS,
      discount: { share: 10, charges: 1 },
      gives: { kind: 'tier', id: 'gazer', lasts: null },
    };
    const { id } = value(await makeCodes(SETUP, { terms, words: { word: 'crew-night' } }));
    value(await add('code', id));
    const person = await newPerson();
    value(await redeemCode(person, { word: 'crew-night' }));
    expect(await isIn(person.memberId ?? '')).toBe(true);
  });
});
