import { listJoinFields } from '../../src/tiers/store/join-fields';
import sharp from 'sharp';
import { describe, expect, it } from 'vitest';
import { SETUP, type Actor, VISITOR_ACTOR } from '../../src/platform/actor';
import { copyOffer, copyTier } from '../../src/tiers/services/copy-tier';
import { joinPage } from '../../src/checkout/services/join-page';
import { deleteOffer, deleteTier } from '../../src/desk/services/delete-tier';
import { retireOffer, retireTier } from '../../src/tiers/services/retire-tier';
import { saveJoinFields } from '../../src/tiers/services/save-join-fields';
import { arrangeTiers, saveLadder } from '../../src/tiers/services/save-ladder';
import { savePicture } from '../../src/content/services/save-picture';
import { seePicture } from '../../src/access/services/see-picture';
import { saveTier } from '../../src/billing/services/save-tier';
import { saveMenuEntry } from '../../src/content/services/menu';
import { siteMenu } from '../../src/access/services/site-menu';
import { saveOffer } from '../../src/tiers/services/save-offer';
import { pool } from '../../src/platform/store/db';
import { findOffer, listOffers } from '../../src/tiers/store/offers';
import { findTier, listTiers } from '../../src/tiers/store/tiers';
import { join, lanternMoor, rows, subscriptionOf, value } from './lantern-moor';

const moor = lanternMoor();
const HELPER: Actor = {
  kind: 'staff',
  memberId: '00000000-0000-4000-8000-00000000000a',
  staffRole: 'helper',
};
const shown = async () => value(await joinPage(VISITOR_ACTOR, '')).tiers.map(({ tier }) => tier.id);

describe('the settings of a tier', () => {
  const settings = {
    name: 'Night Watch',
    ladder: '',
    reference: 'NW-7',
    keyCut: { notches: [3, 3, 3, 1], tint: 'rose' as const },
    joinWords: 'Before you join.',
    welcomeWords: 'After you joined.',
    welcomeShown: ['account' as const],
    welcomePath: '/members-room',
    joining: 'by-code' as const,
    several: true,
    onSaleFrom: '2026-01-01',
    onSaleUntil: '2099-12-31',
    places: 12,
  };

  it('are all kept, and come back as they were', async () => {
    expect(await saveTier(SETUP, settings)).toMatchObject({ ok: true, value: { id: 'night-watch' } });
    const { ladder: _, ...kept } = settings;
    expect(await findTier(pool(), 'night-watch')).toMatchObject({
      ...kept,
      ladderId: null,
      joinWords: { type: 'doc', content: [{ type: 'paragraph' }] },
      welcomeWords: { type: 'doc', content: [{ type: 'paragraph' }] },
    });
  });

  it.each<[string, object, string]>([
    ['a reference that another has', { name: 'X', reference: 'nw-7' }, 'reference'],
    ['a key that another has', { name: 'X', keyCut: { notches: [3, 3, 3, 1], tint: 'teal' } }, 'keyCut'],
    ['a key without notches', { name: 'X', keyCut: { notches: [], tint: 'teal' } }, 'keyCut.notches'],
    ['no places', { name: 'X', places: 0 }, 'places'],
    ['half a place', { name: 'X', places: '2.5' }, 'places'],
    [
      'an end before the beginning',
      { name: 'X', onSaleFrom: '2027-02-01', onSaleUntil: '2027-01-31' },
      'onSaleUntil',
    ],
    ['a date that does not exist', { name: 'X', onSaleFrom: '2027-02-30' }, 'onSaleFrom'],
    ['several of a ladder', { name: 'X', ladder: 'observing', several: true }, 'several'],
    ['an address on another site', { name: 'X', welcomePath: '//evil.example' }, 'welcomePath'],
  ])('with %s are refused beside the field', async (_, part, field) => {
    const answer = await saveTier(SETUP, part);
    expect(answer.ok ? [] : Object.keys(answer.problems)).toContain(field);
  });

  it('saved in another window meanwhile are not overwritten, and neither is an offer', async () => {
    const tier = await findTier(pool(), 'mirror-makers');
    const opened = { id: 'mirror-makers', isNew: false, name: 'Mirror Makers', version: tier?.version };
    expect(await saveTier(SETUP, { ...opened, reference: 'first' })).toMatchObject({ ok: true });
    expect(await saveTier(SETUP, { ...opened, reference: 'second' })).toMatchObject({
      problems: { '': { code: 'record.saved-elsewhere' } },
    });
    expect(await findTier(pool(), 'mirror-makers')).toMatchObject({ reference: 'first' });
    const offer = await findOffer(pool(), 'founder-once');
    const stale = { id: 'founder-once', name: 'For good', seenVersion: 7, definition: offer?.definition };
    expect(await saveOffer(SETUP, stale)).toMatchObject({ ok: false });
  });

  it('are not for helpers', async () => {
    expect(await saveTier(HELPER, { name: 'X' })).toMatchObject({
      ok: false,
      code: expect.any(String) as string,
    });
    expect(await arrangeTiers(HELPER, { ladderId: null, tierIds: [] })).toMatchObject({
      ok: false,
      code: expect.any(String) as string,
    });
    expect(await copyTier(HELPER, 'gazer')).toMatchObject({ ok: false, code: expect.any(String) as string });
    expect(await deleteTier(HELPER, 'gazer')).toMatchObject({
      ok: false,
      code: expect.any(String) as string,
    });
  });

  it('put it onto another ladder only where nobody holds two of that ladder then', async () => {
    const { memberId } = await join(moor, 'gazer-free', null);
    const { subscription } = await join(moor, 'eclipse-week-once', 'works');
    await saveTier(SETUP, { id: 'eclipse-week', isNew: false, name: 'Eclipse Week', ladder: 'observing' });
    expect(await rows('SELECT track FROM subscriptions WHERE id = $1', [subscription.id])).toEqual([
      { track: 'observing' },
    ]);
    await saveTier(SETUP, { id: 'eclipse-week', isNew: false, name: 'Eclipse Week', ladder: '' });
    await rows('UPDATE subscriptions SET member_id = $2 WHERE id = $1', [subscription.id, memberId]);
    expect(
      await saveTier(SETUP, { id: 'eclipse-week', isNew: false, name: 'Eclipse Week', ladder: 'observing' }),
    ).toMatchObject({
      ok: false,
      problems: { ladder: { code: 'tier.double-held' } },
    });
  });
});

describe('a picture', () => {
  const png = () =>
    sharp({ create: { width: 3000, height: 1200, channels: 3, background: '#123' } })
      .png()
      .toBuffer();

  it('is written anew as WebP, no larger than a card shows, and gone when nothing shows it', async () => {
    const kept = await savePicture(SETUP, await png());
    if (!kept.ok) throw new Error('not kept');
    const { bytes } = value(await seePicture(VISITOR_ACTOR, { id: kept.value.id }));
    expect(await sharp(bytes).metadata()).toMatchObject({ format: 'webp', width: 1280, height: 512 });
    await saveTier(SETUP, {
      id: 'gazer',
      isNew: false,
      name: 'Gazer',
      ladder: 'observing',
      pictureId: kept.value.id,
    });
    expect(await findTier(pool(), 'gazer')).toMatchObject({ pictureId: kept.value.id });
    await saveTier(SETUP, { id: 'gazer', isNew: false, name: 'Gazer', ladder: 'observing', pictureId: null });
    // It is kept for a day, in which another form may still be saved with it.
    expect(await seePicture(VISITOR_ACTOR, { id: kept.value.id })).toMatchObject({ ok: true });
    await rows(`UPDATE pictures SET created_at = created_at - interval '2 days'`);
    await saveTier(SETUP, { id: 'gazer', isNew: false, name: 'Gazer' });
    expect(await seePicture(VISITOR_ACTOR, { id: kept.value.id })).toMatchObject({ ok: false });
  });

  it.each([
    ['text', Buffer.from('not a picture')],
    [
      'a drawing that could carry a script',
      Buffer.from('<svg xmlns="http://www.w3.org/2000/svg" width="9" height="9"/>'),
    ],
    ['nine megabytes', Buffer.alloc(9_000_000)],
  ])('that is %s is refused', async (_, bytes) => {
    expect(await savePicture(SETUP, bytes)).toMatchObject({ ok: false });
  });
});

describe('the order of tiers', () => {
  it('is what was dragged, on a ladder and beside it', async () => {
    expect(
      await arrangeTiers(SETUP, { ladderId: 'observing', tierIds: ['observer', 'warden', 'gazer'] }),
    ).toMatchObject({ ok: true });
    expect(await rows('SELECT id, rung FROM tiers WHERE ladder_id IS NOT NULL ORDER BY rung')).toEqual([
      { id: 'gazer', rung: 1 },
      { id: 'warden', rung: 2 },
      { id: 'observer', rung: 3 },
    ]);
    await arrangeTiers(SETUP, { ladderId: 'observing', tierIds: ['warden', 'observer', 'gazer'] });
    const alone = ['eclipse-week', 'mirror-makers', 'night-watch', 'founder'];
    expect(await arrangeTiers(SETUP, { ladderId: null, tierIds: alone })).toMatchObject({ ok: true });
    expect((await listTiers(pool())).slice(3).map((tier) => tier.id)).toEqual(alone);
  });

  it('is refused where another window changed the tiers', async () => {
    for (const tierIds of [
      ['warden', 'gazer'],
      ['warden', 'warden', 'gazer'],
      ['warden', 'founder', 'gazer'],
    ])
      expect(await arrangeTiers(SETUP, { ladderId: 'observing', tierIds })).toMatchObject({ ok: false });
  });

  it('and the rules of a ladder are kept', async () => {
    const context = {
      id: 'observing',
      name: 'Watching',
      creditUnused: false,
      waitDays: '14',
      downAtOnce: true,
    };
    expect(await saveLadder(SETUP, context)).toMatchObject({ ok: true });
    expect(await rows('SELECT name, credit_unused, wait_days, down_at_once FROM ladders')).toEqual([
      { name: 'Watching', credit_unused: false, wait_days: 14, down_at_once: true },
    ]);
    expect(await saveLadder(SETUP, { ...context, waitDays: '-1' })).toMatchObject({
      problems: { waitDays: { code: expect.any(String) as string } },
    });
  });
});

describe('copying, retiring and deleting', () => {
  it('copies a tier with its offers under a key and a name of its own, off the join page', async () => {
    const copied = await copyTier(SETUP, 'observer');
    expect(copied).toMatchObject({ ok: true, value: { id: 'observer-copy' } });
    const copy = await findTier(pool(), 'observer-copy');
    expect(copy).toMatchObject({ name: 'Observer copy', onJoinPage: false, reference: '', rung: 4 });
    expect(copy?.keyCut.notches).not.toEqual((await findTier(pool(), 'observer'))?.keyCut.notches);
    const offers = (await listOffers(pool())).filter((offer) => offer.tierId === 'observer-copy');
    expect(offers.map((offer) => [offer.name, offer.definition.tier])).toEqual([
      ['Monthly', 'observer-copy'],
      ['Yearly', 'observer-copy'],
    ]);
    expect(await copyTier(SETUP, 'observer')).toMatchObject({ value: { id: 'observer-copy-2' } });
  });

  it('deletes what nobody held and nothing speaks of, and says why it does not delete the rest', async () => {
    expect(await deleteTier(SETUP, 'observer-copy')).toMatchObject({ ok: true });
    expect(await findTier(pool(), 'observer-copy')).toBeUndefined();
    const why = async (id: string) => {
      const answer = await deleteTier(SETUP, id);
      return answer.ok ? null : answer.problems[''];
    };
    expect(await why('gazer')).toEqual({ code: 'tier.held', values: { tier: 'Gazer' } });
    expect(await why('warden')).toEqual({
      code: 'tier.opened-by-rule',
      values: { rule: 'Observing guides', tier: 'Star Warden' },
    });
    await saveOffer(SETUP, {
      id: 'leads',
      name: 'Leads',
      definition: {
        tier: 'observer',
        currency: 'GBP',
        steps: [
          { kind: 'trial', amount: 500, lasts: { n: 7, unit: 'day' }, tier: 'night-watch' },
          { kind: 'repeat', amount: 7000, every: { n: 1, unit: 'year' }, times: null },
        ],
        after: 'end',
      },
    });
    expect(await why('night-watch')).toEqual({
      code: 'tier.led-to',
      values: { offer: 'Leads', tier: 'Night Watch' },
    });
    expect(await deleteOffer(SETUP, 'leads')).toMatchObject({ ok: true });
    expect(await why('night-watch')).toBeNull();
  });

  it('retires a tier: off the join page, kept by those who hold it, and back when it is brought back', async () => {
    const { memberId } = await join(moor, 'mirror-makers-instalments', 'works');
    await retireTier(SETUP, { id: 'mirror-makers', isRetired: true });
    expect(await shown()).not.toContain('mirror-makers');
    expect(await subscriptionOf(memberId)).toMatchObject({ state: 'active' });
    await expect(join(moor, 'mirror-makers-instalments', 'works')).rejects.toThrow(/checkout.offer-gone/);
    await retireTier(SETUP, { id: 'mirror-makers', isRetired: false });
    expect(await shown()).toContain('mirror-makers');
  });

  it('copies, retires and deletes offers in the same way', async () => {
    expect(await copyOffer(SETUP, 'warden-monthly')).toMatchObject({
      value: { id: 'warden-monthly-copy', tierId: 'warden' },
    });
    expect(await findOffer(pool(), 'warden-monthly-copy')).toMatchObject({
      onSale: false,
      name: 'Monthly copy',
    });
    expect(await deleteOffer(SETUP, 'warden-monthly-copy')).toMatchObject({ ok: true });
    expect(await deleteOffer(SETUP, 'gazer-free')).toMatchObject({ ok: false });
    await retireOffer(SETUP, { id: 'observer-yearly', isRetired: true });
    expect(value(await joinPage(VISITOR_ACTOR, '')).rhythms).toEqual([]);
    await retireOffer(SETUP, { id: 'observer-yearly', isRetired: false });
    expect(value(await joinPage(VISITOR_ACTOR, '1-year')).rhythm).toBe('1-year');
  });
});

describe('what is asked at joining', () => {
  it('is kept in its order; the name cannot be lost', async () => {
    const before = await listJoinFields(pool());
    const turned = [...before].reverse();
    expect(await saveJoinFields(SETUP, turned)).toMatchObject({ ok: true });
    expect((await listJoinFields(pool())).map((field) => field.id)).toEqual(turned.map((field) => field.id));
    expect(
      await saveJoinFields(
        SETUP,
        before.filter((field) => field.kind !== 'name'),
      ),
    ).toMatchObject({ ok: false });
    expect(await saveJoinFields(SETUP, [...before, { ...before[0], label: '' }])).toMatchObject({
      problems: { [`${before.length}.label`]: { code: expect.any(String) as string } },
    });
    await saveJoinFields(SETUP, before);
  });
});

it('an offer can have an entry in the menu', async () => {
  value(
    await saveMenuEntry(SETUP, { kind: 'offer', target: 'observer-monthly', label: 'Become an Observer' }),
  );
  expect(value(await siteMenu(VISITOR_ACTOR)).at(-1)).toMatchObject({
    path: '/join/observer-monthly',
    title: 'Become an Observer',
    isOpen: true,
  });
  await retireOffer(SETUP, { id: 'observer-monthly', isRetired: true });
  expect(value(await siteMenu(VISITOR_ACTOR)).map((entry) => entry.title)).not.toContain(
    'Become an Observer',
  );
  await retireOffer(SETUP, { id: 'observer-monthly', isRetired: false });
});
