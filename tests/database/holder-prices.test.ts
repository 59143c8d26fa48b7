import { randomUUID } from 'node:crypto';
import { beforeAll, describe, expect, it } from 'vitest';
import { prepare } from '../../src/checkout/services/lib/prepare';
import { buyProduct } from '../../src/checkout/services/buy-product';
import { productOnSale, productPage } from '../../src/checkout/services/product-page';
import { submitCheckout } from '../../src/checkout/services/submit-checkout';
import { reconcile } from '../../src/billing/services/lib/reconcile';
import { giveTier } from '../../src/members/services/gifts';
import { myAccount } from '../../src/members/services/my-account';
import { findMember } from '../../src/people/store/members';
import { SETUP, VISITOR_ACTOR, type Actor } from '../../src/platform/actor';
import { pool } from '../../src/platform/store/db';
import { makeCodes } from '../../src/tiers/services/codes';
import { saveOffer } from '../../src/tiers/services/save-offer';
import { saveProduct } from '../../src/tiers/services/products';
import { findOffer } from '../../src/tiers/store/offers';
import { cardToken } from '../../scripts/lib/stand-ins';
import { joinInput, lanternMoor, newPerson, passDays, rows, value } from './lantern-moor';
import { NO_TERMS } from '../lib/code-terms';

const moor = lanternMoor();
const COURSE = 'mirror-makers-instalments';

/** Someone who holds Star Warden, given for so many days or for good. */
async function warden(days?: number): Promise<Actor> {
  const person = await newPerson();
  const term = days === undefined ? { for: 'good' } : { for: 'length', length: { n: days, unit: 'day' } };
  value(await giveTier(SETUP, { memberId: person.memberId, tierId: 'warden', term, isTold: false }));
  return person;
}
const shownTo = async (person: Actor | null, code?: string) =>
  prepare(COURSE, person?.memberId ? await findMember(pool(), person.memberId) : undefined, { code });
const joining = async (person: Actor, more: object = {}) => {
  const input = await joinInput(moor, COURSE, 'works', { due: 3600, ...more });
  return submitCheckout(person, input);
};
const chargedTo = async ({ memberId }: Actor): Promise<number[]> =>
  (
    await rows<{ amount: bigint }>(
      `SELECT p.amount FROM payments p JOIN charges c ON c.id = p.charge_id
       LEFT JOIN subscriptions s ON s.id = c.subscription_id LEFT JOIN purchases u ON u.id = c.purchase_id
       WHERE coalesce(s.member_id, u.member_id) = $1 AND p.state = 'succeeded' ORDER BY p.at, p.id`,
      [memberId],
    )
  ).map(({ amount }) => Number(amount));

const course = async (holderPrices: unknown) => {
  const offer = await findOffer(pool(), COURSE);
  return saveOffer(moor.owner, {
    id: COURSE,
    name: offer?.name,
    definition: offer?.definition,
    seenVersion: offer?.version,
    holderPrices,
  });
};

beforeAll(async () => {
  value(await course([{ tierId: 'warden', share: 20, charges: null }]));
});

describe('an offer with a price for holders of a tier', () => {
  it('costs them less without a code, as their account and checkout say, and in each payment', async () => {
    const holder = await warden();
    const shown = await shownTo(holder);
    expect(shown).toMatchObject({
      forHolder: { tierName: 'Star Warden', discount: { share: 20, charges: null } },
      figures: { due: 3600 },
      code: null,
    });
    expect(value(await myAccount(holder)).forHolder).toContainEqual({
      href: `/join/${COURSE}?to=/account`,
      name: 'Mirror Makers: Four instalments',
      by: 'Star Warden',
      usual: 4500,
      amount: 3600,
      currency: 'GBP',
    });
    value(await joining(holder));
    expect(value(await myAccount(holder)).forHolder.map(({ href }) => href)).not.toContain(
      `/join/${COURSE}?to=/account`,
    );
    await passDays(moor, 125);
    expect(await chargedTo(holder)).toEqual([3600, 3600, 3600, 3600]);
    expect(await reconcile(moor.accountId)).toMatchObject({ ok: true, differences: [] });
  });

  it('costs everyone else the usual price, and shows visitors nothing', async () => {
    const person = await newPerson();
    expect(await shownTo(person)).toMatchObject({ forHolder: null, figures: { due: 4500 } });
    expect(await shownTo(null)).toMatchObject({ forHolder: null });
    expect(value(await myAccount(person)).forHolder).toEqual([]);
    expect(await joining(person)).toMatchObject({ ok: false });
    expect(await chargedTo(person)).toEqual([]);
    value(await joining(person, { due: 4500 }));
    expect(await chargedTo(person)).toEqual([4500]);
  });

  it('gives way to a code that takes something off, and not to one that is wrong', async () => {
    value(
      await makeCodes(SETUP, {
        terms: { ...NO_TERMS, discount: { share: 50, charges: 1 } },
        words: { word: 'grit' },
      }),
    );
    const holder = await warden();
    expect(await shownTo(holder, 'grit')).toMatchObject({ forHolder: null, figures: { due: 2250 } });
    expect(await shownTo(holder, 'grot')).toMatchObject({
      forHolder: { tierId: 'warden' },
      figures: { due: 3600 },
    });
    value(await joining(holder, { code: 'grit', due: 2250 }));
    await passDays(moor, 32);
    expect(await chargedTo(holder)).toEqual([2250, 4500]);
  });

  it('is what they pay where a code takes off less, and then the code is not used up', async () => {
    value(
      await makeCodes(SETUP, {
        terms: { ...NO_TERMS, discount: { share: 10, charges: null }, mostUses: 1 },
        words: { word: 'sleet' },
      }),
    );
    const holder = await warden();
    expect(await shownTo(holder, 'sleet')).toMatchObject({
      forHolder: { tierId: 'warden' },
      figures: { due: 3600 },
      code: { problem: { code: 'code.lower-already' }, discount: null },
    });
    expect(await joining(holder, { code: 'sleet' })).toMatchObject({
      problems: { code: { code: 'code.lower-already' } },
    });
    value(await joining(holder));
    const person = await newPerson();
    value(await joining(person, { code: 'sleet', due: 4050 }));
    await passDays(moor, 32);
    expect(await chargedTo(holder)).toEqual([3600, 3600]);
    expect(await chargedTo(person)).toEqual([4050, 4050]);
  });

  it('is what they pay for a tier that a code with a smaller discount lets them in to', async () => {
    value(
      await makeCodes(SETUP, {
        terms: {
          ...NO_TERMS,
          discount: { amount: 100, charges: 1 },
          currency: 'GBP',
          admits: ['mirror-makers'],
        },
        words: { word: 'hail' },
      }),
    );
    const holder = await warden();
    expect(await shownTo(holder, 'hail')).toMatchObject({
      forHolder: { tierId: 'warden' },
      figures: { due: 3600 },
      code: { word: 'hail', problem: null, discount: null },
    });
    value(await joining(holder, { code: 'hail' }));
    expect(await chargedTo(holder)).toEqual([3600]);
  });

  it('is refused at the old figure once the tier is held no more, or the owner has changed it', async () => {
    const holder = await warden(2);
    expect(await shownTo(holder)).toMatchObject({ figures: { due: 3600 } });
    await passDays(moor, 3);
    expect(await joining(holder)).toMatchObject({ ok: false });
    expect(await chargedTo(holder)).toEqual([]);
    const other = await warden();
    value(await course([{ tierId: 'warden', amount: 500, charges: 1 }]));
    expect(await joining(other)).toMatchObject({ ok: false });
    value(await joining(other, { due: 4000 }));
    await passDays(moor, 32);
    expect(await chargedTo(other)).toEqual([4000, 4500]);
  });

  it('is saved whole or not at all, and stays where a form says nothing of it', async () => {
    for (const [wrong, code] of [
      [[{ tierId: 'nothing', share: 20, charges: null }], 'holder.no-tier'],
      [null, 'holder.unreadable'],
    ] as const)
      expect(await course(wrong)).toMatchObject({ problems: { holderPrices: { code } } });
    value(await course(undefined));
    expect((await findOffer(pool(), COURSE))?.holderPrices).toEqual([
      { tierId: 'warden', amount: 500, charges: 1 },
    ]);
  });
});

describe('a gift card with a price for holders of a tier', () => {
  let id = '';
  const page = async (actor: Actor) => value(await productPage(actor, { productId: id }));
  const buy = async (actor: Actor, due: number) =>
    buyProduct(actor, {
      purchaseId: randomUUID(),
      productId: id,
      version: (await page(actor)).product.version,
      cardToken: await cardToken(moor.gatewayUrl, moor.siteKey, 'works'),
      due,
    });

  it('is charged as its page says: less to them, and to nobody else', async () => {
    id = value(
      await saveProduct(moor.owner, {
        id: null,
        version: undefined,
        name: 'Three months for a friend',
        sells: 'tier:observer',
        amount: '18.00',
        lasts: { n: 3, unit: 'month' },
        mostDevices: '',
        taxKindId: null,
        onSale: true,
        holderPrices: [{ tierId: 'warden', amount: 300, charges: 1 }],
      }),
    ).id;
    const [holder, other] = [await warden(), await newPerson()];
    expect(await page(holder)).toMatchObject({ figures: { due: 1500 }, heldTierName: 'Star Warden' });
    expect(await page(other)).toMatchObject({ figures: { due: 1800 }, heldTierName: '' });
    expect(value(await productOnSale(holder, id))?.amount).toBe(1500);
    expect(value(await productOnSale(VISITOR_ACTOR, id))?.amount).toBe(1800);
    expect(value(await myAccount(holder)).forHolder).toContainEqual(
      expect.objectContaining({ href: `/buy/${id}`, usual: 1800, amount: 1500 }),
    );
    expect(await buy(other, 1500)).toMatchObject({ ok: false });
    value(await buy(other, 1800));
    value(await buy(holder, 1500));
    expect([await chargedTo(other), await chargedTo(holder)]).toEqual([[1800], [1500]]);
  });
});
