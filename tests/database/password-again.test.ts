import { randomUUID } from 'node:crypto';
import { describe, expect, it } from 'vitest';
import { OWNER } from '../../scripts/lib/load-demo';
import { readTestKeys } from '../../scripts/lib/stand-ins';
import type { Actor } from '../../src/platform/actor';
import { pool } from '../../src/platform/store/db';
import { connectGateway, keepWebhookSecret } from '../../src/billing/services/connect-gateway';
import { disconnectGateway } from '../../src/billing/services/disconnect-gateway';
import { connectTransfer } from '../../src/billing/services/connect-transfer';
import { beginConsent } from '../../src/billing/services/gateway-consent';
import { goLive } from '../../src/desk/services/go-live';
import { refundPayment } from '../../src/billing/services/refund-payment';
import { saveStaffSettings } from '../../src/desk/services/save-staff-settings';
import { join, lanternMoor, passDays, rows, value } from './lantern-moor';

const moor = lanternMoor();
const owner = (): Actor => ({ ...moor.owner, kind: 'staff' });
const { password } = OWNER;
const notTheirs = { ok: false, problems: { password: { code: expect.any(String) as string } } };
const setAbove = async (refundAsksAbove: string) =>
  value(await saveStaffSettings(owner(), { idleHours: 12, refundAsksAbove }));

describe('the password is asked for again', () => {
  it('before a refund above the amount that the owner set, and below it is not', async () => {
    const { subscription } = await join(moor, 'observer-monthly', 'works');
    await passDays(moor, 31);
    const [payment] = await rows<{ id: string }>(
      `SELECT p.id FROM payments p JOIN charges c ON c.id = p.charge_id WHERE c.subscription_id = $1 AND p.state = 'succeeded'`,
      [subscription.id],
    );
    const give = (amount: string, more: object = {}) =>
      refundPayment(owner(), {
        paymentId: payment?.id,
        requestId: randomUUID(),
        amount,
        endsAccess: false,
        reason: 'asked',
        ...more,
      });
    await setAbove('2');
    expect(await give('2.00')).toMatchObject({ ok: true });
    expect(await give('2.01')).toMatchObject(notTheirs);
    expect(await give('2.01', { password: 'not the password' })).toMatchObject(notTheirs);
    expect(await rows('SELECT amount FROM refunds WHERE payment_id = $1', [payment?.id])).toEqual([
      { amount: 200n },
    ]);
    expect(await give('2.01', { password })).toMatchObject({ ok: true });
    await setAbove('0');
    expect(await give('0.01')).toMatchObject(notTheirs);
  });

  it('before keys, secrets and bank details, which say where money goes', async () => {
    const keys = await readTestKeys(moor.gatewayUrl);
    const before = await rows('SELECT * FROM gateway_accounts');
    const bank = { payee: 'Moor', account: '40-17-92 00481516', daysToPay: 14 };
    const asked: Record<string, (more: object) => Promise<unknown>> = {
      keys: (more) => connectGateway(owner(), { gateway: 'curlew-cards', ...keys, ...more }),
      secret: (more) =>
        keepWebhookSecret(owner(), {
          accountId: moor.accountId,
          secret: `whsec_${'A'.repeat(32)}`,
          ...more,
        }),
      transfer: (more) => connectTransfer(owner(), { ...bank, ...more }),
      disconnect: (more) => disconnectGateway(owner(), { accountId: moor.accountId, ...more }),
      consent: (more) => beginConsent(owner(), { gateway: 'dunlin-wallet', ...more }),
    };
    for (const [name, ask] of Object.entries(asked)) {
      expect(await ask({}), name).toMatchObject(notTheirs);
      expect(await ask({ password: 'not the password' }), name).toMatchObject(notTheirs);
    }
    expect(await rows('SELECT * FROM gateway_accounts')).toEqual(before);
    for (const name of ['keys', 'transfer', 'consent'])
      expect(await asked[name]?.({ password }), name).toMatchObject({ ok: true });
  });

  it('before going live; ten wrong ones have to wait', async () => {
    const live = { typed: 'Lantern Moor', clearsTestData: false };
    for (let n = 0; n < 12; n++)
      expect(await goLive(owner(), { ...live, password: 'not the password' })).toMatchObject(notTheirs);
    expect(await goLive(owner(), { ...live, password })).toMatchObject({
      problems: { password: { code: 'tries.too-many' } },
    });
    expect(await rows('SELECT mode FROM site')).toEqual([{ mode: 'test' }]);
  });

  it('and staff without one set it first', async () => {
    await pool().query('UPDATE members SET password_hash = NULL WHERE id = $1', [moor.owner.memberId]);
    await pool().query('DELETE FROM rate_limits');
    expect(
      await connectTransfer(owner(), { payee: 'Moor', account: '40-17-92', daysToPay: 14, password }),
    ).toMatchObject({ problems: { password: { code: 'password.none' } } });
  });
});
