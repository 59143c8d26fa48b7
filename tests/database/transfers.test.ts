import { beforeAll, describe, expect, it } from 'vitest';
import { randomUUID } from 'node:crypto';
import {
  confirmTransfer,
  importStatement,
  ignoreLine,
  restoreLine,
} from '../../src/billing/services/import-statement';
import { refundPayment } from '../../src/billing/services/refund-payment';
import { refundWasSent } from '../../src/billing/services/send-refund';
import { transferList } from '../../src/billing/services/transfer-list';
import { checkoutToPay } from '../../src/checkout/services/pending-checkout';
import { pool } from '../../src/platform/store/db';
import { listAwaited } from '../../src/billing/store/payments';
import { listUnmatched } from '../../src/billing/store/statements';
import {
  connectOthers,
  joinInput,
  lanternMoor,
  memberNamed,
  passDays,
  rows,
  subscriptionOf,
  joinNew,
  hasJoined,
  pendingOf,
  value,
  actorOfCheckout,
} from './lantern-moor';

const moor = lanternMoor();
let bank = '';
beforeAll(async () => {
  bank = (await connectOthers(moor)).bank;
});

async function asks(offer: string) {
  const input = await joinInput(moor, offer, null, { accountId: bank });
  expect(await joinNew(input)).toMatchObject({
    ok: true,
    value: { state: 'transfer' },
  });
  const pending = await pendingOf(input.checkoutId);
  return { input, reference: pending.transfer!.reference, transfer: pending.transfer! };
}
const statement = (...lines: string[]) => ['date,amount,payer,words', ...lines].join('\n');
const take = async (csv: string, more: object = {}) => {
  const imported = await importStatement(moor.owner, { accountId: bank, csv, ...more });
  if (!imported.ok) throw new Error(JSON.stringify(imported.problems));
  return imported.value.map(({ state }) => state);
};

describe('a transfer', () => {
  it('opens what it pays when a statement brings it, whatever the bank made of its words; once', async () => {
    const { input, reference, transfer } = await asks('eclipse-week-once');
    expect(transfer).toMatchObject({ amount: 2500, payee: 'Lantern Moor Society' });
    // Its invoice has the reference in place of a number, which it gets with the money.
    const sheet = value(await checkoutToPay(await actorOfCheckout(input.checkoutId), input.checkoutId));
    expect(sheet).toMatchObject({ title: 'Unpaid invoice', label: reference });
    expect(sheet.totals.at(-1)).toMatchObject({ amount: '£25.00' });
    expect(sheet.settled.join(' ')).toContain('Lantern Moor Society');
    expect(await hasJoined(input.email)).toBe(false);
    const csv = statement(
      `2026-11-25,25.00,S New,thank you ${reference.toLowerCase().replace('-', ' ')} eclipse`,
    );
    expect(await take(csv, { dryRun: true })).toEqual(['matched']);
    expect(await hasJoined(input.email)).toBe(false);
    expect(await take(csv)).toEqual(['matched']);
    const member = await memberNamed(input.email);
    expect(await subscriptionOf(member!.id)).toMatchObject({ state: 'active' });
    expect(await checkoutToPay(await actorOfCheckout(input.checkoutId), input.checkoutId)).toMatchObject({
      ok: false,
      code: 'missing',
    });
    expect(await take(csv)).toEqual(['known']);
    expect(
      await rows(`SELECT 1 FROM mails WHERE template = 'transfer-due' AND to_address = $1`, [input.email]),
    ).toHaveLength(1);
  });

  it('of another amount, without a reference, or of what was paid before, is listed and matched by hand', async () => {
    const { input, reference } = await asks('eclipse-week-once');
    const lines = statement(
      `25/11/2026,24.00,S New,${reference}`,
      `25/11/2026,25.00,S New,for the eclipse`,
      `25/11/2026,-9.00,Bank,fees`,
      `soon,25.00,S New,x`,
      `25/11/2026,25.00,S New,for the eclipse`,
    );
    expect(await take(lines)).toEqual(['unmatched', 'unmatched', 'left out', 'unreadable', 'unmatched']);
    const [short, bare, twin] = await listUnmatched(pool(), 'test');
    expect(short?.note).toContain('£25.00 is due');
    expect(twin?.words).toBe(bare?.words);
    const awaited = (await listAwaited(pool(), 'test')).find((payment) => payment.reference === reference);
    expect(await confirmTransfer(moor.owner, { paymentId: awaited!.id, lineId: short!.id })).toMatchObject({
      ok: false,
    });
    expect(await confirmTransfer(moor.owner, { paymentId: awaited!.id, lineId: bare!.id })).toMatchObject({
      ok: true,
    });
    expect(await hasJoined(input.email)).toBe(true);
    expect(await confirmTransfer(moor.owner, { paymentId: awaited!.id, lineId: twin!.id })).toMatchObject({
      ok: false,
    });
    const listed = async (id: string) => (await listUnmatched(pool(), 'test')).some((line) => line.id === id);
    expect(await ignoreLine(moor.owner, { lineId: twin!.id, because: 'sent back' })).toMatchObject({
      ok: true,
    });
    expect(await listed(twin!.id)).toBe(false);
    expect(await restoreLine(moor.owner, twin!.id)).toMatchObject({ ok: true });
    expect(await listed(twin!.id)).toBe(true);
    expect(await ignoreLine(moor.owner, { lineId: twin!.id, because: 'sent back' })).toMatchObject({
      ok: true,
    });
    expect(await ignoreLine(moor.owner, { lineId: short!.id, because: ' ' })).toMatchObject({ ok: false });
    expect(await listUnmatched(pool(), 'test')).toHaveLength(1);
    expect(await take(statement(`2026-11-26,25.00,S New,${reference}`))).toEqual(['unmatched']);
    expect(await importStatement(moor.owner, { accountId: bank, csv: 'when;how much\n1;2' })).toMatchObject({
      ok: false,
      problems: { csv: { code: 'statement.no-columns' } },
    });
  });

  it('is asked for anew each period, waited for, and late as any other payment; a late one keeps the calendar', async () => {
    const { input, reference } = await asks('mirror-makers-instalments');
    await take(statement(`2026-11-25,45.00,S New,${reference}`));
    const member = (await memberNamed(input.email))!;
    const begun = await subscriptionOf(member.id);
    expect(begun.state).toBe('active');
    await passDays(moor, 31);
    const [second] = (await listAwaited(pool(), 'test')).filter(
      (payment) => payment.subscriptionId === begun.id,
    );
    expect(second).toMatchObject({ amount: 4500, attempt: 1 });
    expect((await subscriptionOf(member.id)).state).toBe('active');
    await passDays(moor, 5);
    expect((await subscriptionOf(member.id)).state).toBe('overdue');
    // The money comes after the first try was given up: it is for the same charge, under the same reference.
    expect(await take(statement(`2026-12-31,45.00,S New,${second!.reference}`))).toEqual(['matched']);
    const paid = await subscriptionOf(member.id);
    expect(paid).toMatchObject({
      state: 'active',
      place: { anchor: begun.place.anchor, last: { step: 0, n: 1 } },
    });
  });

  it('that never comes ends it, after every try', async () => {
    const { input, reference } = await asks('mirror-makers-instalments');
    await take(statement(`2026-11-25,45.00,S New,${reference}`));
    const member = (await memberNamed(input.email))!;
    await passDays(moor, 60);
    expect((await subscriptionOf(member.id)).state).toBe('ended');
    expect(
      await rows(`SELECT 1 FROM mails WHERE to_address = $1 AND template = 'transfer-due'`, [input.email]),
    ).not.toHaveLength(1);
  });

  it('is not waited for where the person pays by card after all', async () => {
    const { input } = await asks('eclipse-week-once');
    const card = await joinInput(moor, 'eclipse-week-once', 'works', {
      checkoutId: input.checkoutId,
      email: input.email,
      accountId: moor.accountId,
    });
    expect(await joinNew(card)).toMatchObject({
      ok: true,
      value: { state: 'done' },
    });
    expect(await listAwaited(pool(), 'test')).not.toContainEqual(expect.objectContaining({ amount: 2500 }));
  });
});

describe('a refund of a transfer', () => {
  it('is listed until staff have sent it by their bank, and noted once', async () => {
    const { input, reference } = await asks('eclipse-week-once');
    expect(await take(statement(`2026-11-25,25.00,S New,${reference}`))).toEqual(['matched']);
    const member = await memberNamed(input.email);
    const [payment] = await rows<{ id: string }>(
      `SELECT p.id FROM payments p JOIN charges c ON c.id = p.charge_id JOIN subscriptions s ON s.id = c.subscription_id WHERE s.member_id = $1`,
      [member?.id],
    );
    const asked = { paymentId: payment?.id, requestId: randomUUID(), amount: '5.00', endsAccess: false };
    expect(await refundPayment(moor.owner, asked)).toMatchObject({ ok: true, value: { state: 'by-hand' } });
    const { toSend } = value(await transferList(moor.owner));
    expect(toSend).toMatchObject([{ amount: 500, memberId: member?.id }]);
    const id = toSend[0]?.id ?? '';
    expect(await refundWasSent({ ...moor.owner, staffRole: 'helper' }, id)).toMatchObject({
      ok: false,
      code: expect.any(String) as string,
    });
    expect(await refundWasSent(moor.owner, id)).toMatchObject({ ok: true });
    expect(await refundWasSent(moor.owner, id)).toMatchObject({ ok: false });
    expect(value(await transferList(moor.owner)).toSend).toEqual([]);
  });
});
