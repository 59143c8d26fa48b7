import { describe, expect, it } from 'vitest';
import { cancelSubscription, endSubscription } from '../../src/billing/services/cancel-subscription';
import { submitCheckout } from '../../src/checkout/services/submit-checkout';
import { prepare } from '../../src/checkout/services/lib/prepare';
import { reconcile } from '../../src/billing/services/lib/reconcile';
import { saveOffer } from '../../src/tiers/services/save-offer';
import { pool } from '../../src/platform/store/db';
import { findCheckout } from '../../src/billing/store/checkouts';
import { cardToken } from '../../scripts/lib/stand-ins';
import {
  join,
  joinInput,
  memberNamed,
  passDays,
  rows,
  subscriptionOf,
  lanternMoor,
  joinNew,
  newPerson,
  hasJoined,
  asMember,
} from './lantern-moor';

const moor = lanternMoor();

describe('joining', () => {
  it('by an offer with a free trial charges nothing, opens the tier at once, and writes one welcome', async () => {
    const { memberId, subscription } = await join(moor, 'observer-monthly', 'works');
    expect(subscription).toMatchObject({
      state: 'trial',
      methodLabel: expect.stringContaining('•••• ') as string,
    });
    expect(await rows('SELECT template FROM mails WHERE member_id = $1', [memberId])).toEqual([
      { template: 'welcome' },
    ]);
    expect(
      await rows('SELECT tier_id, until_at, is_paid FROM holdings WHERE member_id = $1', [memberId]),
    ).toEqual([{ tier_id: 'observer', until_at: null, is_paid: true }]);
    expect(
      await rows('SELECT 1 FROM charges WHERE subscription_id = $1 AND amount > 0', [subscription.id]),
    ).toHaveLength(0);
  });

  it('by an offer that is due today charges exactly that, once', async () => {
    const { memberId, subscription } = await join(moor, 'mirror-makers-instalments', 'works');
    expect(subscription.state).toBe('active');
    expect(
      await rows(
        'SELECT p.amount, p.state, p.attempt FROM payments p JOIN charges c ON c.id = p.charge_id WHERE c.subscription_id = $1',
        [subscription.id],
      ),
    ).toEqual([{ amount: 4500n, state: 'succeeded', attempt: 1 }]);
    expect(await rows('SELECT template FROM mails WHERE member_id = $1 ORDER BY 1', [memberId])).toEqual([
      { template: 'receipt' },
      { template: 'welcome' },
    ]);
  });

  it('by a free offer needs no card and no gateway', async () => {
    const { subscription } = await join(moor, 'gazer-free', null);
    expect(subscription).toMatchObject({ state: 'active', dueAt: null, methodRef: null });
  });

  it.each([
    ['declined', 'declined.other'],
    ['no-funds', 'declined.no-funds'],
    ['expired', 'declined.expired'],
  ] as const)(
    'with a card that is %s leaves nothing half-made, and the same form can be sent again',
    async (card, code) => {
      const input = await joinInput(moor, 'observer-monthly', card);
      expect(await joinNew(input)).toEqual({
        ok: false,
        problems: { card: { code } },
      });
      expect(await hasJoined(input.email)).toBe(false);
      const again = { ...input, cardToken: await cardToken(moor.gatewayUrl, moor.siteKey, 'works') };
      expect(await joinNew(again)).toMatchObject({ ok: true });
      expect(await hasJoined(input.email)).toBe(true);
    },
  );

  it('pressed twice at once is one subscription and one charge, and both presses succeed', async () => {
    const input = await joinInput(moor, 'eclipse-week-once', 'works');
    const answers = await Promise.all([joinNew(input), joinNew(input)]);
    expect(answers.map((answer) => answer.ok)).toEqual([true, true]);
    const member = await memberNamed(input.email);
    expect(
      await rows(
        'SELECT p.state FROM payments p JOIN charges c ON c.id = p.charge_id JOIN subscriptions s ON s.id = c.subscription_id WHERE s.member_id = $1',
        [member?.id],
      ),
    ).toEqual([{ state: 'succeeded' }]);
  });

  it('in two windows at once is one subscription and one charge', async () => {
    const first = await joinInput(moor, 'eclipse-week-once', 'works');
    await newPerson(first.name, first.email);
    const second = await joinInput(moor, 'eclipse-week-once', 'works', { email: first.email });
    const answers = await Promise.all([joinNew(first), joinNew(second)]);
    expect(answers.filter((answer) => answer.ok)).toHaveLength(1);
    const member = await memberNamed(first.email);
    expect(
      await rows(`SELECT 1 FROM subscriptions WHERE member_id = $1 AND state <> 'pending'`, [member?.id]),
    ).toHaveLength(1);
    const books = await reconcile(moor.accountId);
    expect(books).toMatchObject({ ok: true, differences: [], open: 0 });
  });

  it.each([1, 2, 3, 4])(
    'in five windows at once, however they fall, is one subscription and one charge (%d)',
    async () => {
      const first = await joinInput(moor, 'eclipse-week-once', 'works');
      await newPerson(first.name, first.email);
      const others = await Promise.all(
        Array.from({ length: 4 }, () =>
          joinInput(moor, 'eclipse-week-once', 'works', { email: first.email }),
        ),
      );
      const answers = await Promise.all(
        [first, ...others].map(async (input, index) => {
          await new Promise((resolve) => setTimeout(resolve, index * 35));
          return joinNew(input);
        }),
      );
      expect(answers.some((answer) => answer.ok)).toBe(true);
      const paid = await rows(
        `SELECT p.id FROM payments p JOIN charges c ON c.id = p.charge_id JOIN checkouts j ON j.subscription_id = c.subscription_id WHERE j.email = $1`,
        [first.email],
      );
      expect(paid).toHaveLength(1);
      expect(await reconcile(moor.accountId)).toMatchObject({ ok: true, differences: [], open: 0 });
    },
  );

  it('again on the same ladder is refused while one runs; after it ended there is no second trial', async () => {
    const { memberId, subscription } = await join(moor, 'observer-monthly', 'works');
    const again = await joinInput(moor, 'warden-monthly', 'works');
    expect(await submitCheckout(asMember(memberId), again)).toMatchObject({
      ok: false,
      problems: { '': { code: 'refusal.held' } },
    });
    await cancelSubscription(asMember(memberId), subscription.id);
    await passDays(moor, 15);
    const prepared = await prepare(
      'observer-monthly',
      await memberNamed(
        (await rows<{ email: string }>('SELECT email FROM members WHERE id = $1', [memberId]))[0]!.email,
      ),
    );
    expect(prepared).toMatchObject({ skipTrial: true, obstacle: 'none', quote: { dueToday: 600 } });
    expect(
      await submitCheckout(asMember(memberId), await joinInput(moor, 'observer-monthly', 'works')),
    ).toMatchObject({
      ok: true,
    });
    expect(await subscriptionOf(memberId)).toMatchObject({ state: 'active', place: { skipTrial: true } });
  });

  it('after a free rung of the ladder was left still has its trial: that was none', async () => {
    const { memberId, email, subscription } = await join(moor, 'gazer-free', null);
    expect(await prepare('observer-monthly', await memberNamed(email))).toMatchObject({
      action: {
        kind: 'switch',
        fromTier: { id: 'gazer' },
        figures: { direction: 'up', fresh: 0, due: 600 },
      },
    });
    expect(await cancelSubscription(asMember(memberId), subscription.id)).toMatchObject({ ok: false });
    await endSubscription(moor.owner, subscription.id);
    expect(await prepare('observer-monthly', await memberNamed(email))).toMatchObject({
      action: { kind: 'new' },
      obstacle: 'none',
      skipTrial: false,
      quote: { dueToday: 0 },
    });
  });

  it('refuses wrong input beside the field, and prices that changed since they were seen', async () => {
    const good = await joinInput(moor, 'gazer-free', null);
    const problems = async (part: object) => {
      const answer = await joinNew({ ...good, ...part });
      return answer.ok ? [] : Object.keys(answer.problems);
    };
    expect(await problems({ offerId: 'nothing' })).toEqual(['']);
    expect(await problems({ versionId: 'older' })).toEqual(['']);
    expect(await problems({ checkoutId: '1' })).toEqual(['checkoutId']);
    expect(
      await problems({
        offerId: 'observer-monthly',
        versionId: (await joinInput(moor, 'observer-monthly', null)).versionId,
      }),
    ).toEqual(['card']);
    expect(await problems({ country: 'XX' })).toEqual(['country']);
  });

  it('is not taken over by another member who knows its id, and stays as it was', async () => {
    const victim = await joinInput(moor, 'eclipse-week-once', 'declined');
    await joinNew(victim);
    const before = await findCheckout(pool(), victim.checkoutId);
    const thief = await joinInput(moor, 'eclipse-week-once', 'works', { checkoutId: victim.checkoutId });
    expect(await joinNew(thief)).toMatchObject({ ok: false });
    expect(await hasJoined(thief.email)).toBe(false);
    expect(await findCheckout(pool(), victim.checkoutId)).toEqual(before);
  });

  it('never sends people to another site afterwards', async () => {
    const input = await joinInput(moor, 'gazer-free', null, { returnTo: '//evil.example/x' });
    expect(await joinNew(input)).toMatchObject({ ok: true });
    expect(await findCheckout(pool(), input.checkoutId)).toMatchObject({ state: 'done', returnTo: '/' });
  });

  it('keeps what was bought when the offer’s money changes', async () => {
    const { subscription } = await join(moor, 'observer-yearly', 'works');
    const definition = {
      tier: 'observer',
      currency: 'GBP',
      steps: [{ kind: 'repeat', amount: 9900, every: { n: 1, unit: 'year' }, times: null }],
      after: 'end',
    };
    expect(await saveOffer(moor.owner, { id: 'observer-yearly', name: 'Yearly', definition })).toMatchObject({
      ok: true,
      value: { version: 2 },
    });
    await passDays(moor, 15);
    expect(
      await rows('SELECT amount FROM charges WHERE subscription_id = $1 AND amount > 0', [subscription.id]),
    ).toEqual([{ amount: 6000n }]);
  });
});

it('another member’s open checkout is neither taken over nor paid, and the attempt is audited', async () => {
  const theirs = await joinInput(moor, 'observer-monthly', 'declined');
  await joinNew(theirs);
  const before = await findCheckout(pool(), theirs.checkoutId);
  expect(before).toMatchObject({ state: 'open' });
  const thief = await joinInput(moor, 'observer-monthly', 'works');
  expect(await joinNew({ ...thief, checkoutId: theirs.checkoutId })).toMatchObject({
    problems: { '': { code: 'checkout.of-another' } },
  });
  expect(await findCheckout(pool(), theirs.checkoutId)).toEqual(before);
  expect(await hasJoined(thief.email)).toBe(false);
  const thiefId = (await memberNamed(thief.email))?.id;
  expect(
    await rows('SELECT action FROM audit WHERE subject = $1', [`checkout:${theirs.checkoutId}`]),
  ).toEqual(expect.arrayContaining([{ action: 'another member’s checkout refused' }]));
  expect(
    await rows('SELECT 1 FROM audit WHERE actor_id = $1 AND action LIKE $2', [thiefId, '%refused']),
  ).toHaveLength(1);
});
