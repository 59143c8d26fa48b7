import { beforeAll, beforeEach, describe, expect, it } from 'vitest';
import { viewItem } from '../../src/access/services/view-item';
import { setStaffProof } from '../../src/desk/services/set-staff-proof';
import { staffSettings } from '../../src/desk/services/site-settings';
import { tidyUp } from '../../src/desk/services/tidy-up';
import { removeMember } from '../../src/members/services/remove-member';
import { changePassword } from '../../src/people/services/my-sign-in';
import { beginOneTime, resetProofs } from '../../src/people/services/one-time-codes';
import { askForPasskey, signInByPasskey } from '../../src/people/services/passkey-sign-in';
import { addPasskey, beginPasskey, myPasskeys, removePasskey } from '../../src/people/services/passkeys';
import { signIn, whoIsThere } from '../../src/people/services/sign-in';
import { staffPlace } from '../../src/people/services/staff';
import { WORKER, type Actor } from '../../src/platform/actor';
import { PasskeyDevice } from '../lib/passkey-device';
import { lanternMoor, memberNamed, newPerson, rows, signInByCode, value, visitorWith } from './lantern-moor';

lanternMoor();
const PASSWORD = 'look up more often';
const OWNER_PASSWORD = 'lantern on the moor';
/** The site of the tests is open at a number, so its passkeys are those of this name. */
const ORIGIN = 'http://localhost:9';

let person: Actor;
let email = '';
beforeAll(async () => {
  email = 'pat@keys.example';
  person = await newPerson('Pat', email);
});
beforeEach(async () => {
  await rows('DELETE FROM rate_limits');
});

const device = () => new PasskeyDevice(ORIGIN, 'localhost');
const asked = async (who: Actor, password = PASSWORD) =>
  value(await beginPasskey(who, { password })).options.challenge;
const add = async (who: Actor, made: PasskeyDevice, name = 'Laptop') =>
  addPasskey(who, { name, answer: made.make({ challenge: await asked(who) }) });
const challenge = async () => value(await askForPasskey(visitorWith())).options.challenge;
const show = async (by: PasskeyDevice, given: Partial<Parameters<PasskeyDevice['show']>[0]> = {}) =>
  signInByPasskey(visitorWith(), {
    answer: by.show({ challenge: await challenge(), ...given }),
    to: '/posts/zodiacal-light',
  });
const whoHas = async (session: string) => value(await whoIsThere(visitorWith({ session })));
/** Who is signed in by their password, as a request of theirs has it. */
async function byPassword(address: string, password = PASSWORD): Promise<Actor> {
  const { session } = value(await signIn(visitorWith(), { email: address, password }));
  return actorOf(session);
}
async function actorOf(session: string): Promise<Actor> {
  const member = await whoHas(session);
  if (!member) throw new Error('nobody is signed in');
  return {
    ...visitorWith({ session }),
    kind: member.staffRole ? 'staff' : 'member',
    memberId: member.id,
    staffRole: member.staffRole,
  };
}

describe('a passkey', () => {
  it('is added with the password, by a device that looks at who holds it, and its owner is told', async () => {
    expect(await beginPasskey(person, { password: 'wrong' })).toMatchObject({
      problems: { password: { code: 'password.wrong' } },
    });
    expect(await beginPasskey(visitorWith(), { password: PASSWORD })).toMatchObject({ code: 'sign-in' });
    const { options, origin } = value(await beginPasskey(person, { password: PASSWORD }));
    expect(origin).toBe(ORIGIN);
    expect(options).toMatchObject({
      rp: { id: 'localhost', name: 'Lantern Moor' },
      user: { name: email },
      authenticatorSelection: { residentKey: 'required', userVerification: 'required' },
      attestation: 'none',
    });
    const made = device();
    value(await addPasskey(person, { name: ' Phone ', answer: made.make(options) }));
    expect(value(await myPasskeys(person))).toMatchObject([{ name: 'Phone', usedAt: null }]);
    const mails = await rows<{ text: string }>(
      `SELECT text_body AS text FROM mails WHERE to_address = $1 AND template = 'passkey-added'`,
      [email],
    );
    expect(mails).toEqual([{ text: expect.stringContaining('“Phone”') as string }]);
    const before = value(await beginPasskey(person, { password: PASSWORD })).options.excludeCredentials;
    expect(before).toEqual([{ id: made.id, type: 'public-key' }]);
  });

  it('is refused where the answer is of another page, another site, an old question, or nobody was looked at', async () => {
    const other = await newPerson();
    const mine = await asked(person);
    const wrong: [string, Actor, string][] = [
      ['origin', person, device().make({ challenge: await asked(person), origin: 'https://moor.test' })],
      ['site', person, device().make({ challenge: await asked(person), site: 'moor.test' })],
      ['nobody', person, device().make({ challenge: await asked(person), isVerified: false })],
      ['never asked', person, device().make({ challenge: 'bmV2ZXI' })],
      ['asked of another', other, device().make({ challenge: mine })],
      ['asked to sign in', person, device().make({ challenge: await challenge() })],
      ['no JSON', person, 'a passkey'],
      ['another form', person, '{"id":"x"}'],
      ['huge', person, JSON.stringify({ id: 'x'.repeat(50_000) })],
      ['nothing', person, ''],
    ];
    for (const [what, who, answer] of wrong)
      expect([what, (await addPasskey(who, { name: 'Laptop', answer })).ok]).toEqual([what, false]);
    const answer = device().make({ challenge: mine });
    expect((await addPasskey(person, { name: ' ', answer })).ok).toBe(false);
    await rows(`UPDATE passkey_challenges SET expires_at = now() - interval '1 second'`);
    expect((await addPasskey(person, { name: 'Laptop', answer })).ok).toBe(false);
    expect(value(await myPasskeys(person))).toHaveLength(1);
    expect(value(await myPasskeys(other))).toEqual([]);
    await tidyUp(WORKER);
    expect(await rows('SELECT 1 FROM passkey_challenges')).toEqual([]);
  });

  it('signs in without a name or a password, and leads back to where they were', async () => {
    const made = device();
    value(await add(person, made));
    const signedIn = value(await show(made));
    expect(signedIn).toMatchObject({ to: '/posts/zodiacal-light', needsCode: false });
    expect(await whoHas(signedIn.session)).toMatchObject({ id: person.memberId });
    const [kept] = await rows<{ counter: bigint }>('SELECT counter FROM passkeys WHERE credential_id = $1', [
      made.id,
    ]);
    expect(kept?.counter).toBe(1n);
    expect(value(await myPasskeys(person)).at(-1)?.usedAt).not.toBeNull();
    const same = new PasskeyDevice(ORIGIN, 'localhost', 0, made.id);
    expect(await add(person, same)).toMatchObject({ problems: { '': { code: 'passkey.known' } } });
  });

  it('is refused where it is unknown, signed something else, or signed it before', async () => {
    const made = device();
    value(await add(person, made));
    const wrong: [string, string][] = [
      ['unknown', device().show({ challenge: await challenge() })],
      ['origin', made.show({ challenge: await challenge(), origin: 'http://localhost:10' })],
      ['site', made.show({ challenge: await challenge(), site: '127.0.0.1' })],
      ['nobody', made.show({ challenge: await challenge(), isVerified: false })],
      ['never asked', made.show({ challenge: 'bmV2ZXI' })],
      ['asked to add', made.show({ challenge: await asked(person) })],
      ['empty', ''],
    ];
    for (const [what, answer] of wrong)
      expect([what, (await signInByPasskey(visitorWith(), { answer })).ok]).toEqual([what, false]);
    const stranger = device();
    const forged = stranger.show({ challenge: await challenge() }).replaceAll(stranger.id, made.id);
    expect((await signInByPasskey(visitorWith(), { answer: forged })).ok).toBe(false);
    const good = made.show({ challenge: await challenge() });
    const both = await Promise.all([1, 2].map(() => signInByPasskey(visitorWith(), { answer: good })));
    expect(both.filter(({ ok }) => ok)).toHaveLength(1);
    expect((await signInByPasskey(visitorWith(), { answer: good })).ok).toBe(false);
  });

  it('which was copied is noticed by its counter', async () => {
    const made = device();
    value(await add(person, made));
    value(await show(made));
    value(await show(made));
    made.counter = 0;
    expect(await show(made)).toMatchObject({ problems: { '': { code: 'passkey.unknown' } } });
  });

  it('is removed by its owner with the password, and by nobody else', async () => {
    const made = device();
    value(await add(person, made, 'Old phone'));
    const id = value(await myPasskeys(person)).find(({ name }) => name === 'Old phone')?.id;
    const other = await newPerson();
    expect(await removePasskey(other, { id, password: PASSWORD })).toMatchObject({
      problems: { '': { code: 'passkey.gone' } },
    });
    expect((await removePasskey(person, { id, password: '' })).ok).toBe(false);
    value(await removePasskey(person, { id, password: PASSWORD }));
    expect((await removePasskey(person, { id, password: PASSWORD })).ok).toBe(false);
    expect((await show(made)).ok).toBe(false);
    const audit = await rows(`SELECT 1 FROM audit WHERE action = 'passkey removed'`);
    expect(audit).toHaveLength(1);
  });

  it('lets nobody in who is blocked, whose file was removed, or who took an address that was not theirs', async () => {
    const owner = await byPassword('ines@moor.example', OWNER_PASSWORD);
    const gone = await newPerson('Gus', 'gus@keys.example');
    const [blocked, left] = [device(), device()];
    value(await add(person, blocked));
    value(await add(gone, left));
    await rows('UPDATE members SET blocked_at = now() WHERE id = $1', [person.memberId]);
    expect(await show(blocked)).toMatchObject({ problems: { '': { code: 'sign-in.blocked' } } });
    await rows('UPDATE members SET blocked_at = NULL WHERE id = $1', [person.memberId]);
    value(await removeMember(owner, gone.memberId));
    expect((await show(left)).ok).toBe(false);
    expect(await rows('SELECT 1 FROM passkeys WHERE member_id = $1', [gone.memberId])).toEqual([]);
    // An account in someone's name, made by someone else: they take it over by their mail.
    const taken = await newPerson('Tia', 'tia@keys.example');
    const planted = device();
    value(await add(taken, planted));
    await rows('UPDATE members SET email_confirmed_at = NULL WHERE id = $1', [taken.memberId]);
    await signInByCode('tia@keys.example');
    expect((await show(planted)).ok).toBe(false);
  });

  it('is one of twenty at most, and asking is limited for each caller', async () => {
    const many = await newPerson();
    for (let n = 0; n < 20; n += 1) value(await add(many, device()));
    expect(await beginPasskey(many, { password: PASSWORD })).toMatchObject({
      problems: { '': { code: 'passkey.too-many' } },
    });
    let last = await askForPasskey(visitorWith());
    for (let n = 0; n < 125 && last.ok; n += 1) last = await askForPasskey(visitorWith());
    expect(last).toMatchObject({ problems: { '': { code: 'sign-in.too-many' } } });
    expect((await askForPasskey(visitorWith({}, '192.0.2.7'))).ok).toBe(true);
  });
});

describe('what staff read who have shown a password alone', () => {
  it('is what they may read as members, in no other eyes, until they show more', async () => {
    const editor = await newPerson('Edda', 'edda@keys.example');
    await rows(`UPDATE members SET staff_role = 'editor' WHERE id = $1`, [editor.memberId]);
    const sees = async (who: Actor) => value(await viewItem({ ...who }, '/posts/zodiacal-light')).kind;
    const there = await byPassword('edda@keys.example');
    expect([there.staffRole, await sees(there)]).toEqual(['editor', 'open']);
    await rows('UPDATE site SET asks_staff_proof = true');
    const asMember = await actorOf(there.browser?.session ?? '');
    expect([asMember.staffRole, await sees(asMember)]).toEqual([null, 'doorstep']);
    expect(await sees({ ...asMember, look: 'tier:observer' })).toBe('doorstep');
    value(await add(asMember, device()));
    const proven = await actorOf(there.browser?.session ?? '');
    expect([proven.staffRole, await sees(proven)]).toEqual(['editor', 'open']);
    await rows('UPDATE site SET asks_staff_proof = false');
  });
});

describe('more than a password for all staff', () => {
  let owner: Actor;
  const proof = new PasskeyDevice(ORIGIN, 'localhost');

  it('is asked for by an owner who has shown one, with their password', async () => {
    owner = await byPassword('ines@moor.example', OWNER_PASSWORD);
    const asks = { asks: true, password: OWNER_PASSWORD };
    expect(await setStaffProof(owner, asks)).toMatchObject({ problems: { '': { code: 'proof.own-first' } } });
    const challengeOfOwner = await asked(owner, OWNER_PASSWORD);
    value(await addPasskey(owner, { name: 'Key ring', answer: proof.make({ challenge: challengeOfOwner }) }));
    expect((await setStaffProof(owner, { ...asks, password: 'wrong' })).ok).toBe(false);
    value(await setStaffProof(owner, asks));
    expect(value(await staffSettings(owner)).asksStaffProof).toBe(true);
    expect(await whoHas(owner.browser?.session ?? '')).toMatchObject({
      staffRole: 'owner',
      lacksProof: false,
    });
    expect(value(await staffPlace(owner)).staff).toContainEqual(
      expect.objectContaining({ id: owner.memberId, passkeys: 1 }),
    );
  });

  it('treats staff who showed only a password as members until they set one up', async () => {
    const helper = await newPerson('Hal', 'hal@keys.example');
    await rows(`UPDATE members SET staff_role = 'helper' WHERE id = $1`, [helper.memberId]);
    const there = await byPassword('hal@keys.example');
    expect(await whoHas(there.browser?.session ?? '')).toMatchObject({ staffRole: null, lacksProof: true });
    expect(await staffPlace(there)).toMatchObject({ code: 'forbidden' });
    value(await beginOneTime(there));
    const own = device();
    value(await add(there, own));
    expect(await whoHas(there.browser?.session ?? '')).toMatchObject({
      staffRole: 'helper',
      lacksProof: false,
    });
    // By a password alone, nobody adds another to get in.
    const thief = await byPassword('hal@keys.example');
    expect(thief.staffRole).toBeNull();
    for (const refused of [await beginPasskey(thief, { password: PASSWORD }), await beginOneTime(thief)])
      expect(refused).toMatchObject({ problems: { '': { code: 'proof.show-yours' } } });
    const shown = await actorOf(value(await show(own)).session);
    expect(shown.staffRole).toBe('helper');
    const [passkey] = value(await myPasskeys(shown));
    expect(await removePasskey(shown, { id: passkey?.id, password: PASSWORD })).toMatchObject({
      problems: { '': { code: 'proof.last' } },
    });
    const { session } = value(
      await changePassword(shown, { current: PASSWORD, next: 'three owls at the barn door' }),
    );
    expect(await whoHas(session)).toMatchObject({ staffRole: 'helper' });
  });

  it('is given back by an owner to who has lost it, and nothing is asked of members', async () => {
    const helper = await memberNamed('hal@keys.example');
    value(await resetProofs(owner, { memberId: helper?.id, password: OWNER_PASSWORD }));
    expect(await resetProofs(owner, { memberId: helper?.id, password: OWNER_PASSWORD })).toMatchObject({
      problems: { '': { code: 'proof.none' } },
    });
    expect(await resetProofs(owner, { memberId: person.memberId, password: OWNER_PASSWORD })).toMatchObject({
      code: 'missing',
    });
    expect((await byPassword(email)).kind).toBe('member');
    const again = await byPassword('hal@keys.example', 'three owls at the barn door');
    expect((await beginPasskey(again, { password: 'three owls at the barn door' })).ok).toBe(true);
    value(await setStaffProof(owner, { asks: false, password: OWNER_PASSWORD }));
    expect(await whoHas(again.browser?.session ?? '')).toMatchObject({ staffRole: 'helper' });
  });
});
