import { beforeAll, describe, expect, it } from 'vitest';
import { findWork } from '../../src/core/people/work';
import { formStamp } from '../../src/platform/guard-form';
import { saveProduct } from '../../src/tiers/services/products';
import { beginAccount } from '../../src/checkout/services/begin-account';
import { prepareCheckout } from '../../src/checkout/services/prepare-checkout';
import { registering } from '../../src/checkout/services/registering';
import { saveGeneral, generalSettings } from '../../src/desk/services/general-settings';
import { inviteChoices, inviteToJoin } from '../../src/members/services/invite-to-join';
import { VISITOR_ACTOR } from '../../src/platform/actor';
import { unseal } from '../../src/platform/seal';
import { hasJoined, joinInput, joinNew, lanternMoor, newPerson, passDays, rows, value } from './lantern-moor';

const moor = lanternMoor();

async function codeMailedTo(email: string): Promise<string> {
  const [mail] = await rows<{ sealed: string; text_body: string }>(
    `SELECT sealed, text_body FROM mails WHERE to_address = $1 AND template = 'join-invite' ORDER BY created_at DESC LIMIT 1`,
    [email],
  );
  const code = /code=([\w-]+)/.exec(unseal(mail?.sealed ?? ''))?.[1] ?? '';
  // What is stored of the mail holds no code.
  expect(mail?.text_body).not.toContain(code);
  return code;
}
const invite = (addresses: string, more: object = {}) =>
  inviteToJoin(moor.owner, { addresses, offerId: 'gazer-free', words: '', ...more });
const setJoining = async (joining: string, more: object = {}): Promise<void> => {
  const { name, language, zone, currency } = value(await generalSettings(moor.owner));
  value(await saveGeneral(moor.owner, { name, language, zone, currency, joining, ...more }));
};
const joinBy = async (email: string, code: string, more: object = {}) =>
  joinNew(await joinInput(moor, 'gazer-free', null, { email, code, ...more }));

beforeAll(() => setJoining('by-code'));

describe('an invitation', () => {
  it('lets the one whom it was sent to join where nobody else can, once', async () => {
    const answer = value(
      await invite('wren@guest.example, Finch <finch@guest.example>;\nnot-an-address@', {
        words: 'Bring a chair.',
      }),
    );
    expect(answer).toMatchObject({ invited: 2, already: [] });
    const [wren, finch] = [
      await codeMailedTo('wren@guest.example'),
      await codeMailedTo('finch@guest.example'),
    ];
    expect(wren).not.toBe(finch);
    expect(wren.replaceAll('-', '')).toHaveLength(17);
    // A visitor with the link sees the join page; another member is told that it is not theirs.
    const seen = value(await prepareCheckout(VISITOR_ACTOR, { offerId: 'gazer-free', code: wren, mode: '' }));
    expect(seen.prepared?.code?.problem).toBeFalsy();
    expect(await joinBy('someone@guest.example', wren)).toMatchObject({ ok: false });
    expect(await hasJoined('someone@guest.example')).toBe(false);
    expect(await joinBy('lark@guest.example', '')).toMatchObject({ ok: false });
    expect(await joinBy('wren@guest.example', wren)).toMatchObject({ ok: true });
    expect(await joinBy('finch@guest.example', wren)).toMatchObject({ ok: false });
    expect(await joinBy('finch@guest.example', finch)).toMatchObject({ ok: true });
  });

  it('leaves members out, and is refused without addresses or with an offer that is not on sale', async () => {
    await newPerson('Known One', 'known@guest.example');
    expect(value(await invite('known@guest.example'))).toMatchObject({
      invited: 0,
      already: ['known@guest.example'],
    });
    expect(await invite('nobody')).toMatchObject({ problems: { addresses: { code: 'group.no-addresses' } } });
    expect(await invite('new@guest.example', { offerId: 'no-such' })).toMatchObject({
      problems: { offerId: { code: 'checkout.offer-left' } },
    });
    expect(value(await inviteChoices(moor.owner)).offers.map(({ id }) => id)).toContain('gazer-free');
  });

  it('expires after thirty days', async () => {
    value(await invite('late@guest.example'));
    const code = await codeMailedTo('late@guest.example');
    await passDays(moor, 32);
    expect(await joinBy('late@guest.example', code)).toMatchObject({ ok: false });
  });
});

describe('an account alone', () => {
  /** What the form sends, with the work that its page does. */
  const begin = async (email: string, to: string): Promise<string[]> => {
    const shown = formStamp(5_000);
    let work: string | null = null;
    for (let from = 0; work === null; from += 400) work = findWork(shown, from, 400);
    value(await beginAccount(VISITOR_ACTOR, { email, to, shown, work }));
    const mails = await rows<{ template: string }>(
      'SELECT template FROM mails WHERE to_address = $1 ORDER BY created_at DESC LIMIT 1',
      [email],
    );
    return mails.map(({ template }) => template);
  };

  it('is made where joining is open; where it needs a code, for who has one or buys something; else for nobody new', async () => {
    const { id } = value(
      await saveProduct(moor.owner, {
        id: null,
        name: 'Gazer card',
        sells: 'tier:gazer',
        amount: '2.00',
        lasts: null,
        mostDevices: '',
        taxKindId: null,
        onSale: true,
      }),
    );
    await setJoining('by-code');
    expect(await begin('a@guest.example', '/account')).toEqual(['no-account']);
    expect(await begin('b@guest.example', `/buy/${id}`)).toEqual(['code']);
    expect(await begin('c@guest.example', '/buy/no-such')).toEqual(['no-account']);
    expect(await begin('d@guest.example', '/code?word=made-up')).toEqual(['no-account']);
    await setJoining('closed');
    expect(await begin('e@guest.example', `/buy/${id}`)).toEqual(['no-account']);
    await newPerson('Here Already', 'here@guest.example');
    expect(await begin('here@guest.example', `/buy/${id}`)).toEqual(['code']);
    await setJoining('open');
    expect(await begin('f@guest.example', '/account')).toEqual(['code']);
  });
});

describe('who registers free', () => {
  it('gets the offer that the owner has set, and an account alone where none is', async () => {
    await setJoining('open');
    expect(value(await registering(VISITOR_ACTOR))).toMatchObject({ offerId: null, isOpen: true });
    const { name, language, zone, currency } = value(await generalSettings(moor.owner));
    const general = { name, language, zone, currency };
    expect(await saveGeneral(moor.owner, { ...general, registerOfferId: 'observer-monthly' })).toMatchObject({
      problems: { registerOfferId: {} },
    });
    await setJoining('open', { registerOfferId: 'gazer-free' });
    expect(value(await registering(VISITOR_ACTOR))).toMatchObject({ offerId: 'gazer-free' });
    // A form that does not ask leaves it as it is.
    await setJoining('closed');
    expect(value(await registering(VISITOR_ACTOR))).toMatchObject({ offerId: 'gazer-free', isOpen: false });
    await setJoining('open', { registerOfferId: null });
    expect(value(await registering(VISITOR_ACTOR))).toMatchObject({ offerId: null });
  });
});
