import { beforeAll, describe, expect, it } from 'vitest';
import type { CodeTerms } from '../../src/core/tiers/codes';
import { codeEditor, codesPlace, exportCodes, removeCodes } from '../../src/desk/services/codes-place';
import { changeCodes, makeCodes } from '../../src/tiers/services/codes';
import { lookAtCode, redeemCode } from '../../src/members/services/redeem-code';
import { giftChoices } from '../../src/members/services/gift-choices';
import { prepare } from '../../src/checkout/services/lib/prepare';
import { startCheckout } from '../../src/checkout/services/start-checkout';
import { methodChoices } from '../../src/billing/services/method-choices';
import { savePass } from '../../src/access/services/passes';
import { findMember } from '../../src/people/store/members';
import { SETUP, VISITOR_ACTOR, type Actor } from '../../src/platform/actor';
import { pool } from '../../src/platform/store/db';
import {
  asMember,
  connectOthers,
  heldBy,
  joinInput,
  joinNew,
  lanternMoor,
  newPerson,
  passDays,
  rows,
  subscriptionOf,
  value,
} from './lantern-moor';
import { NO_TERMS } from '../lib/code-terms';

const moor = lanternMoor();
const make = async (word: string, part: Partial<CodeTerms>): Promise<string> =>
  value(await makeCodes(SETUP, { terms: { ...NO_TERMS, ...part }, words: { word } })).id;
/** What a join by a code came to: what it refused, or what was charged at once and since. */
const joinBy = async (offerId: string, code: string, more: Record<string, unknown> = {}) => {
  const input = await joinInput(moor, offerId, 'works', { code, ...more });
  return joinNew(input);
};
const chargedTo = async (memberId: string): Promise<number[]> =>
  (
    await rows<{ amount: bigint }>(
      `SELECT p.amount FROM payments p JOIN charges c ON c.id = p.charge_id JOIN subscriptions s ON s.id = c.subscription_id
       WHERE s.member_id = $1 AND p.state = 'succeeded' ORDER BY p.at, p.id`,
      [memberId],
    )
  ).map(({ amount }) => Number(amount));
const problemsOf = (answer: Awaited<ReturnType<typeof joinBy>>) => (answer.ok ? {} : answer.problems);

beforeAll(async () => {
  value(await savePass(SETUP, { name: 'Star party', byAddress: false, lasts: null }));
});

describe('a code that takes something off', () => {
  it('shows the price that is charged, for as many payments as it says', async () => {
    await make('gorse', { discount: { share: 20, charges: 2 } });
    const shown = await prepare('warden-monthly', undefined, { code: 'GORSE' });
    const full = await prepare('warden-monthly', undefined, {});
    const [first] = full?.quote.charges.filter(({ amount }) => amount > 0) ?? [];
    const [fee, price] = [first?.joiningFee ?? 0, (first?.amount ?? 0) - (first?.joiningFee ?? 0)];
    expect(fee).toBeGreaterThan(0);
    const paid = shown?.quote.charges.filter(({ amount }) => amount > 0).map(({ amount }) => amount) ?? [];
    // The joining fee is never reduced.
    expect(paid.slice(0, 3)).toEqual([price * 0.8 + fee, price * 0.8, price]);
    const joined = value(await joinBy('warden-monthly', 'gorse'));
    await passDays(moor, 100);
    const charged = await chargedTo(joined.memberId);
    expect(charged.slice(0, 3)).toEqual(paid.slice(0, 3));
    expect(shown?.code).toMatchObject({ word: 'GORSE', problem: null });
  });

  it('is refused where the page had shown another price', async () => {
    await make('due-code', { discount: { share: 50, charges: null } });
    const full = await prepare('founder-once', undefined, {});
    await make('founders', { admits: ['founder'] });
    await make('founders-half', { admits: ['founder'], discount: { share: 50, charges: null } });
    const due = full?.quote.dueToday ?? 0;
    expect(problemsOf(await joinBy('founder-once', 'founders-half', { due }))).toMatchObject({
      '': { code: 'refusal.another-price' },
    });
    const joined = value(await joinBy('founder-once', 'founders-half', { due: due / 2 }));
    expect(await chargedTo(joined.memberId)).toEqual([due / 2]);
  });

  it('is for its own tiers and currency, and never for what needs another code', async () => {
    await make('wardens-only', { discount: { share: 10, charges: 1 }, tierIds: ['warden'] });
    await make('in-euros', { discount: { amount: 100, charges: 1 }, currency: 'EUR' });
    expect(problemsOf(await joinBy('observer-monthly', 'wardens-only'))).toMatchObject({
      code: { code: 'code.not-for-this' },
    });
    expect(problemsOf(await joinBy('observer-monthly', 'in-euros'))).toMatchObject({
      code: { code: 'code.not-for-this' },
    });
    expect(problemsOf(await joinBy('founder-once', 'due-code'))).toMatchObject({
      code: { code: 'code.not-for-this' },
    });
    expect(problemsOf(await joinBy('observer-monthly', 'no-such-code'))).toHaveProperty('code');
  });

  it('hides a wallet, which can take nothing off a single bill, also once it is paid another way', async () => {
    await connectOthers(moor);
    const natures = async (code?: string) =>
      (await prepare('observer-monthly', undefined, { code }))?.ways.map(({ nature }) => nature);
    expect(await natures()).toContain('wallet');
    expect(await natures('gorse')).not.toContain('wallet');
    const { memberId } = value(await joinBy('observer-monthly', 'gorse'));
    const subscription = await subscriptionOf(memberId);
    const choices = value(await methodChoices(asMember(memberId), subscription.id));
    expect(choices.ways.map(({ nature }) => nature)).not.toContain('wallet');
  });

  it('stays with a checkout that a visitor began, until they go without it', async () => {
    const person = await newPerson();
    const member = await findMember(pool(), person.memberId ?? '');
    const input = await joinInput(moor, 'observer-monthly', null, {
      code: 'gorse',
      name: member?.name,
      email: member?.email,
      cardToken: 'no-such-token',
    });
    expect((await joinNew(input)).ok).toBe(false);
    expect((await prepare('observer-monthly', member, {}))?.code?.word).toBe('gorse');
    expect((await prepare('observer-monthly', member, { code: '' }))?.code).toBeNull();
    expect(
      await startCheckout(VISITOR_ACTOR, {
        email: 'a@b.example',
        offerId: 'observer-monthly',
        code: 'nothing',
      }),
    ).toMatchObject({ ok: false });
  });
});

describe('the limits of a code', () => {
  it('give the last use to one of two who press at once', async () => {
    await make('just-one', { discount: { share: 10, charges: 1 }, mostUses: 1 });
    const inputs = await Promise.all(
      [1, 2, 3].map(() => joinInput(moor, 'observer-monthly', 'works', { code: 'just-one' })),
    );
    const answers = await Promise.all(inputs.map((input) => joinNew(input)));
    expect(answers.filter(({ ok }) => ok)).toHaveLength(1);
    expect(problemsOf(answers.find(({ ok }) => !ok) ?? { ok: false, problems: {} })).toMatchObject({
      code: { code: 'code.used-up-all' },
    });
  });

  it('count one person across a batch, and know who is new', async () => {
    const { id } = value(
      await makeCodes(SETUP, {
        name: 'Fair',
        terms: {
          ...NO_TERMS,
          gives: { kind: 'tier', id: 'observer', lasts: { n: 1, unit: 'month' } },
          mostPerPerson: 1,
        },
        words: { count: 3, prefix: 'fair' },
      }),
    );
    const { words } = value(await codeEditor(SETUP, id));
    expect(words).toHaveLength(3);
    const person = await newPerson();
    value(await redeemCode({ ...person }, { word: words[0] }));
    expect(await redeemCode({ ...person }, { word: words[1] })).toMatchObject({
      problems: { word: { code: 'code.used-by-you' } },
    });
    await make('newcomers', { discount: { share: 10, charges: 1 }, newMembersOnly: true });
    const { memberId } = value(await joinBy('observer-monthly', 'newcomers'));
    const again = await prepare('mirror-makers-instalments', await findMember(pool(), memberId), {
      code: 'newcomers',
    });
    expect(again?.code?.problem).toEqual({ code: 'code.new-only' });
  });

  it('end it on its last day, and at once where it is turned off', async () => {
    await make('bygone-code', { discount: { share: 10, charges: 1 }, lastDay: '2020-01-01' });
    await make('some-day', { discount: { share: 10, charges: 1 }, firstDay: '2099-01-01' });
    const id = await make('turned-off', { discount: { share: 10, charges: 1 } });
    const { batch } = value(await codeEditor(SETUP, id));
    value(
      await changeCodes(SETUP, {
        id,
        version: batch.version,
        name: batch.name,
        terms: { ...NO_TERMS, discount: { share: 10, charges: 1 }, isOn: false },
      }),
    );
    expect(
      (
        await changeCodes(SETUP, {
          id,
          version: batch.version,
          name: 'x',
          terms: { ...NO_TERMS, admits: ['founder'] },
        })
      ).ok,
    ).toBe(false);
    for (const [word, code] of [
      ['bygone-code', 'code.over'],
      ['some-day', 'code.not-yet'],
      ['turned-off', 'code.over'],
    ])
      expect(problemsOf(await joinBy('observer-monthly', word ?? ''))).toMatchObject({ code: { code } });
  });
});

describe('a code that gives', () => {
  it('gives a tier for its time, as a gift that is not paid', async () => {
    await make('month-free', {
      gives: { kind: 'tier', id: 'warden', lasts: { n: 1, unit: 'month' } },
      mostUses: 1,
    });
    const person = await newPerson();
    expect(value(await lookAtCode(person, 'Month-Free'))).toMatchObject({
      word: 'month-free',
      gives: { kind: 'tier', name: 'Star Warden' },
      tiers: [],
    });
    expect(value(await redeemCode({ ...person }, { word: 'MONTH-FREE' }))).toEqual({ name: 'Star Warden' });
    expect(await heldBy(person.memberId ?? '')).toMatchObject([{ tier: 'warden', paid: false }]);
    const other = await newPerson();
    expect(await redeemCode({ ...other }, { word: 'month-free' })).toMatchObject({
      problems: { word: { code: 'code.used-up-all' } },
    });
    await passDays(moor, 32);
    expect(await heldBy(person.memberId ?? '')).toEqual([]);
  });

  it('gives a pass, and nothing to whom it is typed for joining', async () => {
    await make('party-pass', { gives: { kind: 'pass', id: 'star-party', lasts: null } });
    const person = await newPerson();
    value(await redeemCode({ ...person }, { word: 'party-pass' }));
    expect(value(await giftChoices(SETUP, person.memberId)).held).toMatchObject([{ why: 'code' }]);
    expect(await redeemCode({ ...person }, { word: 'gorse' })).toMatchObject({
      problems: { word: { code: 'code.gives-nothing' } },
    });
  });

  it('is not guessed: after twenty tries from one address, even a good one is refused', async () => {
    const caller: Actor = { ...VISITOR_ACTOR, address: '198.51.100.9' };
    for (let n = 0; n < 20; n++) await lookAtCode(caller, `guess-${n}`);
    expect(await lookAtCode(caller, 'party-pass')).toMatchObject({
      problems: { word: { code: 'tries.too-many' } },
    });
  });
});

describe('the place of codes', () => {
  it('tells uses and income, exports the words, and deletes what nobody used alone', async () => {
    const { codes } = value(await codesPlace(SETUP));
    const gorse = codes.find(({ name }) => name === 'gorse');
    expect(gorse?.uses).toBe(2);
    const paid = await rows<{ sum: string }>(
      `SELECT sum(p.amount)::text AS sum FROM payments p JOIN charges c ON c.id = p.charge_id JOIN checkouts k ON k.subscription_id = c.subscription_id
       WHERE k.state = 'done' AND p.state = 'succeeded' AND k.code_id IN (SELECT id FROM codes WHERE word = 'gorse')`,
    );
    expect(gorse?.income).toEqual([{ currency: 'GBP', amount: Number(paid[0]?.sum) }]);
    expect(await removeCodes(SETUP, gorse?.id)).toMatchObject({
      problems: { '': { code: 'code.was-used' } },
    });
    const unused = codes.find(({ name }) => name === 'some-day');
    expect(value(await exportCodes(SETUP, unused?.id)).csv).toBe('code\r\nsome-day\r\n');
    value(await removeCodes(SETUP, unused?.id));
    expect((await codeEditor(SETUP, unused?.id)).ok).toBe(false);
  });

  it('takes an amount as it is typed, and refuses what does nothing or is taken', async () => {
    const terms = { ...NO_TERMS, discount: { amount: 1, charges: 1 }, currency: 'GBP' };
    const ask = (part: object) => makeCodes(SETUP, { terms, words: { word: 'five-off' }, ...part });
    expect(await ask({ amount: '' })).toMatchObject({ problems: { amount: { code: 'amount.missing' } } });
    expect(await ask({ terms: NO_TERMS })).toMatchObject({
      problems: { terms: { code: 'code.does-nothing' } },
    });
    const { id } = value(await ask({ amount: '5.50' }));
    expect(value(await codeEditor(SETUP, id)).batch.discount).toEqual({ amount: 550, charges: 1 });
    expect(await ask({ amount: '5' })).toMatchObject({ problems: { word: { code: 'code.taken' } } });
    expect((await ask({ words: { word: 'a b' } })).ok).toBe(false);
  });
});
