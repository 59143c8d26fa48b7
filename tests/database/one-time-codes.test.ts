import { beforeAll, describe, expect, it } from 'vitest';
import { Secret, TOTP } from 'otpauth';
import {
  beginOneTime,
  confirmOneTime,
  endOneTime,
  enterOneTime,
  myOneTime,
  oneTimeAsked,
  renewRecoveryCodes,
  resetProofs,
} from '../../src/people/services/one-time-codes';
import { signIn, whoIsThere } from '../../src/people/services/sign-in';
import { changePassword, mySettings } from '../../src/people/services/my-sign-in';
import type { Actor } from '../../src/platform/actor';
import { lanternMoor, memberNamed, newPerson, rows, signInByCode, value, visitorWith } from './lantern-moor';

lanternMoor();
const PASSWORD = 'look up more often';
let owner: Actor;
let staff: Actor;
let secret = '';
const email = 'tess@codes.example';

const appCode = (steps = 0): string =>
  new TOTP({ secret: Secret.fromBase32(secret), digits: 6, period: 30 }).generate({
    timestamp: Date.now() + steps * 30_000,
  });
const enter = (session: string, code: string) => enterOneTime(visitorWith({ session }), { code });
const isIn = async (session: string) => value(await whoIsThere(visitorWith({ session }))) !== null;
const password = async () => value(await signIn(visitorWith(), { email, password: PASSWORD }));
/** As if time had passed: the step that was used is long ago, and so are the tries. */
const later = async (): Promise<void> => {
  await rows('UPDATE one_time_codes SET last_step = 0');
  await rows('DELETE FROM rate_limits');
};

beforeAll(async () => {
  owner = { kind: 'staff', memberId: (await memberNamed('ines@moor.example'))?.id ?? '', staffRole: 'owner' };
  const { memberId } = await newPerson('Tess', email);
  await rows(`UPDATE members SET staff_role = 'helper' WHERE id = $1`, [memberId]);
  staff = { kind: 'staff', memberId, staffRole: 'helper' };
});

describe('one-time codes', () => {
  it('are set up with an app, and count only once one was typed; they are for staff', async () => {
    const member = await newPerson();
    expect(value(await myOneTime(member))).toBeNull();
    expect((await beginOneTime(member)).ok).toBe(false);
    value(await beginOneTime(staff));
    const pending = value(await myOneTime(staff))?.pending;
    expect(pending?.picture).toMatch(/^<svg/);
    secret = (pending?.typed ?? '').replace(/ /g, '');
    expect((await password()).needsCode).toBe(false);
    expect(await confirmOneTime(staff, { code: '000000', password: PASSWORD })).toMatchObject({
      problems: { code: { code: 'one-time.wrong' } },
    });
    expect((await confirmOneTime(staff, { code: appCode(), password: 'wrong' })).ok).toBe(false);
    const { codes } = value(await confirmOneTime(staff, { code: appCode(), password: PASSWORD }));
    expect(new Set(codes).size).toBe(10);
    expect(value(await myOneTime(staff))).toEqual({ isOn: true, left: 10, pending: null });
    expect((await beginOneTime(staff)).ok).toBe(false);
    const kept = await rows<{ secret_sealed: string }>('SELECT secret_sealed FROM one_time_codes');
    expect(kept[0]?.secret_sealed).not.toContain(secret);
  });

  it('are asked for after a password, and after a mailed code as well: before, nobody is signed in', async () => {
    await later();
    for (const opened of [await password(), await signInByCode(email)]) {
      expect(opened.needsCode).toBe(true);
      expect(await isIn(opened.session)).toBe(false);
      expect(value(await oneTimeAsked(visitorWith({ session: opened.session })))).toBe(true);
      expect(await mySettings(visitorWith({ session: opened.session }))).toMatchObject({ code: 'sign-in' });
      await later();
      expect(value(await enter(opened.session, appCode()))).toEqual({ to: '/desk', left: null });
      expect(await isIn(opened.session)).toBe(true);
      expect(value(await oneTimeAsked(visitorWith({ session: opened.session })))).toBe(false);
    }
  });

  it('are good once, and only now', async () => {
    await later();
    const [one, two] = [await password(), await password()];
    const code = appCode();
    value(await enter(one.session, code));
    for (const wrong of [code, appCode(-1), appCode(-3), appCode(5), '12345', 'abcdef', ''])
      expect([wrong, (await enter(two.session, wrong)).ok]).toEqual([wrong, false]);
    expect(await isIn(two.session)).toBe(false);
  });

  it('cannot be guessed: after eight tries the account has to wait, from any browser', async () => {
    await later();
    const [one, two] = [await password(), await password()];
    for (let n = 0; n < 8; n++) await enter(one.session, '000000');
    expect(await enter(two.session, appCode())).toMatchObject({
      problems: { code: { code: 'tries.too-many' } },
    });
    await later();
    value(await enter(two.session, appCode()));
  });

  it('end a session that waits for one too long, or whose member was blocked', async () => {
    await later();
    const { session } = await password();
    await rows(`UPDATE sessions SET created_at = now() - interval '20 minutes' WHERE needs_code`);
    expect((await enter(session, appCode())).ok).toBe(false);
    expect((await enter('nonsense', appCode())).ok).toBe(false);
  });

  it('have recovery codes, each good once, however it is typed; new ones void the old', async () => {
    await later();
    const { codes } = value(await renewRecoveryCodes(staff, { password: PASSWORD }));
    const [one, two] = [await password(), await password()];
    const typed = ` ${(codes[0] ?? '').toUpperCase().replace(/-/g, ' ')} `;
    expect(value(await enter(one.session, typed)).left).toBe(9);
    expect((await enter(two.session, codes[0] ?? '')).ok).toBe(false);
    value(await renewRecoveryCodes(staff, { password: PASSWORD }));
    expect((await enter(two.session, codes[1] ?? '')).ok).toBe(false);
    expect((await renewRecoveryCodes(staff, { password: 'wrong' })).ok).toBe(false);
  });

  it('are not asked for again by a change of password, and end by the member’s wish or the owner’s', async () => {
    await later();
    const changed = value(
      await changePassword(staff, { current: PASSWORD, next: 'a lamp beyond the ridge' }),
    );
    expect(changed.needsCode).toBe(false);
    expect(await isIn(changed.session)).toBe(true);
    const back = { current: 'a lamp beyond the ridge', next: PASSWORD };
    value(await changePassword(staff, back));
    expect(await resetProofs(staff, { memberId: staff.memberId, password: PASSWORD })).toMatchObject({
      code: 'forbidden',
    });
    value(await resetProofs(owner, { memberId: staff.memberId, password: 'lantern on the moor' }));
    expect((await password()).needsCode).toBe(false);
    expect((await endOneTime(staff, { password: PASSWORD })).ok).toBe(false);
    expect(await rows('SELECT 1 FROM recovery_codes')).toEqual([]);
  });
});
