import { signIn, whoIsThere } from '../../src/people/services/sign-in';
import {
  changePassword,
  endMySession,
  mySettings,
  signOutEverywhere,
} from '../../src/people/services/my-sign-in';
import { enterCode } from '../../src/people/services/enter-code';
import { changeAddress, changeDetails } from '../../src/members/services/change-details';
import { beforeEach, describe, expect, it } from 'vitest';
import { type Actor } from '../../src/platform/actor';
import { siteNow } from '../../src/platform/clock';
import { deleteAccount } from '../../src/members/services/delete-account';
import { myData } from '../../src/members/services/my-data';
import { currentSite } from '../../src/platform/site';
import { reconcile } from '../../src/billing/services/lib/reconcile';
import { MEMBER_PASSWORD } from '../../scripts/lib/load-demo';
import {
  join,
  lanternMoor,
  memberNamed,
  passDays,
  rows,
  subscriptionOf,
  value,
  visitorWith,
  mailedTo,
  signInByCode,
} from './lantern-moor';

const moor = lanternMoor();
let person: { memberId: string; email: string };
let actor: Actor;
beforeEach(async () => {
  person = await join(moor, 'observer-monthly', 'works');
  actor = { kind: 'member', memberId: person.memberId, staffRole: null };
});
const whoHas = async (session: string) => value(await whoIsThere(visitorWith({ session })));

describe('details', () => {
  it('that are left out stay as they were, and a name holds no address', async () => {
    expect(await changeDetails(actor, { name: 'Oona', invoiceWords: 'Fell & Co.' })).toMatchObject({
      ok: true,
    });
    expect(await changeDetails(actor, { name: 'Oona Fell' })).toMatchObject({ ok: true });
    expect(await memberNamed(person.email)).toMatchObject({ name: 'Oona Fell', invoiceWords: 'Fell & Co.' });
    expect(await changeDetails(actor, { name: 'see https://evil.example' })).toMatchObject({
      problems: { name: { code: 'name.address' } },
    });
    expect(await changeDetails(actor, { name: 'Oona', country: 'ZZ' })).toMatchObject({
      problems: { country: { code: 'country.missing' } },
    });
  });

  it('another address needs the password and its reader; only then it counts, and the old one is told', async () => {
    const email = `new-${person.email}`;
    expect(await changeAddress(actor, { email })).toMatchObject({
      problems: { password: { code: expect.any(String) as string } },
    });
    expect(await changeAddress(actor, { email, password: 'wrong' })).toMatchObject({
      problems: { password: { code: expect.any(String) as string } },
    });
    const { browser } = value(await changeAddress(actor, { email, password: MEMBER_PASSWORD }));
    expect(await memberNamed(person.email)).toBeDefined();
    const { code } = await mailedTo(email);
    const asThem = { ...actor, browser: { code: browser } };
    // The browser's secret and the code change nothing without the session.
    expect(await enterCode(visitorWith({ code: browser }), { code })).toMatchObject({ ok: false });
    const again = value(await changeAddress(actor, { email, password: MEMBER_PASSWORD }));
    const second = await mailedTo(email);
    expect(
      await enterCode({ ...asThem, browser: { code: again.browser } }, { code: second.code }),
    ).toMatchObject({ ok: true, value: { opened: null } });
    expect(await memberNamed(email)).toMatchObject({ id: person.memberId });
    expect(await memberNamed(person.email)).toBeUndefined();
    expect(
      await rows(`SELECT 1 FROM mails WHERE to_address = $1 AND template = 'address-changed'`, [
        person.email,
      ]),
    ).toHaveLength(1);
  });

  it('an address that belongs to someone else is not disclosed, and cannot be taken', async () => {
    const { browser } = value(
      await changeAddress(actor, { email: 'ines@moor.example', password: MEMBER_PASSWORD }),
    );
    const { code } = await mailedTo('ines@moor.example');
    expect(await enterCode({ ...actor, browser: { code: browser } }, { code })).toMatchObject({
      problems: { '': { code: 'email.taken' } },
    });
    expect(await memberNamed(person.email)).toMatchObject({ id: person.memberId });
  });

  it('another password needs the one now, is not a weak one, and ends every session but the new one', async () => {
    const { session } = await signInByCode(person.email);
    expect(
      await changePassword(actor, { current: 'wrong wrong', next: 'kestrel over wet slate' }),
    ).toMatchObject({
      problems: { current: { code: expect.any(String) as string } },
    });
    for (const next of ['short', 'password123', person.email])
      expect(await changePassword(actor, { current: MEMBER_PASSWORD, next })).toMatchObject({
        problems: { next: { code: expect.any(String) as string } },
      });
    expect(await whoHas(session)).toMatchObject({ id: person.memberId });
    const changed = value(
      await changePassword(actor, { current: MEMBER_PASSWORD, next: 'kestrel over wet slate' }),
    );
    expect(await whoHas(session)).toBeNull();
    expect(await whoHas(changed.session)).toMatchObject({ id: person.memberId });
    const input = { email: person.email, password: 'kestrel over wet slate' };
    const again = value(await signIn(visitorWith(), input));
    value(await signOutEverywhere(actor));
    expect(await whoHas(again.session)).toBeNull();
  });

  it('lists a member’s own sessions, and ends one of them; never someone else’s', async () => {
    const first = await signInByCode(person.email);
    const second = await signInByCode(person.email);
    const mine = value(await mySettings({ ...actor, browser: { session: second.session } }));
    expect(mine.sessions.map((session) => session.isThis)).toEqual(expect.arrayContaining([true, false]));
    const other = mine.sessions.find((session) => !session.isThis)!;
    expect(await endMySession(moor.owner, other.id)).toMatchObject({ ok: false });
    expect(await whoHas(first.session)).not.toBeNull();
    expect(await endMySession(actor, other.id)).toMatchObject({ ok: true });
    expect(await whoHas(first.session)).toBeNull();
    expect(await whoHas(second.session)).not.toBeNull();
  });
});

describe('what the site knows', () => {
  it('is given whole, to the member alone', async () => {
    await passDays(moor, 20);
    const data = JSON.parse(JSON.stringify(value(await myData(actor)))) as Record<string, unknown[]> & {
      you: object;
    };
    expect(data).toMatchObject({
      you: { email: person.email },
      subscriptions: [{ state: 'active', offer: { tier: 'observer' } }],
      holdings: [{ tier: 'observer' }],
      payments: [{ amount: 600, state: 'succeeded' }],
    });
    expect(JSON.stringify(data)).not.toMatch(/argon2|password/i);
    expect(await myData({ kind: 'visitor', memberId: null, staffRole: null })).toMatchObject({
      ok: false,
      code: expect.any(String) as string,
    });
  });

  it('is forgotten when the account is deleted, but for the books', async () => {
    await passDays(moor, 20);
    const { session } = await signInByCode(person.email);
    const ask = (more: object) => deleteAccount(actor, { password: MEMBER_PASSWORD, isSure: true, ...more });
    expect(await ask({ isSure: false })).toMatchObject({ ok: false });
    expect(await ask({ password: 'wrong' })).toMatchObject({ ok: false });
    await rows('UPDATE site SET may_delete_account = false');
    expect(await ask({})).toMatchObject({
      code: 'forbidden',
      problems: { '': { code: 'account.by-staff' } },
    });
    await rows('UPDATE site SET may_delete_account = true');
    expect(await ask({})).toMatchObject({ ok: true });
    expect(await whoHas(session)).toBeNull();
    expect(await subscriptionOf(person.memberId)).toMatchObject({ state: 'ended' });
    expect(
      await rows(`SELECT 1 FROM holdings WHERE member_id = $1 AND (until_at IS NULL OR until_at > $2)`, [
        person.memberId,
        siteNow(await currentSite()),
      ]),
    ).toEqual([]);
    for (const [table, columns] of Object.entries({
      members: 'name || email',
      mails: 'to_address || subject || text_body',
      checkouts: 'name || email || answers',
    }))
      expect(
        await rows(`SELECT 1 FROM ${table} WHERE position($1 in ${columns}) > 0`, [person.email]),
      ).toEqual([]);
    expect(
      await rows(
        `SELECT 1 FROM payments p JOIN charges c ON c.id = p.charge_id JOIN subscriptions s ON s.id = c.subscription_id WHERE s.member_id = $1`,
        [person.memberId],
      ),
    ).toHaveLength(1);
    await passDays(moor, 40);
    expect(await reconcile(moor.accountId)).toMatchObject({ ok: true, differences: [], open: 0 });
    expect(await deleteAccount(moor.owner, { isSure: true })).toMatchObject({
      ok: false,
      code: expect.any(String) as string,
    });
  });
});
