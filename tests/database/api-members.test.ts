import { describe, expect, it } from 'vitest';
import { why } from '../../src/access/services/why';
import { apiSubscriptions } from '../../src/desk/services/api-subscriptions';
import { apiMember, apiMembers } from '../../src/members/services/api-members';
import { apiEndOrder, apiOrder, apiPutOrder } from '../../src/members/services/api-orders';
import type { Scope } from '../../src/core/api/scopes';
import { addLength } from '../../src/core/calendar';
import type { Actor } from '../../src/platform/actor';
import { siteNow } from '../../src/platform/clock';
import { currentSite } from '../../src/platform/site';
import { findMemberByEmail } from '../../src/people/store/members';
import { pool } from '../../src/platform/store/db';
import { heldBy, join, lanternMoor, passDays, rows, value } from './lantern-moor';

const moor = lanternMoor();
const program = (...scopes: Scope[]): Actor => ({ ...moor.owner, kind: 'staff', key: { id: 'k', scopes } });
const reads = () => program('members:read');
const put = (order: string, input: object) => apiPutOrder(program('members:write'), { order, ...input });
const end = (order: string) => apiEndOrder(program('members:write'), { order });
const inDays = async (n: number) =>
  addLength(siteNow(await currentSite()), { n, unit: 'day' }, 'Europe/London');
const held = async (email: string) =>
  (await heldBy((await findMemberByEmail(pool(), email))?.id ?? '')).map(({ tier }) => tier);
const code = (answer: { ok: boolean; problems?: object }): unknown =>
  answer.ok ? 'done' : Object.values(answer.problems ?? {}).map((one: { code: string }) => one.code)[0];

describe('an order of another program', () => {
  const ordered = { email: 'Orla@orders.example', name: 'Orla Fen', tier: 'observer' };

  it('gives a tier to who is not a member yet, once, however often it comes', async () => {
    const until = await inDays(30);
    const [one, two] = await Promise.all([
      put('A-1', { ...ordered, until }),
      put('A-1', { ...ordered, until }),
    ]);
    expect(value(one)).toEqual(value(two));
    expect(value(await put('A-1', { ...ordered, until }))).toEqual(value(one));
    expect(value(one)).toMatchObject({ order: 'A-1', kind: 'tier', item: 'observer', until, isHeld: true });
    expect(await held('orla@orders.example')).toEqual(['observer']);
    const member = await findMemberByEmail(pool(), 'orla@orders.example');
    expect(member).toMatchObject({ name: 'Orla Fen', passwordHash: null, emailConfirmedAt: null });
    expect(await rows('SELECT 1 FROM holdings WHERE member_id = $1', [member?.id])).toHaveLength(1);
    expect(value(await apiOrder(reads(), { order: 'A-1' }))).toEqual(value(one));
  });

  it('extends, shortens and ends what it gave, and after its end gives anew', async () => {
    const later = await inDays(60);
    expect(value(await put('A-1', { ...ordered, until: later })).until).toBe(later);
    expect(value(await put('A-1', ordered)).until).toBeNull();
    expect(value(await end('A-1')).isHeld).toBe(false);
    expect(await held('orla@orders.example')).toEqual([]);
    expect(value(await end('A-1'))).toMatchObject({ isHeld: false });
    expect(value(await put('A-1', { ...ordered, until: await inDays(10) })).isHeld).toBe(true);
    expect(await held('orla@orders.example')).toEqual(['observer']);
    await passDays(moor, 11);
    expect(await held('orla@orders.example')).toEqual([]);
    expect(value(await apiOrder(reads(), { order: 'A-1' })).isHeld).toBe(false);
  });

  it('is refused for another member or tier, an end that is past, and what there is not', async () => {
    expect(code(await put('A-1', { ...ordered, email: 'other@orders.example' }))).toBe('api.other-order');
    expect(await findMemberByEmail(pool(), 'other@orders.example')).toBeUndefined();
    expect(code(await put('A-1', { ...ordered, tier: 'warden' }))).toBe('api.other-order');
    expect(code(await put('A-2', { ...ordered, until: '2020-01-01T00:00:00Z' }))).toBe('gift.past');
    expect(code(await put('A-2', { ...ordered, tier: 'nothing' }))).toBe('tier.gone');
    expect(code(await put('A-2', { ...ordered, pass: 'open-night' }))).toBe('api.tier-or-pass');
    expect((await put('a b', ordered)).ok).toBe(false);
    expect(await end('A-2')).toMatchObject({ code: 'missing' });
    for (const scopes of [[], ['members:read']] as Scope[][])
      expect(await apiPutOrder(program(...scopes), { order: 'A-3', ...ordered })).toMatchObject({
        code: 'forbidden',
      });
  });

  it('gives a pass as well, and Why names it for as long as it is held', async () => {
    const [pass] = await rows<{ id: string }>('SELECT id FROM passes ORDER BY id LIMIT 1');
    const until = await inDays(5);
    const input = { email: 'pia@orders.example', pass: pass?.id, until };
    const given = value(await put('P:7', input));
    expect(value(await put('P:7', input))).toEqual(given);
    value(await put('T.8', { email: 'pia@orders.example', tier: 'observer' }));
    const asked = { item: 'about', as: `member:${given.member}`, on: '' };
    expect(value(await why(moor.owner, asked)).orders).toEqual([
      { number: 'T.8', name: 'Observer', until: null },
      { number: 'P:7', name: expect.any(String) as string, until },
    ]);
    expect(value(await put('P:7', { ...input, until: null })).until).toBeNull();
    expect(value(await end('P:7')).isHeld).toBe(false);
    expect(value(await why(moor.owner, asked)).orders.map(({ number }) => number)).toEqual(['T.8']);
    expect(value(await apiMember(reads(), { id: given.member })).holdings).toMatchObject([
      { kind: 'tier', item: 'observer', by: 'order', order: 'T.8', until: null },
    ]);
  });
});

describe('members and subscriptions', () => {
  it('are told a page at a time, by address and by tier', async () => {
    const { memberId } = await join(moor, 'warden-monthly', 'works');
    const all: string[] = [];
    for (let after: string | undefined, n = 0; n < 500; n++) {
      const page = value(await apiMembers(reads(), { size: '2', ...(after && { after }) }));
      all.push(...page.members.map(({ id }) => id));
      if (page.next === null) break;
      after = page.next;
    }
    expect(new Set(all).size).toBe(all.length);
    expect(all).toContain(memberId);
    const wardens = value(await apiMembers(reads(), { tier: 'warden' })).members;
    expect(wardens.map(({ id }) => id)).toEqual([memberId]);
    const { email } = wardens[0]!;
    expect(value(await apiMembers(reads(), { email: email.toUpperCase() })).members).toHaveLength(1);
    expect(value(await apiMembers(reads(), { email: 'nobody@orders.example' }))).toEqual({
      members: [],
      next: null,
    });
  });

  it('are told with what is held and why, and never with a password', async () => {
    const [warden] = value(await apiMembers(reads(), { tier: 'warden' })).members;
    const file = value(await apiMember(reads(), { id: warden?.id }));
    expect(file).toMatchObject({
      tiers: ['warden'],
      holdings: [{ kind: 'tier', item: 'warden', by: 'subscription' }],
      subscriptions: [{ tier: 'warden', offer: 'warden-monthly', state: 'trial' }],
    });
    expect(JSON.stringify(file)).not.toMatch(/hash|argon/i);
    const list = value(await apiSubscriptions(reads(), { state: 'trial' }));
    expect(list.subscriptions.map(({ id }) => id)).toContain(file.subscriptions[0]?.id);
    expect(await apiMember(reads(), { id: '00000000-0000-4000-8000-000000000000' })).toMatchObject({
      code: 'missing',
    });
    for (const use of [apiMembers, apiSubscriptions])
      expect(await use(program('content:read'), {})).toMatchObject({ code: 'forbidden' });
  });
});
