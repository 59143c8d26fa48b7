import { describe, expect, it } from 'vitest';
import { SETUP, VISITOR_ACTOR } from '../../src/services/actor';
import { afterJoining } from '../../src/services/after-joining';
import { confirmJoining } from '../../src/services/confirm-joining';
import { formStamp } from '../../src/services/guard-form';
import { joinTier } from '../../src/services/join-tier';
import { addJoiningCode } from '../../src/services/joining-codes';
import { memberFile } from '../../src/services/member-file';
import { moveClock } from '../../src/services/move-clock';
import { prepareJoining } from '../../src/services/prepare-joining';
import { saveJoinFields, joinFields } from '../../src/services/save-join-fields';
import { saveTier } from '../../src/services/save-tier';
import { joiningToResume, remindAndExpire, unfinishedJoinings } from '../../src/services/unfinished-joinings';
import { cardToken } from '../../scripts/lib/stand-ins';
import { pool } from '../../src/store/db';
import { findTier } from '../../src/store/tiers';
import { join, joinInput, lanternMoor, memberNamed, rows } from './lantern-moor';

const moor = lanternMoor();
type Problems = Record<string, string>;
const problemsOf = async (offerId: string, part: object, card: 'works' | null = null): Promise<Problems> => {
  const answer = await joinTier(VISITOR_ACTOR, await joinInput(moor, offerId, card, { ...part }), 'x');
  return answer.ok ? {} : answer.problems;
};
/** The path of the newest link that was mailed to an address. */
async function mailedToken(email: string): Promise<string> {
  const [mail] = await rows<{ text_body: string }>(
    'SELECT text_body FROM mails WHERE to_address = $1 ORDER BY created_at DESC, id LIMIT 1',
    [email],
  );
  return /\/join\/(?:confirm|resume)\/([\w-]+)/.exec(mail?.text_body ?? '')?.[1] ?? '';
}
const change = async (id: string, part: object): Promise<void> => {
  const tier = await findTier(pool(), id);
  const answer = await saveTier(SETUP, {
    ...tier,
    ladder: tier?.ladderId ?? '',
    isNew: false,
    ...part,
  } as Parameters<typeof saveTier>[1]);
  if (!answer.ok) throw new Error(JSON.stringify(answer.problems));
};

describe('a program that fills in whatever it finds', () => {
  it('is turned away by the field nobody sees, by its haste, and by an old or forged stamp', async () => {
    expect(await problemsOf('gazer-free', { website: 'http://spam.example' })).toEqual({
      '': expect.stringContaining('too old') as string,
    });
    expect(await problemsOf('gazer-free', { shown: formStamp(0) })).toEqual({
      '': expect.stringContaining('That was quick') as string,
    });
    expect(await problemsOf('gazer-free', { shown: formStamp(90_000_000) })).toEqual({
      '': expect.stringContaining('too old') as string,
    });
    expect(await problemsOf('gazer-free', { shown: `${Date.now() - 60_000}.forged` })).toEqual({
      '': expect.stringContaining('too old') as string,
    });
  });
});

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
      problems: { code: 'This tier has that code already.' },
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
    const answers = await Promise.all(inputs.map((input) => joinTier(VISITOR_ACTOR, input, input.email)));
    expect(answers.filter((answer) => answer.ok)).toHaveLength(2);
    expect(answers.flatMap((answer) => (answer.ok ? [] : [answer.problems['']]))).toEqual(
      Array.from({ length: 3 }, () => expect.stringContaining('The last place of Eclipse Week') as string),
    );
    expect((await prepareJoining('eclipse-week-once', undefined))?.joining).toEqual({
      state: 'sold-out',
      placesLeft: 0,
    });
    await change('eclipse-week', { places: null });
  });

  it('and days of sale are kept to by the server, whatever the page showed', async () => {
    await change('eclipse-week', { onSaleUntil: '2020-01-01' });
    expect(await problemsOf('eclipse-week-once', {}, 'works')).toEqual({
      '': 'Eclipse Week is not on sale today. Nothing was charged.',
    });
    await change('eclipse-week', { onSaleUntil: null, joining: 'closed' });
    expect(await problemsOf('eclipse-week-once', {}, 'works')).toEqual({
      '': 'Joining Eclipse Week is closed. Nothing was charged.',
    });
    await change('eclipse-week', { joining: 'open' });
  });

  it('of a tier that one person may hold several times are each a subscription', async () => {
    await change('eclipse-week', { several: true });
    const first = await joinInput(moor, 'eclipse-week-once', 'works');
    const joined = await joinTier(VISITOR_ACTOR, first, 's');
    const second = await joinInput(moor, 'eclipse-week-once', 'works', { email: first.email });
    expect([joined.ok, (await joinTier(VISITOR_ACTOR, second, 's')).ok]).toEqual([true, true]);
    const member = await memberNamed(first.email);
    expect(
      await rows(`SELECT 1 FROM subscriptions WHERE member_id = $1 AND state = 'active'`, [member?.id]),
    ).toHaveLength(2);
    await change('eclipse-week', { several: false });
  });
});

describe('questions', () => {
  it('have to be answered where that is asked, and the answers stand on the member’s file', async () => {
    expect(await problemsOf('observer-monthly', { answers: { sky: 'Purple' } }, 'works')).toEqual({
      'answers.sky': 'Choose one of these.',
      'answers.rules': 'Joining needs your agreement to this.',
    });
    const input = await joinInput(moor, 'observer-monthly', 'works', {
      answers: { sky: 'Village', rules: 'yes', bench: 'not asked' },
    });
    await joinTier(VISITOR_ACTOR, input, 'q');
    const file = await memberFile((await memberNamed(input.email))?.id ?? '');
    expect(file?.answers.map(({ label, value }) => [label, value])).toEqual([
      ['How dark is your own sky?', 'Village'],
      ['I keep the rules of the moor: red light only, gates shut, dogs at home', 'yes'],
    ]);
  });

  it('may leave the name out', async () => {
    const fields = await joinFields();
    const nameless = fields.map((field) => (field.kind === 'name' ? { ...field, isOn: false } : field));
    await saveJoinFields(SETUP, nameless);
    const input = await joinInput(moor, 'gazer-free', null, { name: 'Ignored' });
    expect(await joinTier(VISITOR_ACTOR, input, 'n')).toMatchObject({ ok: true });
    expect(await memberNamed(input.email)).toMatchObject({ name: '' });
    await saveJoinFields(SETUP, fields);
  });
});

describe('an address that has to be proved', () => {
  it('opens nothing before the mailed link is followed, and everything after; the link works once', async () => {
    await change('gazer', { confirmAddress: true });
    const input = await joinInput(moor, 'gazer-free', null);
    expect(await joinTier(VISITOR_ACTOR, input, 'p')).toEqual({
      ok: true,
      value: { state: 'proof', email: input.email },
    });
    expect(await memberNamed(input.email)).toBeUndefined();
    expect(await confirmJoining('not-a-token')).toMatchObject({ ok: false });
    const token = await mailedToken(input.email);
    const other = await joinInput(moor, 'gazer-free', null);
    await change('gazer', { confirmAddress: false });
    expect(await joinTier(VISITOR_ACTOR, other, 'o')).toMatchObject({ ok: true });
    await change('gazer', { places: 1 });
    expect(await confirmJoining(token)).toMatchObject({
      problems: { '': expect.stringContaining('last place') as string },
    });
    await change('gazer', { places: null });
    const confirmed = await confirmJoining(token);
    const member = await memberNamed(input.email);
    expect(confirmed).toEqual({ ok: true, value: { memberId: member?.id, joiningId: input.joiningId } });
    expect(await rows('SELECT tier_id FROM holdings WHERE member_id = $1', [member?.id])).toEqual([
      { tier_id: 'gazer' },
    ]);
    expect(await confirmJoining(token)).toMatchObject({ ok: false });
    await change('gazer', { confirmAddress: false });
  });
});

describe('a joining left unfinished', () => {
  it('is listed with what stood in the way, resumed by one mailed link, and finished as the same joining', async () => {
    const input = await joinInput(moor, 'observer-monthly', 'declined');
    await joinTier(VISITOR_ACTOR, input, 'u');
    const [listed] = (await unfinishedJoinings()).joinings;
    expect(listed).toMatchObject({
      email: input.email,
      lastProblem: expect.stringContaining('refused') as string,
      remindedAt: null,
    });
    expect(await remindAndExpire()).toBe(0);
    await rows(`UPDATE joinings SET at = at - interval '2 hours' WHERE id = $1`, [input.joiningId]);
    await remindAndExpire();
    await remindAndExpire();
    expect(
      await rows(`SELECT 1 FROM mails WHERE to_address = $1 AND template = 'unfinished'`, [input.email]),
    ).toHaveLength(1);
    const resumed = await joiningToResume(await mailedToken(input.email));
    expect(resumed).toMatchObject({
      id: input.joiningId,
      email: input.email,
      answers: [{ fieldId: 'rules', value: 'yes' }],
    });
    const again = { ...input, cardToken: await cardToken(moor.gatewayUrl, moor.siteKey, 'works') };
    expect(await joinTier(VISITOR_ACTOR, again, 'u')).toMatchObject({ ok: true });
    expect(await joiningToResume(await mailedToken(input.email))).toBeNull();
    const member = await memberNamed(input.email);
    expect((await afterJoining(input.joiningId, member!))?.onward).toBe('/posts/zodiacal-light');
    const other = await join(moor, 'gazer-free', null);
    expect(await afterJoining(input.joiningId, (await memberNamed(other.email))!)).toBeNull();
  });

  it('expires after a week: the link is dead, and nothing of what was typed but the address stays', async () => {
    const input = await joinInput(moor, 'observer-monthly', 'declined');
    await joinTier(VISITOR_ACTOR, input, 'v');
    await moveClock(moor.owner, 8);
    await remindAndExpire();
    expect(
      await rows('SELECT state, password_hash, answers, resume_hash FROM joinings WHERE id = $1', [
        input.joiningId,
      ]),
    ).toEqual([{ state: 'expired', password_hash: null, answers: [], resume_hash: null }]);
    expect(await joinTier(VISITOR_ACTOR, { ...input, shown: formStamp(5_000) }, 'v')).toMatchObject({
      ok: false,
    });
  });
});
