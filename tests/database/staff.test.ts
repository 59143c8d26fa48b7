import { beforeAll, describe, expect, it } from 'vitest';
import {
  acceptInvite,
  changeStaffRole,
  inviteAsked,
  inviteStaff,
  staffPlace,
  withdrawInvite,
} from '../../src/people/services/staff';
import { exportAudit, readAudit } from '../../src/desk/services/read-audit';
import { whoIsThere } from '../../src/people/services/sign-in';
import { VISITOR_ACTOR, type Actor } from '../../src/platform/actor';
import { blockMember } from '../../src/members/services/block-member';
import {
  lanternMoor,
  mailedTo,
  memberNamed,
  newPerson,
  piecesOf,
  rows,
  value,
  visitorWith,
} from './lantern-moor';

lanternMoor();
const PASSWORD = 'lantern on the moor';
let owner: Actor;

const invite = (email: string, role: string, password = PASSWORD) =>
  inviteStaff(owner, { email, role, password });
const linkTo = async (email: string): Promise<string> =>
  /\/desk\/invite\/([\w-]+)/.exec((await mailedTo(email)).text)?.[1] ?? '';
const roleOf = async (id: string | null): Promise<unknown> =>
  (await rows<{ staff_role: string | null }>('SELECT staff_role FROM members WHERE id = $1', [id]))[0]
    ?.staff_role;
const change = (actor: Actor, memberId: string | null, role: string | null) =>
  changeStaffRole(actor, { memberId, role, password: PASSWORD });

beforeAll(async () => {
  const ines = await memberNamed('ines@moor.example');
  owner = { kind: 'staff', memberId: ines?.id ?? '', staffRole: 'owner' };
});

describe('an invitation to the staff', () => {
  it('makes its reader staff, once, and signs them in with an account of their own', async () => {
    value(await invite('Tam@staff.example', 'helper'));
    const link = await linkTo('tam@staff.example');
    expect(value(await inviteAsked(VISITOR_ACTOR, link))).toEqual({
      email: 'tam@staff.example',
      role: 'helper',
    });
    const { session, hasPassword, memberId } = value(await acceptInvite(VISITOR_ACTOR, link));
    expect(hasPassword).toBe(false);
    expect(value(await whoIsThere(visitorWith({ session })))).toMatchObject({ staffRole: 'helper' });
    expect((await acceptInvite(VISITOR_ACTOR, link)).ok).toBe(false);
    expect(await roleOf(memberId)).toBe('helper');
    expect(await rows('SELECT 1 FROM staff_invites')).toEqual([]);
  });

  it('gives a role to a member who is there, whose password stays', async () => {
    const person = await newPerson('Una Moor', 'una@staff.example');
    value(await invite('una@staff.example', 'viewer'));
    const { memberId, hasPassword } = value(
      await acceptInvite(VISITOR_ACTOR, await linkTo('una@staff.example')),
    );
    expect(memberId).toBe(person.memberId);
    expect(hasPassword).toBe(true);
  });

  it('is void once it is withdrawn, or another was sent, or it is old', async () => {
    value(await invite('vic@staff.example', 'editor'));
    const first = await linkTo('vic@staff.example');
    value(await invite('vic@staff.example', 'viewer'));
    expect(value(await inviteAsked(VISITOR_ACTOR, first))).toBeNull();
    const second = await linkTo('vic@staff.example');
    expect(second).not.toBe(first);
    const [open] = value(await staffPlace(owner)).invites;
    value(await withdrawInvite(owner, open?.id));
    expect((await acceptInvite(VISITOR_ACTOR, second)).ok).toBe(false);
    value(await invite('vic@staff.example', 'viewer'));
    const third = await linkTo('vic@staff.example');
    await rows(`UPDATE staff_invites SET expires_at = now() - interval '1 second'`);
    expect((await acceptInvite(VISITOR_ACTOR, third)).ok).toBe(false);
    expect(await memberNamed('vic@staff.example')).toBeUndefined();
  });

  it('needs the password, and is not sent to staff or to a blocked account', async () => {
    expect((await invite('wyn@staff.example', 'owner', 'a guess')).ok).toBe(false);
    expect(await invite('ines@moor.example', 'viewer')).toMatchObject({
      problems: { email: { code: 'staff.there' } },
    });
    const person = await newPerson('Blocked', 'xan@staff.example');
    value(await invite('xan@staff.example', 'viewer'));
    const link = await linkTo('xan@staff.example');
    value(await blockMember(owner, person.memberId));
    expect((await acceptInvite(VISITOR_ACTOR, link)).ok).toBe(false);
    expect(await roleOf(person.memberId)).toBeNull();
    expect((await invite('xan@staff.example', 'viewer')).ok).toBe(false);
  });
});

describe('a staff role', () => {
  it('is never taken from the last owner, also where two owners change one another at once', async () => {
    expect(await change(owner, owner.memberId, 'editor')).toMatchObject({
      problems: { '': { code: 'staff.last-owner' } },
    });
    await newPerson('Second Owner', 'yve@staff.example');
    value(await invite('yve@staff.example', 'owner'));
    const { memberId } = value(await acceptInvite(VISITOR_ACTOR, await linkTo('yve@staff.example')));
    await rows(
      'UPDATE members SET password_hash = (SELECT password_hash FROM members WHERE id = $1) WHERE id = $2',
      [owner.memberId, memberId],
    );
    const second: Actor = { kind: 'staff', memberId, staffRole: 'owner' };
    const answers = await Promise.all([
      change(owner, memberId, 'viewer'),
      change(second, owner.memberId, 'viewer'),
    ]);
    expect(answers.filter(({ ok }) => ok)).toHaveLength(1);
    expect(await rows(`SELECT count(*)::int AS n FROM members WHERE staff_role = 'owner'`)).toEqual([
      { n: 1 },
    ]);
    // The one who is left is the owner in what follows.
    if (answers[1].ok) owner = second;
  });

  it('is changed and taken away, and what they may changes with the next request', async () => {
    const una = await memberNamed('una@staff.example');
    value(await change(owner, una?.id ?? '', 'editor'));
    expect(await roleOf(una?.id ?? '')).toBe('editor');
    value(await change(owner, una?.id ?? '', null));
    expect(await roleOf(una?.id ?? '')).toBeNull();
    expect(await change(owner, una?.id ?? '', 'editor')).toMatchObject({
      problems: { '': { code: 'staff.gone' } },
    });
  });
});

describe('the audit', () => {
  const read = async (asked: Record<string, unknown>) => value(await readAudit(owner, asked)).lines;

  it('is searched by what was done, by whom, to whom and when', async () => {
    const [line] = await read({ q: 'joined the staff' });
    expect(line).toMatchObject({ kind: 'staff', action: 'joined the staff', about: 'Second Owner' });
    const about = await read({ about: line?.subject });
    expect(about.length).toBeGreaterThan(1);
    expect(new Set(about.map(({ subject }) => subject))).toEqual(new Set([line?.subject]));
    expect((await read({ who: 'setup' })).every(({ kind }) => kind === 'setup')).toBe(true);
    expect(await read({ q: 'joined the staff', to: '2020-01-01' })).toEqual([]);
    // What cannot be read narrows nothing.
    expect((await read({ who: 'nobody', from: 'x', before: '-1' })).length).toBeGreaterThan(10);
  });

  it('is exported with all that its pages show', async () => {
    const text = (await piecesOf(value(await exportAudit(owner, { q: 'staff' })).lines)).join('');
    const rows = text.trim().split('\r\n');
    expect(rows).toHaveLength((await read({ q: 'staff' })).length + 1);
    expect(rows[0]).toBe('at,who,name,action,about,subject,details');
  });
});
