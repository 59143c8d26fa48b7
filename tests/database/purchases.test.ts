import { randomUUID } from 'node:crypto';
import { beforeAll, describe, expect, it } from 'vitest';
import { viewItem } from '../../src/access/services/view-item';
import { deletePass, passesPlace, savePass } from '../../src/access/services/passes';
import { saveRule } from '../../src/access/services/save-rule';
import { refundPayment } from '../../src/billing/services/refund-payment';
import { endGifts } from '../../src/billing/services/end-gifts';
import { settlePurchases } from '../../src/billing/services/settle-purchases';
import { reconcile } from '../../src/billing/services/lib/reconcile';
import { buyProduct } from '../../src/checkout/services/buy-product';
import { productPage } from '../../src/checkout/services/product-page';
import { saveItem } from '../../src/content/services/save-item';
import { fromText } from '../../src/core/content/prose';
import { books } from '../../src/desk/services/money-lists';
import { endPassDevice, myPurchases, sendPurchaseCode } from '../../src/members/services/my-purchases';
import { redeemCode } from '../../src/members/services/redeem-code';
import { enterPassCode, lookAtPassCode } from '../../src/members/services/use-pass-code';
import { VISITOR_ACTOR, SETUP, WORKER, type Actor } from '../../src/platform/actor';
import { unseal } from '../../src/platform/seal';
import { saveProduct } from '../../src/tiers/services/products';
import type { Behaviour } from '../../stand-ins/curlew-cards/cards';
import { actOnPayment, cardToken } from '../../scripts/lib/stand-ins';
import { addWebhook } from '../../src/billing/services/webhooks';
import { saveMyStaffMails } from '../../src/people/services/staff-mails';
import {
  asMember,
  hearOf,
  heldBy,
  lanternMoor,
  newPerson,
  passDays,
  rows,
  value,
  visitorWith,
} from './lantern-moor';

const moor = lanternMoor();
let path = '';
let passId = '';
const SECRET = 'Thirty frames of the comet';

beforeAll(async () => {
  passId = value(await savePass(moor.owner, { name: 'Comet frames', version: 0 })).id;
  const item = value(
    await saveItem(SETUP, {
      type: 'post',
      title: 'Comet frames',
      publish: 'publish',
      body: fromText(SECRET),
    }),
  );
  path = item.path;
  value(
    await saveRule(SETUP, {
      id: 'comet-frames',
      name: 'Comet frames',
      on: true,
      covers: [{ kind: 'item', id: item.id }],
      openTo: [{ who: { kind: 'pass', id: passId } }],
    }),
  );
  await sell({});
});

let productId = '';
async function sell(more: object): Promise<void> {
  const [known] = await rows<{ id: string; version: number }>(
    'SELECT id, version FROM products WHERE id = $1',
    [productId],
  );
  productId = value(
    await saveProduct(moor.owner, {
      id: known?.id ?? null,
      version: known?.version,
      name: 'Comet frames',
      sells: `pass:${passId}`,
      amount: '4.50',
      lasts: { n: 30, unit: 'day' },
      mostDevices: '2',
      taxKindId: null,
      onSale: true,
      ...more,
    }),
  ).id;
}
async function input(more: object = {}, card: Behaviour = 'works', product = productId) {
  const page = value(await productPage(VISITOR_ACTOR, { productId: product }));
  return {
    purchaseId: randomUUID(),
    productId: product,
    version: page.product.version,
    accountId: '',
    cardToken: await cardToken(moor.gatewayUrl, moor.siteKey, card),
    country: '',
    due: page.figures.due,
    ...more,
  };
}
const buyer = (): Promise<Actor> => newPerson('Bram Castell');
async function bought(more: object = {}): Promise<{ actor: Actor; purchaseId: string; code: string }> {
  const actor = await buyer();
  const { purchaseId } = value(await buyProduct(actor, await input(more)));
  return { actor, purchaseId, code: await codeOf(actor) };
}
/** The code in the mail that the buyer got last. */
async function codeOf({ memberId }: Actor): Promise<string> {
  const [mail] = await rows<{ sealed: string }>(
    `SELECT sealed FROM mails WHERE member_id = $1 AND template LIKE 'bought%' ORDER BY created_at DESC LIMIT 1`,
    [memberId],
  );
  return /word=([\w-]+)/.exec(unseal(mail?.sealed ?? ''))?.[1] ?? '';
}
/** Another actor object for each look: what is decided is kept for one request. */
const opens = async (actor: Actor): Promise<boolean> => {
  return JSON.stringify(value(await viewItem({ ...actor }, path))).includes(SECRET);
};
const paymentOf = async (purchaseId: string): Promise<string> =>
  (
    await rows<{ id: string }>(
      `SELECT p.id FROM payments p JOIN charges c ON c.id = p.charge_id WHERE c.purchase_id = $1 AND p.state = 'succeeded'`,
      [purchaseId],
    )
  )[0]?.id ?? '';
const refund = async (purchaseId: string, more: object = {}) =>
  refundPayment(moor.owner, {
    paymentId: await paymentOf(purchaseId),
    requestId: randomUUID(),
    amount: '4.50',
    endsAccess: true,
    ...more,
  });

describe('a pass that is sold', () => {
  it('is paid by card, opens its items at once, and is written with its receipt and code to its buyer alone', async () => {
    const { actor, purchaseId, code } = await bought();
    expect(code.replaceAll('-', '')).toHaveLength(17);
    expect(await opens(actor)).toBe(true);
    expect(await opens(await buyer())).toBe(false);
    expect(value(await myPurchases(actor))).toMatchObject([{ id: purchaseId, state: 'paid', devices: [] }]);
    const [mail] = await rows<{ text_body: string; subject: string }>(
      `SELECT text_body, subject FROM mails WHERE member_id = $1 AND template = 'bought'`,
      [actor.memberId],
    );
    // What is stored of the mail holds no code.
    expect(mail?.text_body).toContain('We received £4.50');
    expect(JSON.stringify(mail)).not.toContain(code);
    const listed = value(await books(moor.owner, { state: '', search: '', sort: 'newest', page: 1 }));
    expect(listed.rows[0]).toMatchObject({ kind: 'invoice', total: 450 });
    expect(listed.rows[0]?.content.lines[0]?.words).toMatch(/^Comet frames: /);
    // A holder of a pass is no member of a tier.
    expect(await heldBy(actor.memberId ?? '')).toEqual([]);
    expect((await rows('SELECT 1 FROM held_passes WHERE purchase_id = $1', [purchaseId])).length).toBe(1);
    const account = await reconcile(moor.accountId);
    expect(account).toMatchObject({ ok: true, differences: [] });
  });

  it('ends on time', async () => {
    const { actor, code } = await bought();
    await passDays(moor, 31);
    expect(await opens(actor)).toBe(false);
    expect(await lookAtPassCode(VISITOR_ACTOR, code)).toMatchObject({
      problems: { word: { code: 'product.closed' } },
    });
    expect(value(await myPurchases(actor))[0]?.until).toBeUndefined();
  });

  it('is bought once however often the button is pressed, and charged as it was shown', async () => {
    const actor = await buyer();
    const form = await input();
    const answers = await Promise.all([
      buyProduct(actor, form),
      buyProduct(actor, form),
      buyProduct(actor, form),
    ]);
    expect(answers.some(({ ok }) => ok)).toBe(true);
    value(await buyProduct(actor, form));
    expect(await rows('SELECT 1 FROM purchases WHERE member_id = $1', [actor.memberId])).toHaveLength(1);
    expect(
      await rows(
        `SELECT 1 FROM payments p JOIN charges c ON c.id = p.charge_id WHERE c.purchase_id = $1 AND p.state = 'succeeded'`,
        [form.purchaseId],
      ),
    ).toHaveLength(1);
    // Another price than the one that was shown is not charged.
    const old = await input();
    await sell({ amount: '5.00' });
    expect(await buyProduct(actor, old)).toMatchObject({
      problems: { '': { code: 'refusal.another-price' } },
    });
    expect(await buyProduct(actor, await input({ due: 1 }))).toMatchObject({
      problems: { '': { code: 'refusal.another-price' } },
    });
    await sell({ amount: '4.50' });
    // Nor is another's purchase.
    expect(await buyProduct(await buyer(), form)).toMatchObject({ code: 'missing' });
  });

  it('is not held by a declined card, and is by the next one, in the same purchase', async () => {
    const actor = await buyer();
    const form = await input({}, 'fails');
    expect(await buyProduct(actor, form)).toMatchObject({ ok: false });
    expect(await opens(actor)).toBe(false);
    expect(value(await myPurchases(actor))).toEqual([]);
    const card = await cardToken(moor.gatewayUrl, moor.siteKey, 'no-funds');
    expect(await buyProduct(actor, { ...form, cardToken: card })).toMatchObject({ ok: false });
    value(
      await buyProduct(actor, {
        ...form,
        cardToken: await cardToken(moor.gatewayUrl, moor.siteKey, 'works'),
      }),
    );
    expect(await opens(actor)).toBe(true);
    expect(await rows('SELECT 1 FROM purchases WHERE member_id = $1', [actor.memberId])).toHaveLength(1);
    expect(await reconcile(moor.accountId)).toMatchObject({ ok: true, differences: [] });
  });

  it('that is left unpaid for a day owes nothing', async () => {
    const actor = await buyer();
    const form = await input({}, 'fails');
    expect(await buyProduct(actor, form)).toMatchObject({ ok: false });
    await rows(`UPDATE purchases SET created_at = created_at - interval '2 days', busy_until = NULL`);
    while (value(await settlePurchases(WORKER)));
    const [left] = await rows<{ state: string }>('SELECT state FROM purchases WHERE id = $1', [
      form.purchaseId,
    ]);
    expect(left?.state).toBe('ended');
    expect(
      await rows(`SELECT 1 FROM charges WHERE purchase_id = $1 AND state = 'open'`, [form.purchaseId]),
    ).toEqual([]);
  });

  it('is settled by the worker after a crash between the charge and its answer', async () => {
    const { actor, purchaseId } = await bought();
    // As if the process had died before it heard the gateway's answer.
    await rows(`UPDATE payments SET state = 'intent', settled_at = NULL, gateway_ref = NULL WHERE id = $1`, [
      await paymentOf(purchaseId),
    ]);
    await rows(`UPDATE charges SET state = 'open', paid_at = NULL WHERE purchase_id = $1`, [purchaseId]);
    await rows(
      `UPDATE purchases SET state = 'pending', code_hash = NULL, code_sealed = NULL, busy_until = NULL WHERE id = $1`,
      [purchaseId],
    );
    await rows('DELETE FROM documents WHERE charge_id IN (SELECT id FROM charges WHERE purchase_id = $1)', [
      purchaseId,
    ]);
    await rows('DELETE FROM held_passes WHERE purchase_id = $1', [purchaseId]);
    await rows('UPDATE books SET version = version + 1');
    expect(await opens(actor)).toBe(false);
    while (value(await settlePurchases(WORKER)));
    expect(await opens(actor)).toBe(true);
    expect(await reconcile(moor.accountId)).toMatchObject({ ok: true, differences: [] });
  });

  it('is closed by a refund, on every device, and stays open where the refund says so', async () => {
    const { actor, purchaseId, code } = await bought();
    const { browser } = value(await enterPassCode(VISITOR_ACTOR, { word: code }));
    const visitor = visitorWith({ passes: browser ?? '' });
    expect(await opens(visitor)).toBe(true);
    expect(value(await refund(purchaseId))).toMatchObject({ amount: 450, state: 'succeeded' });
    expect(await opens(actor)).toBe(false);
    expect(await opens(visitor)).toBe(false);
    expect(await enterPassCode(VISITOR_ACTOR, { word: code })).toMatchObject({
      problems: { word: { code: 'product.closed' } },
    });
    expect(await sendPurchaseCode(actor, purchaseId)).toMatchObject({
      problems: { '': { code: 'product.closed' } },
    });
    const other = await bought();
    value(await refund(other.purchaseId, { endsAccess: false }));
    expect(await opens(other.actor)).toBe(true);
    expect(await reconcile(moor.accountId)).toMatchObject({ ok: true, differences: [] });
  });

  it('cannot be deleted, and is bought no more once it is off sale', async () => {
    expect(await deletePass(moor.owner, passId)).toMatchObject({ ok: false });
    const form = await input();
    await sell({ onSale: false });
    expect(await buyProduct(await buyer(), form)).toMatchObject({ ok: false });
    expect(value(await productPage(VISITOR_ACTOR, { productId })).isOnSale).toBe(false);
    await sell({ onSale: true });
  });
});

describe('its code', () => {
  it('opens it on as many other devices as it was sold for, which its buyer lists and signs out', async () => {
    const { actor, purchaseId, code } = await bought();
    const devices = [];
    for (let n = 0; n < 2; n++) {
      const { browser } = value(
        await enterPassCode(visitorWith({}, `192.0.2.${n + 10}`), { word: code.toUpperCase() }),
      );
      devices.push(visitorWith({ passes: browser ?? '' }));
    }
    for (const device of devices) expect(await opens(device)).toBe(true);
    expect(await enterPassCode(visitorWith({}, '192.0.2.30'), { word: code })).toMatchObject({
      problems: { word: { code: 'product.devices-full' } },
    });
    // The same browser again is no other device, and neither is the buyer.
    value(await enterPassCode(actor, { word: code }));
    const [mine] = value(await myPurchases(actor));
    expect(mine?.devices).toHaveLength(2);
    value(await endPassDevice(actor, { purchaseId, deviceId: mine?.devices[0]?.id }));
    expect(await opens(devices[0]!)).toBe(false);
    expect(await opens(devices[1]!)).toBe(true);
    expect(await endPassDevice(actor, { purchaseId, deviceId: mine?.devices[0]?.id })).toMatchObject({
      ok: false,
    });
    value(await enterPassCode(visitorWith({}, '192.0.2.31'), { word: code }));
    // Nobody else sees or ends them.
    expect(await endPassDevice(await buyer(), { purchaseId, deviceId: mine?.devices[1]?.id })).toMatchObject({
      code: 'missing',
    });
  });

  it('goes to the last place once, however many try at once', async () => {
    await sell({ mostDevices: '1' });
    const { code } = await bought();
    const tries = Array.from({ length: 4 }, (_, n) =>
      enterPassCode(visitorWith({}, `192.0.2.${n + 40}`), { word: code }),
    );
    expect((await Promise.all(tries)).filter(({ ok }) => ok)).toHaveLength(1);
    await sell({ mostDevices: '2' });
  });

  it('is sent again to its buyer, unchanged, and not to others; tries are limited', async () => {
    const { actor, purchaseId, code } = await bought();
    value(await sendPurchaseCode(actor, purchaseId));
    expect(await codeOf(actor)).toBe(code);
    expect(await sendPurchaseCode(await buyer(), purchaseId)).toMatchObject({ code: 'missing' });
    value(await sendPurchaseCode(moor.owner, purchaseId));
    const guesser = visitorWith({}, '198.51.100.9');
    let last = await lookAtPassCode(guesser, 'aaaa-bbbb-cccc-dddd-e');
    for (let n = 0; n < 25; n++) last = await lookAtPassCode(guesser, `aaaa-bbbb-cccc-dddd-${n}`);
    expect(last).toMatchObject({ problems: { word: { code: 'tries.too-many' } } });
  });
});

describe('a pass that is made with what sells it', () => {
  const input = {
    id: null,
    name: 'Winter talks',
    sells: 'pass:new',
    amount: '3.00',
    lasts: null,
    mostDevices: '',
    taxKindId: null,
    onSale: true,
  };

  it('has its name, opens nothing yet, and takes the right to set access', async () => {
    const seller: Actor = { ...moor.owner, kind: 'staff', staffRole: 'editor' };
    await rows(
      `INSERT INTO staff_roles (role, rights, reads_all, writes_in, shut_from) VALUES ('editor', '{look,set tiers}', true, NULL, '{}')
       ON CONFLICT (role) DO UPDATE SET rights = excluded.rights`,
    );
    expect(await saveProduct(seller, input)).toMatchObject({ code: 'forbidden' });
    const { id } = value(await saveProduct(moor.owner, input));
    expect(await saveProduct(moor.owner, input)).toMatchObject({
      problems: { name: { code: 'pass.taken' } },
    });
    expect(await rows('SELECT id FROM products WHERE name = $1', ['Winter talks'])).toEqual([{ id }]);
    const made = value(await passesPlace(moor.owner)).find(({ name }) => name === 'Winter talks');
    expect(made).toMatchObject({ rules: [], holders: 0 });
    await rows(`DELETE FROM staff_roles WHERE role = 'editor'`);
  });
});

describe('the news of what was bought', () => {
  const messages = async () =>
    (await rows<{ body: string }>('SELECT body FROM webhook_messages ORDER BY created_at, id')).map(
      ({ body }) => JSON.parse(body) as { type: string; data: Record<string, Record<string, unknown>> },
    );
  const subjects = async () =>
    (
      await rows<{ subject: string }>(
        `SELECT subject FROM mails WHERE template = 'staff' ORDER BY created_at`,
      )
    ).map(({ subject }) => subject);

  it('goes to the staff and the webhooks that asked for it, and a lost dispute closes it for its buyer, who is told', async () => {
    await rows('DELETE FROM mails');
    const url = 'https://club.example/hook';
    value(await addWebhook(moor.owner, { url, topics: ['paid', 'refunded', 'ended'], tiers: [] }));
    value(await addWebhook(moor.owner, { url: `${url}/tiers`, topics: ['paid'], tiers: ['observer'] }));
    value(await saveMyStaffMails(moor.owner, { kinds: ['bought', 'disputed'] }));
    const { actor, purchaseId } = await bought();
    expect(await messages()).toMatchObject([
      {
        type: 'purchase.paid',
        data: {
          member: { id: actor.memberId },
          purchase: { id: purchaseId, product: productId, kind: 'pass', item: passId, state: 'paid' },
          payment: { amount: 450, currency: 'GBP' },
        },
      },
    ]);
    expect(await subjects()).toEqual(['Bram Castell bought “Comet frames”']);
    const [paid] = await rows<{ ref: string }>('SELECT gateway_ref AS ref FROM payments WHERE id = $1', [
      await paymentOf(purchaseId),
    ]);
    const ref = paid?.ref ?? '';
    await actOnPayment(moor.gatewayUrl, ref, 'dispute');
    expect(await hearOf(moor, ref)).toBe('a dispute is open');
    expect(await opens(actor)).toBe(true);
    expect((await subjects()).at(-1)).toBe('Bram Castell disputes a payment for Comet frames');
    await actOnPayment(moor.gatewayUrl, ref, 'lose');
    await hearOf(moor, ref);
    expect(await opens(actor)).toBe(false);
    expect((await messages()).map(({ type }) => type)).toEqual(['purchase.paid', 'purchase.ended']);
    const letters = await rows<{ template: string }>(
      'SELECT template FROM mails WHERE member_id = $1 ORDER BY created_at',
      [actor.memberId],
    );
    expect(letters.map(({ template }) => template)).toEqual(['bought', 'dispute-lost']);
    value(await saveMyStaffMails(moor.owner, { kinds: [] }));
    await rows('DELETE FROM webhooks');
  });
});

describe('a gift card', () => {
  it('is bought by one person and used once by another; refunded, its code gives nothing more', async () => {
    const { id } = value(
      await saveProduct(moor.owner, {
        id: null,
        name: 'Observer for a month',
        sells: 'tier:observer',
        amount: '6.00',
        lasts: { n: 1, unit: 'month' },
        mostDevices: '',
        taxKindId: null,
        onSale: true,
      }),
    );
    const giver = await buyer();
    const { purchaseId } = value(await buyProduct(giver, await input({}, 'works', id)));
    expect(await heldBy(giver.memberId ?? '')).toEqual([]);
    const code = await codeOf(giver);
    const friend = await newPerson('Nell Garrowby');
    value(await redeemCode(asMember(friend.memberId ?? ''), { word: code }));
    expect(await heldBy(friend.memberId ?? '')).toMatchObject([{ tier: 'observer', paid: false }]);
    expect(value(await myPurchases(giver))).toMatchObject([{ kind: 'gift-card', isUsed: true }]);
    expect(await redeemCode(await buyer(), { word: code })).toMatchObject({ ok: false });
    const second = await buyer();
    const { purchaseId: other } = value(await buyProduct(second, await input({}, 'works', id)));
    const unused = await codeOf(second);
    // A card that was bought in test mode gives nothing on a live site.
    await rows(`UPDATE site SET mode = 'live', went_live_at = now()`);
    expect(await redeemCode(await buyer(), { word: unused })).toMatchObject({
      problems: { word: { code: 'checkout.code-invalid' } },
    });
    await rows(`UPDATE site SET mode = 'test', went_live_at = NULL`);
    value(await refund(other, { amount: '6.00' }));
    expect(await redeemCode(await buyer(), { word: unused })).toMatchObject({
      problems: { word: { code: 'code.over' } },
    });
    expect(purchaseId).not.toBe(other);

    // One that was used: what it gave ends with the money's return, once, and the giver's book stays equal.
    expect(value(await endGifts(WORKER))).toBe(true);
    expect(value(await endGifts(WORKER))).toBe(false);
    expect(await heldBy(friend.memberId ?? '')).toMatchObject([{ tier: 'observer' }]);
    value(await refund(purchaseId, { amount: '6.00' }));
    await Promise.all([endGifts(WORKER), endGifts(WORKER)].map(async (one) => value(await one)));
    expect(await heldBy(friend.memberId ?? '')).toEqual([]);
    expect(await rows(`SELECT 1 FROM audit WHERE action = 'gift ended'`)).toHaveLength(1);
    expect(await reconcile(moor.accountId)).toMatchObject({ ok: true, differences: [] });
  });
});
