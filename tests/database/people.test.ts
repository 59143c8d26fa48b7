import { SETUP } from '../../src/platform/actor';
import { describe, expect, it } from 'vitest';
import { connectGateway } from '../../src/billing/services/connect-gateway';
import { findMembers } from '../../src/members/services/find-members';
import { seal, unseal } from '../../src/platform/seal';
import { setUpSite } from '../../src/desk/services/set-up-site';
import { today } from '../../src/desk/services/today';
import { join, rows, lanternMoor, value } from './lantern-moor';

const moor = lanternMoor();

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
      const answer = await connectGateway(moor.owner, { gateway: 'curlew-cards', siteKey, secretKey });
      return answer.ok ? {} : answer.problems;
    };
    expect(await problems('', '')).toHaveProperty('siteKey');
    expect(await problems(moor.siteKey, moor.siteKey)).toEqual({
      secretKey: expect.objectContaining({ code: 'key.other-kind' }) as object,
    });
    expect(await rows('SELECT * FROM gateway_accounts')).toEqual(before);
  });
});

it('finds members by name, tier and state, and counts them', async () => {
  await join(moor, 'observer-monthly', 'works');
  await join(moor, 'gazer-free', null);
  const all = value(await findMembers(moor.owner, {}));
  const trial = value(await findMembers(moor.owner, { state: 'trial', tier: 'observer' }));
  expect(trial.count).toBe(1);
  expect(trial.rows[0]).toMatchObject({
    tiers: ['observer'],
    state: 'trial',
    next: { amount: 600, currency: 'GBP' },
  });
  expect(all.count).toBeGreaterThan(trial.count);
  expect(value(await findMembers(moor.owner, { q: '%' })).count).toBe(0);
});

it('the first page of the Desk counts what really happened', async () => {
  expect(value(await today(moor.owner))).toMatchObject({
    trail: { tiers: { onSale: 6 }, closed: 10, gateway: { isHeard: false }, purchase: null, renewal: null },
    needs: expect.not.arrayContaining([expect.objectContaining({ kind: 'failed' })]) as unknown,
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
  expect(await setUpSite(SETUP, input)).toMatchObject({
    ok: false,
    problems: { '': { code: 'site.exists' } },
  });
  expect(
    await setUpSite(SETUP, { ...input, zone: 'Moor', currency: 'POUND', ownerPassword: 'x' }),
  ).toMatchObject({
    ok: false,
    problems: {
      zone: { code: expect.any(String) as string },
      currency: { code: expect.any(String) as string },
      ownerPassword: { code: expect.any(String) as string },
    },
  });
});
