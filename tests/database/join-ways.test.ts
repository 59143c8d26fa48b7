import { findMember } from '../../src/people/store/members';
import type { Problems } from '../../src/words/problems';
import { submitCheckout } from '../../src/checkout/services/submit-checkout';
import { listJoinFields } from '../../src/tiers/store/join-fields';
import { describe, expect, it } from 'vitest';
import { WORKER, SETUP } from '../../src/platform/actor';
import { afterCheckout } from '../../src/checkout/services/after-checkout';
import { addJoiningCode } from '../../src/tiers/services/codes';
import { memberFile } from '../../src/members/services/member-file';
import { moveClock } from '../../src/desk/services/move-clock';
import { prepare } from '../../src/checkout/services/lib/prepare';
import { saveJoinFields } from '../../src/tiers/services/save-join-fields';
import { saveTier } from '../../src/billing/services/save-tier';
import { remindAndExpire, unfinishedCheckouts } from '../../src/checkout/services/unfinished-checkouts';
import { cardToken } from '../../scripts/lib/stand-ins';
import { pool } from '../../src/platform/store/db';
import { findTier } from '../../src/tiers/store/tiers';
import {
  join,
  joinInput,
  lanternMoor,
  memberNamed,
  rows,
  value,
  joinNew,
  newPerson,
  asMember,
} from './lantern-moor';

const moor = lanternMoor();
const problemsOf = async (offerId: string, part: object, card: 'works' | null = null): Promise<Problems> => {
  const answer = await joinNew(await joinInput(moor, offerId, card, { ...part }));
  return answer.ok ? {} : answer.problems;
};
const change = async (id: string, part: object): Promise<void> => {
  const tier = await findTier(pool(), id);
  const answer = await saveTier(SETUP, {
    ...tier,
    ladder: tier?.ladderId ?? '',
    isNew: false,
    ...part,
  });
  if (!answer.ok) throw new Error(JSON.stringify(answer.problems));
};

describe('joining by code', () => {
  it('needs a code that is known, not used up and not over', async () => {
    expect(await problemsOf('founder-once', {}, 'works')).toHaveProperty('code');
    expect(await problemsOf('founder-once', { code: 'guess' }, 'works')).toHaveProperty('code');
    await addJoiningCode(SETUP, { tierId: 'founder', code: 'Twice', mostUses: '', lastDay: '' }).then(
      (answer) => expect(answer).toMatchObject({ ok: true }),
    );
    expect(
      await addJoiningCode(SETUP, { tierId: 'founder', code: 'TWICE', mostUses: '', lastDay: '' }),
    ).toMatchObject({
      problems: { code: { code: 'code.taken' } },
    });
    await addJoiningCode(SETUP, { tierId: 'founder', code: 'single', mostUses: '1', lastDay: '' });
    await addJoiningCode(SETUP, { tierId: 'founder', code: 'bygone', mostUses: '', lastDay: '2020-01-01' });
    expect(await problemsOf('founder-once', { code: 'SINGLE' }, 'works')).toEqual({});
    expect(await problemsOf('founder-once', { code: 'single' }, 'works')).toHaveProperty('code');
    expect(await problemsOf('founder-once', { code: 'bygone' }, 'works')).toHaveProperty('code');
  });
});

describe('places', () => {
  it('are sold once each, however many press at the same moment', async () => {
    const taken = Number(
      (await rows<{ n: string }>(`SELECT count(*) AS n FROM holdings WHERE tier_id = 'eclipse-week'`))[0]?.n,
    );
    await change('eclipse-week', { places: taken + 2 });
    const inputs = await Promise.all(
      Array.from({ length: 5 }, () => joinInput(moor, 'eclipse-week-once', 'works')),
    );
    const answers = await Promise.all(inputs.map((input) => joinNew(input)));
    expect(answers.filter((answer) => answer.ok)).toHaveLength(2);
    expect(answers.flatMap((answer) => (answer.ok ? [] : [answer.problems['']]))).toEqual(
      Array.from({ length: 3 }, () => ({ code: 'checkout.full', values: { tier: 'Eclipse Week' } })),
    );
    expect((await prepare('eclipse-week-once', undefined))?.joining).toEqual({
      state: 'sold-out',
      placesLeft: 0,
    });
    await change('eclipse-week', { places: null });
  });

  it('and days of sale are kept to by the server, whatever the page showed', async () => {
    await change('eclipse-week', { onSaleUntil: '2020-01-01' });
    expect(await problemsOf('eclipse-week-once', {}, 'works')).toEqual({
      '': { code: 'checkout.not-on-sale', values: { tier: 'Eclipse Week' } },
    });
    await change('eclipse-week', { onSaleUntil: null, joining: 'closed' });
    expect(await problemsOf('eclipse-week-once', {}, 'works')).toEqual({
      '': { code: 'checkout.closed', values: { tier: 'Eclipse Week' } },
    });
    await change('eclipse-week', { joining: 'open' });
  });

  it('of a tier that one person may hold several times are each a subscription', async () => {
    await change('eclipse-week', { several: true });
    const first = await joinInput(moor, 'eclipse-week-once', 'works');
    const joined = await joinNew(first);
    const second = await joinInput(moor, 'eclipse-week-once', 'works', { email: first.email });
    expect([joined.ok, (await joinNew(second)).ok]).toEqual([true, true]);
    const member = await memberNamed(first.email);
    expect(
      await rows(`SELECT 1 FROM subscriptions WHERE member_id = $1 AND state = 'active'`, [member?.id]),
    ).toHaveLength(2);
    await change('eclipse-week', { several: false });
  });
});

describe('questions', () => {
  it('must be answered where required, and the answers are on the member’s file', async () => {
    expect(await problemsOf('observer-monthly', { answers: { sky: 'Purple' } }, 'works')).toEqual({
      'answers.sky': { code: 'answer.none-of-these' },
      'answers.rules': { code: 'answer.not-agreed' },
    });
    const input = await joinInput(moor, 'observer-monthly', 'works', {
      answers: { sky: 'Village', rules: 'yes', bench: 'not asked' },
    });
    await joinNew(input);
    const file = value(await memberFile(moor.owner, (await memberNamed(input.email))?.id));
    expect(file.answers.map(({ label, value }) => [label, value])).toEqual([
      ['How dark is your own sky?', 'Village'],
      ['I keep the rules of the moor: red light only, gates shut, dogs at home', 'yes'],
    ]);
  });

  it('may leave the name out', async () => {
    const fields = await listJoinFields(pool());
    const nameless = fields.map((field) => (field.kind === 'name' ? { ...field, isOn: false } : field));
    await saveJoinFields(SETUP, nameless);
    const input = await joinInput(moor, 'gazer-free', null, { name: '' });
    expect(await joinNew(input)).toMatchObject({ ok: true });
    expect(await memberNamed(input.email)).toMatchObject({ name: '' });
    await saveJoinFields(SETUP, fields);
  });

  it('ask people for a missing name, and refuse names that hold an address', async () => {
    const person = await newPerson('');
    const input = await joinInput(moor, 'gazer-free', null, { name: '' });
    expect(await submitCheckout(person, input)).toMatchObject({
      problems: { name: { code: 'name.missing' } },
    });
    for (const name of ['Prizes at https://evil.example', 'evil.example', 'Me\nBcc: you'])
      expect(await submitCheckout(person, { ...input, name })).toMatchObject({
        problems: { name: { code: expect.stringMatching(/^name\./) as string } },
      });
    expect(await submitCheckout(person, { ...input, name: 'Oona Fell' })).toMatchObject({ ok: true });
    expect(await findMember(pool(), person.memberId ?? '')).toMatchObject({ name: 'Oona Fell' });
  });
});

describe('a joining left unfinished', () => {
  it('is listed with what stood in the way, resumed by one mailed link, and finished as the same joining', async () => {
    const input = await joinInput(moor, 'observer-monthly', 'declined');
    await joinNew(input);
    const [listed] = value(await unfinishedCheckouts(moor.owner)).checkouts;
    expect(listed).toMatchObject({
      email: input.email,
      lastProblem: { code: 'declined.other' },
      remindedAt: null,
    });
    expect(value(await remindAndExpire(WORKER))).toBe(0);
    await rows(`UPDATE checkouts SET at = at - interval '2 hours' WHERE id = $1`, [input.checkoutId]);
    value(await remindAndExpire(WORKER));
    value(await remindAndExpire(WORKER));
    expect(
      await rows(`SELECT 1 FROM mails WHERE to_address = $1 AND template = 'unfinished'`, [input.email]),
    ).toHaveLength(1);
    const member = (await memberNamed(input.email))!;
    expect(await prepare('observer-monthly', member)).toMatchObject({
      checkoutId: input.checkoutId,
      typed: { answers: { rules: 'yes' } },
    });
    const again = { ...input, cardToken: await cardToken(moor.gatewayUrl, moor.siteKey, 'works') };
    expect(await joinNew(again)).toMatchObject({ ok: true });
    expect((await prepare('observer-monthly', member))?.checkoutId).not.toBe(input.checkoutId);
    expect(value(await afterCheckout(asMember(member.id), input.checkoutId)).onward).toBe(
      '/posts/zodiacal-light',
    );
    const other = await join(moor, 'gazer-free', null);
    expect(await afterCheckout(asMember(other.memberId), input.checkoutId)).toMatchObject({
      ok: false,
      code: 'missing',
    });
  });

  it('expires after a week, and nothing of what was answered stays', async () => {
    const input = await joinInput(moor, 'observer-monthly', 'declined');
    await joinNew(input);
    await moveClock(moor.owner, { days: 8 });
    value(await remindAndExpire(WORKER));
    expect(await rows('SELECT state, answers FROM checkouts WHERE id = $1', [input.checkoutId])).toEqual([
      { state: 'expired', answers: [] },
    ]);
    expect(await joinNew(input)).toMatchObject({
      ok: false,
    });
  });
});

describe('the site', () => {
  const joining = (how: string) => rows('UPDATE site SET joining = $1', [how]);

  it('can be closed for joining, or open with a code alone, whatever the tiers say; members stay and switch', async () => {
    const { memberId } = await join(moor, 'gazer-free', null);
    await joining('closed');
    expect(await problemsOf('observer-monthly', {}, 'works')).not.toEqual({});
    expect((await prepare('gazer-free', undefined))?.joining.state).toBe('closed');
    await joining('by-code');
    expect(await problemsOf('observer-monthly', {}, 'works')).toHaveProperty('code');
    await addJoiningCode(SETUP, { tierId: 'observer', code: 'meadow', mostUses: '', lastDay: '' });
    expect(await problemsOf('observer-monthly', { code: 'meadow' }, 'works')).toEqual({});
    const member = await findMember(pool(), memberId);
    expect((await prepare('observer-monthly', member))?.action.kind).toBe('switch');
    await joining('open');
    expect(await problemsOf('observer-monthly', {}, 'works')).toEqual({});
  });
});
