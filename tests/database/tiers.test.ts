import { describe, expect, it } from 'vitest';
import { fromText } from '../../src/core/content/prose';
import { SETUP, VISITOR_ACTOR } from '../../src/platform/actor';
import { joinPage } from '../../src/checkout/services/join-page';
import { saveOffer } from '../../src/tiers/services/save-offer';
import { saveTier } from '../../src/billing/services/save-tier';
import { readTierOverview } from '../../src/desk/services/lib/tier-overview';
import { pool } from '../../src/platform/store/db';
import { findOffer } from '../../src/tiers/store/offers';
import { findTier } from '../../src/tiers/store/tiers';
import { join, lanternMoor, rows, value } from './lantern-moor';

const moor = lanternMoor();
const monthly = (tier: string, amount: number) => ({
  tier,
  currency: 'GBP',
  steps: [{ kind: 'repeat', amount, every: { n: 1, unit: 'month' }, times: null }],
  after: 'end',
});

describe('tiers', () => {
  it('are on their ladder in the order in which they were put there, highest first', async () => {
    const { ladders, alone } = await readTierOverview();
    expect(ladders.map(({ ladder, tiers }) => [ladder.name, tiers.map((tier) => tier.id)])).toEqual([
      ['Observing', ['warden', 'observer', 'gazer']],
    ]);
    expect(alone.map((tier) => tier.id)).toEqual(['mirror-makers', 'eclipse-week', 'founder']);
  });

  it('get an id of their name, a number where it is taken, and a key of their own', async () => {
    const made = await saveTier(SETUP, { name: 'Night Owl', ladder: 'Nights' });
    expect(made).toMatchObject({ ok: true, value: { id: 'night-owl' } });
    await saveTier(SETUP, { id: 'night-owl', isNew: false, name: 'Day Owl', ladder: 'Nights' });
    expect(await saveTier(SETUP, { name: 'Night Owl' })).toMatchObject({
      ok: true,
      value: { id: 'night-owl-2' },
    });
    expect(await findTier(pool(), 'night-owl')).toMatchObject({
      name: 'Day Owl',
      ladderId: 'nights',
      rung: 1,
    });
    const cuts = (await rows<{ key_cut: { notches: number[] } }>('SELECT key_cut FROM tiers')).map((row) =>
      row.key_cut.notches.join(),
    );
    expect(new Set(cuts).size).toBe(cuts.length);
  });

  it('keep their key and their rung when they are renamed', async () => {
    const before = await findTier(pool(), 'observer');
    await saveTier(SETUP, {
      id: 'observer',
      isNew: false,
      name: 'Observer',
      description: 'New words',
      ladder: 'observing',
    });
    expect(await findTier(pool(), 'observer')).toMatchObject({
      keyCut: before?.keyCut,
      rung: before?.rung,
      description: fromText('New words'),
    });
  });

  it('are refused without a name, with a name that is taken, and where they are gone', async () => {
    expect(await saveTier(SETUP, { name: ' ' })).toMatchObject({
      problems: { name: { code: 'tier.no-name' } },
    });
    expect(await saveTier(SETUP, { name: 'observer' })).toMatchObject({
      problems: { name: { code: 'tier.taken', values: { tier: 'Observer' } } },
    });
    expect(await saveTier(SETUP, { id: 'gone', isNew: false, name: 'Gone' })).toMatchObject({ ok: false });
  });

  it('count those who hold them now', async () => {
    await join(moor, 'gazer-free', null);
    const { ladders } = await readTierOverview();
    expect(ladders[0]?.tiers.find((tier) => tier.id === 'gazer')?.holders).toBe(1);
  });
});

describe('offers', () => {
  it('make a new version when their money changes, and none when it does not', async () => {
    const save = (amount: number, name: string) =>
      saveOffer(SETUP, { id: 'warden-extra', name, definition: monthly('warden', amount) });
    expect(await save(1500, 'Extra')).toMatchObject({ ok: true, value: { version: 1 } });
    expect(await save(1500, 'More')).toMatchObject({ ok: true, value: { version: 1 } });
    expect(await save(1600, 'More')).toMatchObject({ ok: true, value: { version: 2 } });
    expect(await findOffer(pool(), 'warden-extra')).toMatchObject({ name: 'More', version: 2, isPaid: true });
  });

  it('that are impossible are refused at the step', async () => {
    const problems = async (definition: object) => {
      const answer = await saveOffer(SETUP, { name: 'X', definition });
      return answer.ok ? [] : Object.keys(answer.problems);
    };
    const repeat = monthly('observer', 600);
    expect(await problems({ ...repeat, steps: [...repeat.steps, ...repeat.steps] })).toEqual([
      'definition.steps.1',
    ]);
    expect(
      await problems({ ...repeat, steps: [{ kind: 'once', amount: 1, lasts: { until: '2020-01-01' } }] }),
    ).toEqual(['definition.steps.0.until']);
    expect(await problems({ ...repeat, steps: [{ kind: 'once', amount: -1, lasts: 'forever' }] })).toEqual([
      'definition.steps.0.amount',
    ]);
    expect(await problems({ ...repeat, steps: [{ ...repeat.steps[0], tier: 'gone' }] })).toEqual([
      'definition.steps.0.tier',
    ]);
    expect(await problems({ ...repeat, currency: 'POUNDS' })).toEqual(['definition.currency']);
    expect(await problems(monthly('gone', 1))).toEqual(['']);
  });

  it('off sale leave the join page, and with the last of them so does the tier', async () => {
    const shown = async () => value(await joinPage(VISITOR_ACTOR, '')).tiers.map(({ tier }) => tier.id);
    expect(await shown()).toEqual(['gazer', 'observer', 'warden', 'mirror-makers', 'eclipse-week']);
    const offer = await findOffer(pool(), 'eclipse-week-once');
    await saveOffer(SETUP, {
      id: 'eclipse-week-once',
      name: 'The whole week',
      onSale: false,
      definition: offer?.definition,
    });
    expect(await shown()).not.toContain('eclipse-week');
  });
});
