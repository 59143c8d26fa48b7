import { beforeAll, describe, expect, it } from 'vitest';
import { viewItem } from '../../src/access/services/view-item';
import { makeFeed, privateFeed } from '../../src/access/services/private-feed';
import { savePass } from '../../src/access/services/passes';
import { cancelSubscription } from '../../src/billing/services/cancel-subscription';
import { blockMember, unblockMember } from '../../src/members/services/block-member';
import { giftChoices } from '../../src/members/services/gift-choices';
import { changeGift, giveTier, takeGift } from '../../src/members/services/gifts';
import { givePass, takePass } from '../../src/members/services/given-passes';
import { memberFile } from '../../src/members/services/member-file';
import { mergeMembers } from '../../src/members/services/merge-members';
import { removeMember } from '../../src/members/services/remove-member';
import { sendSignInLink } from '../../src/members/services/send-sign-in-link';
import { signIn, whoIsThere } from '../../src/people/services/sign-in';
import { takeLink } from '../../src/people/services/take-link';
import { MEMBER_PASSWORD } from '../../scripts/lib/load-demo';
import { SETUP, VISITOR_ACTOR, type Actor } from '../../src/platform/actor';
import {
  asMember,
  heldBy,
  join,
  joinInput,
  joinNew,
  lanternMoor,
  mailedTo,
  memberNamed,
  newPerson,
  passDays,
  rows,
  signInByCode,
  subscriptionOf,
  value,
  visitorWith,
} from './lantern-moor';

const moor = lanternMoor();
const NOBODY = '00000000-0000-4000-8000-000000000000';
let owner: Actor;

const month = { for: 'length', length: { n: 1, unit: 'month' } } as const;
const give = (memberId: string | null, tierId: string, term: unknown = month, isTold = false) =>
  giveTier(owner, { memberId, tierId, term, isTold });
const tiersOf = async (actor: Actor) => (await heldBy(actor.memberId ?? '')).map(({ tier }) => tier);
const holdingOf = async (actor: Actor): Promise<string> =>
  (
    await rows<{ id: string }>('SELECT id FROM holdings WHERE member_id = $1 ORDER BY created_at DESC', [
      actor.memberId,
    ])
  )[0]?.id ?? '';
const emailOf = async (actor: Actor): Promise<string> =>
  (await rows<{ email: string }>('SELECT email FROM members WHERE id = $1', [actor.memberId]))[0]?.email ??
  '';

beforeAll(async () => {
  const ines = await memberNamed('ines@moor.example');
  owner = { kind: 'staff', memberId: ines?.id ?? '', staffRole: 'owner' };
  value(await savePass(SETUP, { name: 'Star party', byAddress: false, lasts: null }));
});

describe('a gift', () => {
  it('is held for its time, is never paid, and the member is told if staff wish it', async () => {
    const actor = await newPerson('Gift Taker');
    value(await give(actor.memberId, 'observer', month, true));
    expect(await heldBy(actor.memberId ?? '')).toMatchObject([{ tier: 'observer', paid: false }]);
    expect(
      await rows(`SELECT subject FROM mails WHERE template = 'gift' AND member_id = $1`, [actor.memberId]),
    ).toEqual([{ subject: 'You have been given Observer at Lantern Moor' }]);
    await passDays(moor, 32);
    expect(await tiersOf(actor)).toEqual([]);
  });

  it('ends on another day, or at once, as staff say', async () => {
    const actor = await newPerson();
    value(await give(actor.memberId, 'observer', { for: 'good' }));
    const holdingId = await holdingOf(actor);
    const id = { memberId: actor.memberId, holdingId };
    expect((await changeGift(owner, { ...id, term: { for: 'day', lastDay: '2020-01-01' } })).ok).toBe(false);
    value(await changeGift(owner, { ...id, term: { for: 'length', length: { n: 3, unit: 'day' } } }));
    await passDays(moor, 2);
    expect(await tiersOf(actor)).toEqual(['observer']);
    value(await takeGift(owner, id));
    expect(await tiersOf(actor)).toEqual([]);
    expect((await takeGift(owner, id)).ok).toBe(false);
  });

  it('of another member’s, or of a subscription, is not changed by its id', async () => {
    const [actor, other] = [await newPerson(), await newPerson()];
    value(await give(actor.memberId, 'observer', { for: 'good' }));
    const holdingId = await holdingOf(actor);
    expect((await takeGift(owner, { memberId: other.memberId, holdingId })).ok).toBe(false);
    const { memberId } = await join(moor, 'observer-monthly', 'works');
    const paid = await holdingOf(asMember(memberId));
    expect((await takeGift(owner, { memberId, holdingId: paid })).ok).toBe(false);
    expect(await tiersOf(actor)).toEqual(['observer']);
  });

  it('needs a tier that exists, a day to come, and a member', async () => {
    const { memberId } = await newPerson();
    expect(await give(memberId, 'no-such-tier')).toMatchObject({ problems: { tier: { code: 'tier.gone' } } });
    expect(await give(memberId, 'observer', { for: 'day', lastDay: '2020-01-01' })).toMatchObject({
      problems: { lastDay: { code: 'gift.past' } },
    });
    expect(await give(NOBODY, 'observer')).toMatchObject({ code: 'missing' });
  });

  it('of a pass opens what the pass opens, and ends', async () => {
    const { memberId } = await newPerson();
    value(await givePass(owner, { memberId, passId: 'star-party', term: month, isTold: false }));
    const [held] = value(await giftChoices(owner, memberId)).held;
    expect(held).toMatchObject({ pass: 'Star party', why: 'given' });
    const ids = { passId: 'star-party', id: held?.id };
    const other = await newPerson();
    expect((await takePass(owner, { ...ids, memberId: other.memberId })).ok).toBe(false);
    value(await takePass(owner, { ...ids, memberId }));
    expect(value(await giftChoices(owner, memberId)).held).toEqual([]);
  });
});

describe('a blocked account', () => {
  it('is signed out everywhere, signs in by no way, and opens no private feed, until it is unblocked', async () => {
    const person = await newPerson('Blocked Person');
    const email = await emailOf(person);
    const { session } = await signInByCode(email);
    const there = visitorWith({ session });
    const { token } = value(await makeFeed({ ...person }, undefined));
    const again = value(await signIn(VISITOR_ACTOR, { email, password: MEMBER_PASSWORD }));
    value(await sendSignInLink(owner, person.memberId));
    const link = /sign-in\/link\/([\w-]+)/.exec((await mailedTo(email)).text)?.[1] ?? '';
    value(await blockMember(owner, person.memberId));

    expect(value(await whoIsThere({ ...there }))).toBeNull();
    expect(value(await whoIsThere(visitorWith({ session: again.session })))).toBeNull();
    expect(await signIn(VISITOR_ACTOR, { email, password: MEMBER_PASSWORD })).toMatchObject({
      problems: { '': { code: 'sign-in.blocked' } },
    });
    expect((await takeLink(VISITOR_ACTOR, link)).ok).toBe(false);
    await expect(signInByCode(email)).rejects.toThrow();
    expect((await privateFeed(VISITOR_ACTOR, { token })).ok).toBe(false);
    expect((await sendSignInLink(owner, person.memberId)).ok).toBe(false);

    value(await unblockMember(owner, person.memberId));
    value(await signIn(VISITOR_ACTOR, { email, password: MEMBER_PASSWORD }));
    expect((await privateFeed(VISITOR_ACTOR, { token })).ok).toBe(true);
  });

  it('is never one of the staff', async () => {
    expect(await blockMember(owner, owner.memberId)).toMatchObject({
      problems: { '': { code: 'block.staff' } },
    });
    expect((await removeMember(owner, owner.memberId)).ok).toBe(false);
  });
});

it('a sign-in link that staff send signs its reader in, once', async () => {
  const person = await newPerson();
  const email = await emailOf(person);
  expect(value(await sendSignInLink(owner, person.memberId))).toEqual({ email });
  const { text } = await mailedTo(email);
  const link = /sign-in\/link\/([\w-]+)/.exec(text)?.[1] ?? '';
  expect(value(await takeLink(VISITOR_ACTOR, link)).memberId).toBe(person.memberId);
  expect((await takeLink(VISITOR_ACTOR, link)).ok).toBe(false);
});

it('a member who is removed keeps nothing but what the books need', async () => {
  const { memberId } = await join(moor, 'warden-monthly', 'works');
  await passDays(moor, 32);
  value(await removeMember(owner, memberId));
  expect(await tiersOf(asMember(memberId))).toEqual([]);
  expect(await rows('SELECT name FROM members WHERE id = $1', [memberId])).toEqual([
    { name: 'Deleted member' },
  ]);
  expect(
    await rows(
      `SELECT 1 FROM payments p JOIN charges c ON c.id = p.charge_id JOIN subscriptions s ON s.id = c.subscription_id WHERE s.member_id = $1 AND p.state = 'succeeded'`,
      [memberId],
    ),
  ).not.toEqual([]);
});

describe('two accounts of one person', () => {
  const merge = async (into: string | null, other: Actor) =>
    mergeMembers(owner, { memberId: into, email: await emailOf(other), password: 'lantern on the moor' });

  it('become one: money, what is held and what was written move, and nobody signs in to the other', async () => {
    const [kept, other] = [await newPerson('Kept One'), await newPerson('Other One')];
    const email = await emailOf(other);
    value(await joinNew(await joinInput(moor, 'observer-monthly', 'works', { name: 'Other One', email })));
    const subscription = await subscriptionOf(other.memberId ?? '');
    value(await give(kept.memberId, 'mirror-makers', { for: 'good' }));
    value(await merge(kept.memberId, other));
    expect(await tiersOf(kept)).toEqual(['mirror-makers', 'observer']);
    expect(await tiersOf(other)).toEqual([]);
    const { account, timeline } = value(await memberFile(owner, kept.memberId));
    expect(account.subscriptions.map((one) => one.subscription.id)).toEqual([subscription.id]);
    expect(timeline.map(({ words }) => words)).toContain('Merged with another account');
    await expect(signInByCode(email)).rejects.toThrow();
    // What is charged next is the kept account's.
    await passDays(moor, 32);
    expect(value(await memberFile(owner, kept.memberId)).account.payments.length).toBeGreaterThan(0);
  });

  it('stay two where both run on one ladder, until one is ended', async () => {
    const kept = asMember((await join(moor, 'observer-monthly', 'works')).memberId);
    const joined = await join(moor, 'warden-monthly', 'works');
    const other = asMember(joined.memberId);
    expect(await merge(kept.memberId, other)).toMatchObject({
      problems: { email: { code: 'refusal.merge' } },
    });
    expect(await tiersOf(other)).toEqual(['warden']);
    value(await cancelSubscription(owner, joined.subscription.id));
    await passDays(moor, 32);
    value(await merge(kept.memberId, other));
  });

  it('are merged by the owner’s password alone, and never where one is staff', async () => {
    const [kept, other] = [await newPerson(), await newPerson()];
    const email = await emailOf(other);
    expect((await mergeMembers(owner, { memberId: kept.memberId, email, password: 'a guess' })).ok).toBe(
      false,
    );
    expect(await merge(kept.memberId, owner)).toMatchObject({ problems: { email: { code: 'merge.staff' } } });
    expect(await merge(kept.memberId, kept)).toMatchObject({ problems: { email: { code: 'merge.same' } } });
    expect(value(await viewItem({ ...kept }, '/')).kind).toBe('open');
  });
});
