import { beforeAll, describe, expect, it } from 'vitest';
import { apiDecision, apiDecisions } from '../../src/access/services/api-decisions';
import { apiItem, apiItems } from '../../src/access/services/api-items';
import { viewItem } from '../../src/access/services/view-item';
import { savePass } from '../../src/access/services/passes';
import { saveItem } from '../../src/content/services/save-item';
import { decisionOutput, decisionsOutput, itemsOutput, itemWithTextOutput } from '../../src/core/api/schemas';
import { fromText } from '../../src/core/content/prose';
import { apiKeys, makeApiKey, revokeApiKey, whoseKey } from '../../src/people/services/api-keys';
import { findMemberByEmail } from '../../src/people/store/members';
import { SETUP, VISITOR_ACTOR, type Actor } from '../../src/platform/actor';
import { pool } from '../../src/platform/store/db';
import { asMember } from '../../scripts/lib/people';
import { join, lanternMoor, rows, value } from './lantern-moor';

const moor = lanternMoor();
const program: Actor = { ...VISITOR_ACTOR, key: { id: 'k', scopes: ['decisions:read', 'content:read'] } };
const SECRET = 'The seventh stone turns.';
let observer: string;

beforeAll(async () => {
  ({ memberId: observer } = await join(moor, 'observer-monthly', 'works'));
  for (const [id, publish] of [
    ['stones', 'publish'],
    ['stones-draft', 'draft'],
  ] as const)
    value(
      await saveItem(SETUP, {
        id,
        type: 'post',
        title: publish === 'draft' ? 'More stones' : 'The stones',
        summary: 'How they stand.',
        body: fromText(SECRET),
        publish,
        categories: ['guides'],
      }),
    );
});

describe('a decision over the API', () => {
  it('is the one that the site makes, from every viewpoint', async () => {
    const ask = async (as: string) =>
      decisionOutput.parse(value(await apiDecision(program, { item: 'stones', as })));
    const email = (await findMemberByEmail(pool(), 'ines@moor.example'))!.email;
    expect((await ask('visitor')).state).toBe('closed');
    expect((await ask('signed-in')).state).toBe('closed');
    expect((await ask('tier:observer')).state).toBe('open');
    expect(await ask(`member:${observer}`)).toMatchObject({ state: 'open', by: 'rule', rules: ['guides'] });
    expect(await ask(`email:${email.toUpperCase()}`)).toMatchObject({ state: 'open', by: 'staff' });
    const seen = value(await viewItem(asMember(observer), '/posts/the-stones'));
    expect(seen.kind).toBe('open');
  });

  it('is asked for by address, for a day, and for many at once', async () => {
    const one = value(await apiDecision(program, { path: '/posts//the-stones/', as: 'tier:observer' }));
    expect(one).toMatchObject({ item: 'stones', state: 'open' });
    const early = value(
      await apiDecision(program, { item: 'stones', as: 'tier:observer', on: '2020-01-01' }),
    );
    expect(early).toMatchObject({ isPublished: false, state: 'closed' });
    const many = decisionsOutput.parse(
      value(
        await apiDecisions(program, { items: ['stones', 'nowhere', 'stones-draft'], as: 'tier:observer' }),
      ),
    );
    expect(many.decisions.map(({ item, state }) => [item, state])).toEqual([
      ['stones', 'open'],
      ['stones-draft', 'closed'],
    ]);
    expect(many.missing).toEqual(['nowhere']);
  });

  it('is refused where it is not said of what, or as whom', async () => {
    const problemsOf = async (input: unknown) => {
      const answer = await apiDecision(program, input);
      return answer.ok
        ? {}
        : Object.fromEntries(Object.entries(answer.problems).map(([k, p]) => [k, p.code]));
    };
    expect(await problemsOf({})).toEqual({ item: 'api.item-or-path' });
    expect(await problemsOf({ item: 'stones', path: '/posts/the-stones' })).toEqual({
      item: 'api.item-or-path',
    });
    for (const as of [
      'tier:none',
      'member:none',
      'email:none@moor.example',
      'visitor@2027-01-01',
      'owner',
      '',
    ])
      expect(await problemsOf({ item: 'stones', as })).toHaveProperty('as');
    expect((await apiDecision(program, { item: 'nowhere' })).ok).toBe(false);
  });
});

describe('content over the API', () => {
  it('has what the viewpoint may read, and of what is closed only its teaser', async () => {
    const read = async (as: string) =>
      itemWithTextOutput.parse(value(await apiItem(program, { id: 'stones', as })));
    expect(await read('tier:observer')).toMatchObject({ state: 'open', text: SECRET });
    const closed = await read('visitor');
    expect(closed).toMatchObject({ state: 'closed', title: 'The stones' });
    expect(closed.text).not.toContain('seventh');
    expect((await apiItem(program, { id: 'stones-draft', as: `email:ines@moor.example` })).ok).toBe(false);
  });

  it('lists what is published, without what is hidden from the viewpoint', async () => {
    value(await savePass(SETUP, { name: 'Listeners' }));
    await rows(`INSERT INTO rules (id, name, definition) VALUES ('hide-stones', 'Hide', $1)`, [
      {
        covers: [{ kind: 'item', id: 'stones' }],
        openTo: [{ who: { kind: 'pass', id: 'listeners' } }],
        listed: false,
      },
    ]);
    const list = async (as: string) =>
      itemsOutput.parse(value(await apiItems(program, { as, type: 'post', size: '100' })));
    const known = async (as: string) => (await list(as)).items.map(({ id }) => id);
    expect(await known('visitor')).not.toContain('stones');
    expect(await known('pass:listeners')).toContain('stones');
    expect((await apiItem(program, { id: 'stones', as: 'visitor' })).ok).toBe(false);
    expect(JSON.stringify(await list('pass:listeners'))).not.toContain('seventh');
    await rows(`DELETE FROM rules WHERE id = 'hide-stones'`);
  });
});

describe('a key', () => {
  const make = (more: object = {}) =>
    makeApiKey(moor.owner, { name: 'Forum', scopes: ['decisions:read', 'content:read'], days: 30, ...more });

  it('is shown once, is stored as a hash, and is good until it is revoked', async () => {
    const { key } = value(await make());
    expect(key).toMatch(/^nest_test_[\w-]{40,}$/);
    const stored = JSON.stringify(await rows('SELECT * FROM api_keys'));
    expect(stored).not.toContain(key.slice(14));
    expect(value(await whoseKey(VISITOR_ACTOR, key))).toMatchObject({
      scopes: ['decisions:read', 'content:read'],
    });
    const [listed] = value(await apiKeys(moor.owner)).keys;
    expect(listed).toMatchObject({ name: 'Forum', begins: key.slice(0, 14), hasEnded: false });
    value(await revokeApiKey(moor.owner, listed?.id));
    expect(value(await whoseKey(VISITOR_ACTOR, key))).toBeNull();
    expect((await revokeApiKey(moor.owner, listed?.id)).ok).toBe(false);
    expect(JSON.stringify(await rows("SELECT detail FROM audit WHERE action LIKE 'API key%'"))).not.toContain(
      key.slice(14),
    );
  });

  it('ends, and does nothing in the other mode', async () => {
    const { key } = value(await make());
    await rows("UPDATE api_keys SET mode = 'live' WHERE revoked_at IS NULL");
    expect(value(await whoseKey(VISITOR_ACTOR, key))).toBeNull();
    await rows("UPDATE api_keys SET mode = 'test', ends_at = now() WHERE revoked_at IS NULL");
    expect(value(await whoseKey(VISITOR_ACTOR, key))).toBeNull();
    for (const wrong of [
      { days: 0 },
      { days: 367 },
      { scopes: [] },
      { scopes: ['everything'] },
      { name: ' ' },
    ])
      expect((await make(wrong)).ok).toBe(false);
  });

  it('never allows more than its maker may do now', async () => {
    const { key } = value(await make());
    const role = async (to: string | null) =>
      rows('UPDATE members SET staff_role = $2 WHERE id = $1', [moor.owner.memberId, to]);
    await role('helper');
    expect(value(await whoseKey(VISITOR_ACTOR, key))).toMatchObject({ scopes: ['decisions:read'] });
    await role(null);
    expect(value(await whoseKey(VISITOR_ACTOR, key))).toBeNull();
    await role('owner');
    expect(
      (
        await makeApiKey(
          { ...moor.owner, staffRole: 'helper' },
          { name: 'x', scopes: ['decisions:read'], days: 1 },
        )
      ).ok,
    ).toBe(false);
  });

  it('calls 600 times a minute', async () => {
    const { key } = value(await make());
    const waits: number[] = [];
    for (let n = 0; n < 602; n++) waits.push(value(await whoseKey(VISITOR_ACTOR, key))?.wait ?? -1);
    expect(waits.slice(0, 600).every((wait) => wait === 0)).toBe(true);
    expect(waits.slice(600).every((wait) => wait > 0)).toBe(true);
  });
});
