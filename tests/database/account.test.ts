import { beforeEach, describe, expect, it } from 'vitest';
import { NotAllowed, type Actor } from '../../src/services/actor';
import { changeDetails, changePassword, signOutEverywhere } from '../../src/services/change-details';
import { siteNow } from '../../src/services/clock';
import { deleteAccount } from '../../src/services/delete-account';
import { myData } from '../../src/services/my-data';
import { memberOfSession, startSession } from '../../src/services/sessions';
import { signIn } from '../../src/services/sign-in';
import { isLinkGood, mailSignInLink, takeLink } from '../../src/services/sign-in-link';
import { currentSite } from '../../src/services/site';
import { reconcile } from '../../src/services/reconcile';
import { pool } from '../../src/store/db';
import { heldTiers } from '../../src/store/holdings';
import { MEMBER_PASSWORD } from '../../scripts/lib/load-demo';
import { join, lanternMoor, memberNamed, passDays, rows, subscriptionOf } from './lantern-moor';

const moor = lanternMoor();
let person: { memberId: string; email: string };
let actor: Actor;
beforeEach(async () => {
  person = await join(moor, 'observer-monthly', 'works');
  actor = { kind: 'member', memberId: person.memberId, staffRole: null };
});
const linkTo = async (email: string): Promise<string> => {
  const [mail] = await rows<{ text_body: string }>(
    `SELECT text_body FROM mails WHERE to_address = $1 AND template = 'sign-in-link' ORDER BY created_at DESC LIMIT 1`,
    [email],
  );
  return /sign-in\/link\/(\S+)/.exec(mail?.text_body ?? '')?.[1] ?? '';
};

describe('a link to sign in', () => {
  it('works once; looking at it does not use it up', async () => {
    expect(
      await mailSignInLink({ email: person.email.toUpperCase(), to: '/posts' }, person.email),
    ).toMatchObject({ ok: true });
    const token = await linkTo(person.email);
    expect(await isLinkGood(token)).toBe(true);
    expect(await isLinkGood(token)).toBe(true);
    expect(await takeLink(token)).toMatchObject({
      ok: true,
      value: { member: { id: person.memberId }, returnTo: '/posts' },
    });
    expect(await isLinkGood(token)).toBe(false);
    expect(await takeLink(token)).toMatchObject({ ok: false });
  });

  it('is over after half an hour, and answers the same where nobody has the address', async () => {
    await mailSignInLink({ email: person.email, to: 'https://evil.example' }, person.email);
    await rows(`UPDATE sign_in_links SET expires_at = now() WHERE member_id = $1`, [person.memberId]);
    expect(await takeLink(await linkTo(person.email))).toMatchObject({ ok: false });
    expect(await mailSignInLink({ email: 'nobody@moor.example', to: '/' }, 'x')).toEqual({
      ok: true,
      value: null,
    });
    expect(await rows(`SELECT 1 FROM mails WHERE to_address = 'nobody@moor.example'`)).toEqual([]);
    expect(await mailSignInLink({ email: 'nonsense', to: '/' }, 'x')).toMatchObject({ ok: false });
  });
});

describe('details', () => {
  it('another address needs the password, is told to the old one, and cannot be somebody else’s', async () => {
    const email = `new-${person.email}`;
    expect(await changeDetails(actor, { name: 'Oona', email })).toMatchObject({
      ok: false,
      problems: { password: expect.anything() as string },
    });
    expect(
      await changeDetails(actor, { name: 'Oona', email: 'ines@moor.example', password: MEMBER_PASSWORD }),
    ).toMatchObject({
      ok: false,
      problems: { email: expect.anything() as string },
    });
    expect(await changeDetails(actor, { name: 'Oona', email, password: MEMBER_PASSWORD })).toMatchObject({
      ok: true,
    });
    expect(await memberNamed(email)).toMatchObject({ name: 'Oona' });
    expect(
      await rows(`SELECT 1 FROM mails WHERE to_address = $1 AND template = 'address-changed'`, [
        person.email,
      ]),
    ).toHaveLength(1);
  });

  it('another password needs the one now, and ends every session', async () => {
    const session = await startSession(person.memberId);
    expect(await changePassword(actor, { current: 'wrong wrong', next: 'a longer one' })).toMatchObject({
      ok: false,
    });
    expect(await changePassword(actor, { current: MEMBER_PASSWORD, next: 'short' })).toMatchObject({
      ok: false,
    });
    expect(await memberOfSession(session)).toBeDefined();
    expect(await changePassword(actor, { current: MEMBER_PASSWORD, next: 'a longer one' })).toMatchObject({
      ok: true,
    });
    expect(await memberOfSession(session)).toBeUndefined();
    expect(await signIn({ email: person.email, password: 'a longer one' }, person.email)).toMatchObject({
      ok: true,
    });
    const again = await startSession(person.memberId);
    await signOutEverywhere(actor);
    expect(await memberOfSession(again)).toBeUndefined();
  });
});

describe('what the site knows', () => {
  it('is given whole, to the member alone', async () => {
    await passDays(moor, 20);
    const data = JSON.parse(JSON.stringify(await myData(actor))) as Record<string, unknown[]> & {
      you: object;
    };
    expect(data).toMatchObject({
      you: { email: person.email },
      subscriptions: [{ state: 'active', offer: { tier: 'observer' } }],
      holdings: [{ tier: 'observer' }],
      payments: [{ amount: 600, state: 'succeeded' }],
    });
    expect(JSON.stringify(data)).not.toMatch(/argon2|password/i);
    await expect(myData({ kind: 'visitor', memberId: null, staffRole: null })).rejects.toThrow(NotAllowed);
  });

  it('is forgotten when the account is deleted, but for the books', async () => {
    await passDays(moor, 20);
    const session = await startSession(person.memberId);
    const ask = (more: object) => deleteAccount(actor, { password: MEMBER_PASSWORD, isSure: true, ...more });
    expect(await ask({ isSure: false })).toMatchObject({ ok: false });
    expect(await ask({ password: 'wrong' })).toMatchObject({ ok: false });
    await rows('UPDATE site SET may_delete_account = false');
    await expect(ask({})).rejects.toThrow(/people who run this site/);
    await rows('UPDATE site SET may_delete_account = true');
    expect(await ask({})).toMatchObject({ ok: true });
    expect(await memberOfSession(session)).toBeUndefined();
    expect(await subscriptionOf(person.memberId)).toMatchObject({ state: 'ended' });
    expect(await heldTiers(pool(), person.memberId, 'test', siteNow(await currentSite()))).toEqual([]);
    for (const [table, columns] of Object.entries({
      members: 'name || email',
      mails: 'to_address || subject || text_body',
      joinings: 'name || email || answers',
      join_answers: 'value',
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
    await expect(deleteAccount(moor.owner, { isSure: true })).rejects.toThrow(/staff/);
  });
});
