import { describe, expect, it } from 'vitest';
import { OWNER } from '../../scripts/lib/load-demo';
import { connectGateway } from '../../src/services/connect-gateway';
import { findMembers } from '../../src/services/find-members';
import { seal, unseal } from '../../src/services/seal';
import { endSession, memberOfSession, startSession } from '../../src/services/sessions';
import { setUpSite } from '../../src/services/set-up-site';
import { signIn } from '../../src/services/sign-in';
import { today } from '../../src/services/today';
import { join, memberNamed, rows, lanternMoor } from './lantern-moor';

const moor = lanternMoor();

describe('signing in', () => {
  it('works with the right password, in any case of the address', async () => {
    expect(await signIn({ email: 'INES@moor.example ', password: OWNER.password }, 'a')).toMatchObject({
      ok: true,
      value: { staffRole: 'owner' },
    });
  });

  it('gives the same answer for a wrong password and an unknown address', async () => {
    const wrong = await signIn({ email: OWNER.email, password: 'wrong' }, 'b');
    expect(wrong).toEqual(await signIn({ email: 'nobody@moor.example', password: 'wrong' }, 'b'));
    expect(wrong.ok).toBe(false);
  });

  it('is slowed down after eight wrong tries at one address, even for the right password', async () => {
    const { email } = await join(moor, 'gazer-free', null);
    for (let n = 0; n < 8; n++) await signIn({ email, password: 'wrong' }, `c${n}`);
    expect(await signIn({ email, password: 'look up more often' }, 'c')).toMatchObject({
      ok: false,
      problems: { '': expect.stringMatching(/Too many tries. Wait 1[45] minutes/) as string },
    });
  });

  it('stores passwords by argon2id and sessions by hash, and a session ends when it is ended', async () => {
    const owner = (await memberNamed(OWNER.email))!;
    expect(owner.passwordHash).toMatch(/^\$argon2id\$/);
    const token = await startSession(owner.id);
    expect((await memberOfSession(token))?.id).toBe(owner.id);
    expect(
      await rows(`SELECT 1 FROM sessions WHERE encode(token_hash, 'escape') LIKE '%' || $1 || '%'`, [token]),
    ).toHaveLength(0);
    await endSession(token);
    expect(await memberOfSession(token)).toBeUndefined();
    expect(await memberOfSession('made up')).toBeUndefined();
  });
});

describe('secrets', () => {
  it('are sealed at rest, each time differently, and refuse to be changed', () => {
    const sealed = seal('curlew_test_secret_x');
    expect(sealed).not.toContain('curlew');
    expect(seal('curlew_test_secret_x')).not.toBe(sealed);
    expect(unseal(sealed)).toBe('curlew_test_secret_x');
    expect(() => unseal(sealed.slice(0, -4) + 'AAAA')).toThrow();
  });

  it('of the gateway stand nowhere in the database as they were pasted', async () => {
    const tables = await rows<{ text: string }>(
      `SELECT g::text AS text FROM gateway_accounts g UNION ALL SELECT a::text FROM audit a`,
    );
    expect(tables.map((row) => row.text).join()).not.toContain('_secret_');
  });

  it('that are wrong are refused with the reason, and nothing is saved', async () => {
    const before = await rows('SELECT * FROM gateway_accounts');
    const problems = async (siteKey: string, secretKey: string) => {
      const answer = await connectGateway(moor.owner, 'curlew-cards', { siteKey, secretKey });
      return answer.ok ? {} : answer.problems;
    };
    expect(await problems('', '')).toHaveProperty('siteKey');
    expect(await problems(moor.siteKey, moor.siteKey)).toEqual({
      secretKey: expect.stringContaining('This is the site key') as string,
    });
    expect(await rows('SELECT * FROM gateway_accounts')).toEqual(before);
  });
});

it('finds members by name, tier and state, and counts them', async () => {
  await join(moor, 'observer-monthly', 'works');
  const all = await findMembers({}, 1);
  const trial = await findMembers({ state: 'trial', tier: 'observer' }, 1);
  expect(trial.count).toBe(1);
  expect(trial.rows[0]).toMatchObject({
    tiers: ['observer'],
    state: 'trial',
    next: { amount: 600, currency: 'GBP' },
  });
  expect(all.count).toBeGreaterThan(trial.count);
  expect((await findMembers({ search: '%' }, 1)).count).toBe(0);
});

it('the first page of the Desk counts what really happened', async () => {
  expect(await today()).toMatchObject({
    tiersOnSale: 6,
    turnedAway: 9,
    gateway: { heardAt: null },
    overdue: [],
  });
});

it('a site is set up once', async () => {
  const input = {
    name: 'Other',
    zone: 'Europe/London',
    currency: 'GBP',
    ownerName: 'X',
    ownerEmail: 'x@moor.example',
    ownerPassword: 'long enough',
    senderAddress: 'x@moor.example',
  };
  expect(await setUpSite(input)).toMatchObject({
    ok: false,
    problems: { '': expect.stringContaining('already') as string },
  });
  expect(await setUpSite({ ...input, zone: 'Moor', currency: 'POUND', ownerPassword: 'x' })).toMatchObject({
    ok: false,
    problems: {
      zone: expect.any(String) as string,
      currency: expect.any(String) as string,
      ownerPassword: expect.any(String) as string,
    },
  });
});
