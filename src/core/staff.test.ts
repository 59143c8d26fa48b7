import { describe, expect, it } from 'vitest';
import { GIVEN_RIGHTS, may, mayWrite, powersOf, readsAll, RIGHTS, STAFF_ROLES, type Powers } from './staff';

const from = (role: 'editor' | 'helper' | 'viewer', set: Partial<Omit<Powers, 'role'>> = {}): Powers =>
  powersOf(role, { [role]: { rights: [], readsAll: false, writesIn: null, shutFrom: [], ...set } });

describe('the staff', () => {
  it('may look, every one of them; the owner may do everything, whatever is set', () => {
    for (const role of STAFF_ROLES) expect(may(powersOf(role, {}), 'look')).toBe(true);
    expect(from('viewer').rights).toEqual(['look']);
    const viewer = powersOf('viewer', {});
    for (const right of RIGHTS) expect(may(powersOf('owner', {}), right)).toBe(true);
    for (const right of GIVEN_RIGHTS.filter((one) => !one.startsWith('see ')))
      expect(may(viewer, right)).toBe(false);
    for (const right of RIGHTS) expect(may(null, right)).toBe(false);
  });

  it('who write read everything at first; helpers and viewers do not', () => {
    expect(STAFF_ROLES.filter((role) => readsAll(powersOf(role, {})))).toEqual(['owner', 'editor']);
    expect(may(powersOf('helper', {}), 'manage members')).toBe(true);
    expect(may(powersOf('editor', {}), 'manage money')).toBe(false);
  });

  it('may use a right only with the one that it needs, and none that there is no longer', () => {
    expect(from('helper', { rights: ['manage members', 'refund'] }).rights).toEqual(['look']);
    expect(from('helper', { rights: ['refund', 'see money'] }).rights).toEqual([
      'look',
      'see money',
      'refund',
    ]);
    expect(from('helper', { rights: ['fly' as 'look'] }).rights).toEqual(['look']);
    expect(GIVEN_RIGHTS).not.toContain('set up the site');
  });
});

describe('writing', () => {
  const post = (...categories: string[]) => ({ type: 'post', categories });
  const page = { type: 'page', categories: [] };

  it('is for pages by one right, for all other kinds by another', () => {
    const pages = from('editor', { rights: ['write pages'] });
    expect([mayWrite(pages, page), mayWrite(pages, post())]).toEqual([true, false]);
    const posts = from('editor', { rights: ['write posts'] });
    expect([mayWrite(posts, page), mayWrite(posts, post())]).toEqual([false, true]);
    for (const one of [pages, posts]) expect(mayWrite(one, { type: 'file', categories: [] })).toBe(true);
    expect(mayWrite(from('editor'), { type: 'file', categories: [] })).toBe(false);
    expect(mayWrite(null, page)).toBe(false);
  });

  it('can be for some categories alone, and never for one that is shut', () => {
    const some = from('editor', { rights: ['write posts'], writesIn: ['guides'] });
    expect([
      mayWrite(some, post('guides', 'all')),
      mayWrite(some, post('letters')),
      mayWrite(some, post()),
    ]).toEqual([true, false, false]);
    const shut = from('editor', { rights: ['write posts', 'write pages'], shutFrom: ['letters'] });
    expect([mayWrite(shut, post('letters')), mayWrite(shut, post('guides', 'letters'))]).toEqual([
      false,
      false,
    ]);
    expect(mayWrite(shut, { type: 'page', categories: ['letters'] })).toBe(false);
    expect(mayWrite(shut, post('guides'))).toBe(true);
  });
});
