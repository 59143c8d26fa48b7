import { randomUUID } from 'node:crypto';
import { describe, expect, it } from 'vitest';
import { MEMBER_PASSWORD } from '../../scripts/lib/load-demo';
import { findWork } from '../../src/core/people/work';
import { formStamp } from '../../src/platform/guard-form';
import { hashPassword } from '../../src/platform/passwords';
import { pool, transaction } from '../../src/platform/store/db';
import { enterByLink, enterCode, sendCodeAgain } from '../../src/people/services/enter-code';
import { saveStaffSettings } from '../../src/desk/services/save-staff-settings';
import { askForCode, signIn, whoIsThere } from '../../src/people/services/sign-in';
import { startCheckout } from '../../src/checkout/services/start-checkout';
import { tidyUp } from '../../src/desk/services/tidy-up';
import { WORKER } from '../../src/platform/actor';
import { insertMember } from '../../src/people/store/members';
import {
  lanternMoor,
  mailedTo,
  memberNamed,
  newPerson,
  rows,
  signInByCode,
  value,
  visitorWith,
} from './lantern-moor';
import { fromMs } from '../../src/core/instants';

const moor = lanternMoor();
let callers = 0;
/** An address that nobody has called from before. */
const somewhere = (): string => `198.51.100.${++callers}`;
const someone = async (): Promise<{ memberId: string; email: string }> => {
  const email = `sign-in-${randomUUID().slice(0, 8)}@moor.example`;
  const { memberId } = await newPerson('Someone New', email);
  return { memberId: memberId ?? '', email };
};
const whoHas = async (session: string) => value(await whoIsThere(visitorWith({ session })));
const rightWith = (email: string, browser = {}, from = somewhere()) =>
  signIn(visitorWith(browser, from), { email, password: MEMBER_PASSWORD });
const wrong = async (email: string, times: number, browser = {}, from = somewhere()): Promise<void> => {
  for (let n = 0; n < times; n++)
    await signIn(visitorWith(browser, from), { email, password: 'not the password' });
};
const tooMany = { ok: false, problems: { '': { code: 'sign-in.too-many' } } };

describe('wrong passwords', () => {
  it('lock out the caller alone; people elsewhere, or with a known browser, get in', async () => {
    const { email } = await someone();
    const { device } = await signInByCode(email);
    const stranger = somewhere();
    await wrong(email, 8, {}, stranger);
    expect(await rightWith(email, {}, stranger)).toMatchObject(tooMany);
    expect(await rightWith(email)).toMatchObject({ ok: true });
    // From the very same address as the stranger: by the browser that is known, and by a mailed code.
    expect(await rightWith(email, { device }, stranger)).toMatchObject({ ok: true });
    expect(await signInByCode(email)).toMatchObject({ session: expect.any(String) as string });
  });

  it('from everywhere at once close the account to strangers, not to the browser that knows it', async () => {
    const { email } = await someone();
    const { device } = await signInByCode(email);
    for (let n = 0; n < 13; n++) await wrong(email, 8);
    expect(await rightWith(email)).toMatchObject(tooMany);
    expect(await rightWith(email, { device })).toMatchObject({ ok: true });
  });

  it('of a known browser are counted for itself: eight, and not for another account', async () => {
    const [one, other] = [await someone(), await someone()];
    const { device } = await signInByCode(one.email);
    await wrong(one.email, 8, { device });
    expect(await rightWith(one.email, { device })).toMatchObject(tooMany);
    const stranger = somewhere();
    await wrong(other.email, 8, { device }, stranger);
    expect(await rightWith(other.email, { device }, stranger)).toMatchObject(tooMany);
  });

  it('are answered alike for an address that nobody has, and are in the audit without what was typed', async () => {
    const { email, memberId } = await someone();
    const answers = [];
    for (const address of [email, 'nobody@moor.example'])
      answers.push(await signIn(visitorWith({}, somewhere()), { email: address, password: 'a1b2c3-typed' }));
    expect(answers[0]).toEqual(answers[1]);
    const audit = await rows<{ line: string }>(
      `SELECT a::text AS line FROM audit a WHERE action = 'sign-in failed' AND (subject = $1 OR subject = 'site')`,
      [`member:${memberId}`],
    );
    expect(audit.length).toBeGreaterThanOrEqual(2);
    expect(JSON.stringify(audit)).not.toMatch(/a1b2c3|nobody@/);
  });

  it('are forgotten once their time has run out', async () => {
    await pool().query('UPDATE rate_limits SET expire = 1');
    value(await tidyUp(WORKER));
    expect(await rows('SELECT 1 FROM rate_limits')).toHaveLength(0);
  });
});

describe('a mailed code', () => {
  const ask = async (email: string, from = somewhere()) =>
    value(await askForCode(visitorWith({}, from), { email })).browser;
  const enter = (code: string, browser: string) =>
    enterCode(visitorWith({ code: browser }, somewhere()), { code });

  it('opens in the browser that asked, once', async () => {
    const { email, memberId } = await someone();
    const browser = await ask(email);
    const { code, link } = await mailedTo(email);
    expect(await enter(code, 'a-browser-that-did-not-ask')).toMatchObject({ ok: false });
    expect(await enterByLink(visitorWith({}), link)).toMatchObject({ code: 'missing' });
    expect(await enter(code.replace(/(...)/, '$1 '), browser)).toMatchObject({
      value: { opened: { memberId } },
    });
    expect(await enter(code, browser)).toMatchObject({ ok: false });
    expect(await enterByLink(visitorWith({ code: browser }), link)).toMatchObject({ ok: false });
  });

  it('typed again in a second tab of the browser that it signed in leads into the account', async () => {
    const { email, memberId } = await someone();
    const browser = await ask(email);
    const { code } = await mailedTo(email);
    value(await enter(code, browser));
    const signedIn = { ...visitorWith({ code: browser }, somewhere()), kind: 'member' as const, memberId };
    expect(value(await enterCode(signedIn, { code }))).toEqual({ opened: null, to: '/account' });
  });

  it('is dead after five wrong tries, also when the right one follows, and after ten minutes', async () => {
    const { email } = await someone();
    const browser = await ask(email);
    const { code } = await mailedTo(email);
    const other = code === '000000' ? '000001' : '000000';
    const said = [];
    for (let n = 0; n < 5; n++) said.push(await enter(other, browser));
    expect(said[0]).toMatchObject({ problems: { code: { code: 'code.wrong', values: { left: 4 } } } });
    expect(said[4]).toMatchObject({ problems: { code: { code: 'code.used-up' } } });
    expect(await enter(code, browser)).toMatchObject({ ok: false });
    const late = await ask(email);
    const second = await mailedTo(email);
    await pool().query(`UPDATE email_codes SET expires_at = now() - interval '1 second'`);
    expect(await enter(second.code, late)).toMatchObject({ ok: false });
  });

  it('is sent again on request: the new one works, the old one does not', async () => {
    const { email } = await someone();
    const browser = await ask(email);
    const first = await mailedTo(email);
    const again = value(await sendCodeAgain(visitorWith({ code: browser }, somewhere())));
    const second = await mailedTo(email);
    if (second.code !== first.code)
      expect(await enter(first.code, again.browser)).toMatchObject({ ok: false });
    expect(await enter(second.code, again.browser)).toMatchObject({ ok: true });
  });

  it('is not mailed without end to one address by one caller; another caller still gets one', async () => {
    const { email } = await someone();
    const stranger = somewhere();
    for (let n = 0; n < 10; n++) await ask(email, stranger);
    expect(await askForCode(visitorWith({}, stranger), { email })).toMatchObject({
      problems: { '': { code: 'code.too-many' } },
    });
    expect(await ask(email)).toEqual(expect.any(String));
  });

  it('for an address that nobody has is answered alike, and the mail holds no code', async () => {
    const browser = await ask('nobody-yet@moor.example');
    expect(browser).toEqual(expect.any(String));
    const [mail] = await rows<{ template: string; secret: string | null }>(
      `SELECT template, sealed FROM mails WHERE to_address = 'nobody-yet@moor.example'`,
    );
    expect(mail?.template).toBe('no-account');
  });
});

describe('an account made with someone else’s address', () => {
  it('belongs to the reader of the address from the first mailed sign-in: its password and sessions are removed', async () => {
    const email = `taken-${randomUUID().slice(0, 8)}@moor.example`;
    const passwordHash = await hashPassword(MEMBER_PASSWORD);
    await transaction((db) =>
      insertMember(db, {
        email,
        name: 'Not Theirs',
        passwordHash,
        staffRole: null,
        joinedAt: fromMs(Date.now()),
        emailConfirmedAt: null,
      }),
    );
    const theirs = value(await rightWith(email));
    const { session } = await signInByCode(email);
    expect(await whoHas(theirs.session)).toBeNull();
    expect(await whoHas(session)).toMatchObject({ email });
    expect(await rightWith(email, { device: theirs.device })).toMatchObject({ ok: false });
    expect((await memberNamed(email))?.passwordHash).toBeNull();
  });
});

describe('joining signed out', () => {
  const worked = (shown: string): string => findWork(shown, 0, 1 << 22) ?? '';
  const asked = async (more: object, email = `join-${randomUUID().slice(0, 8)}@moor.example`) => {
    const shown = formStamp(5_000);
    const input = { email, offerId: 'gazer-free', shown, work: worked(shown), website: '', ...more };
    return startCheckout(visitorWith({}, somewhere()), input);
  };
  const codes = async () => rows('SELECT 1 FROM email_codes');

  it('answers the same for a member’s address, the owner’s and an unknown one', async () => {
    const { email } = await someone();
    for (const address of [email, 'ines@moor.example', 'first-time@moor.example'])
      expect(await asked({}, address)).toEqual({
        ok: true,
        value: { browser: expect.any(String) as string },
      });
  });

  it('continues as the reader of that mail, and makes an account only after the code', async () => {
    const email = `new-${randomUUID().slice(0, 8)}@moor.example`;
    const { browser } = value(await asked({}, email));
    expect(await memberNamed(email)).toBeUndefined();
    const { code } = await mailedTo(email);
    expect(value(await enterCode(visitorWith({ code: browser }), { code }))).toMatchObject({
      opened: { session: expect.any(String) as string },
      to: expect.stringContaining('/join/gazer-free') as string,
    });
    expect(await memberNamed(email)).toMatchObject({ passwordHash: null });
  });

  it('is refused to programs: a field nobody sees, haste, an old page, a stamp of their own, no work; nothing is mailed', async () => {
    const before = (await codes()).length;
    const old = formStamp(25 * 3_600_000);
    // Its work is found in less than the least time, so that haste alone is against it.
    const hasty = formStamp(-60_000);
    for (const more of [
      { website: 'https://moor.example' },
      { shown: hasty, work: worked(hasty) },
      { shown: old, work: worked(old) },
      { shown: `${Date.now() - 5_000}.aaaaaaaa.made-up`, work: '' },
      { shown: '' },
      { work: '' },
      { work: '1' },
    ])
      expect(await asked(more), JSON.stringify(more)).toMatchObject({ ok: false });
    expect(await codes()).toHaveLength(before);
  });

  it('is good for eight sendings of one page, not for a thousand addresses', async () => {
    const shown = formStamp(5_000);
    const page = { shown, work: worked(shown) };
    for (let n = 0; n < 8; n++) expect(await asked(page)).toMatchObject({ ok: true });
    expect(await asked(page)).toMatchObject({ ok: false });
  });
});

describe('a session of staff', () => {
  it('expires after the idle time that the owner set; a member’s does not', async () => {
    const { email } = await someone();
    const [owner, member] = [await signInByCode('ines@moor.example'), await signInByCode(email)];
    const idle = (hours: number) =>
      pool().query(`UPDATE sessions SET last_seen_at = now() - make_interval(hours => $1)`, [hours]);
    await idle(11);
    expect(await whoHas(owner.session)).not.toBeNull();
    value(await saveStaffSettings(moor.owner, { idleHours: '3', refundAsksAbove: '50' }));
    await idle(4);
    expect(await whoHas(owner.session)).toBeNull();
    expect(await whoHas(member.session)).not.toBeNull();
    for (const idleHours of ['0', '721', 'soon', '1.5'])
      expect(await saveStaffSettings(moor.owner, { idleHours, refundAsksAbove: '50' })).toMatchObject({
        problems: { idleHours: { code: expect.any(String) as string } },
      });
  });
});
