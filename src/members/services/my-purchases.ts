import { randomUUID } from 'node:crypto';
import { z } from 'zod';
import type { Instant } from '@/core/instants';
import { countUses } from '@/billing/store/code-uses';
import { endDevice, findBoughtPass, listDevicesOf, type PassDevice } from '@/billing/store/held-passes';
import { findPurchase, listPurchasesOf, type StoredPurchase } from '@/billing/store/purchases';
import { purchaseCode } from '@/billing/services/lib/purchase-code';
import { writeMail } from '@/mail/services/lib/write-mail';
import { findMember } from '@/people/store/members';
import { siteNow } from '@/platform/clock';
import { nothing, uuid } from '@/platform/inputs';
import { record } from '@/platform/record';
import { done, missing, refusedField, type Result } from '@/platform/result';
import { currentSite } from '@/platform/site';
import { pool, transaction } from '@/platform/store/db';
import { spendPoint, type Limit } from '@/platform/store/rate-limits';
import { memberUse } from '@/platform/use';
import { waitMinutes } from '@/people/services/lib/wait-minutes';
import { findCode } from '@/tiers/store/codes';

export type MyPurchase = Pick<StoredPurchase, 'id' | 'kind' | 'name' | 'state' | 'at' | 'mostDevices'> & {
  /** Of a pass: when it ends, null for never; undefined where it has ended. Of a gift card: null. */
  until: Instant | null | undefined;
  devices: PassDevice[];
  /** Of a gift card: whether someone has used it. */
  isUsed: boolean;
};

/** What the member has bought once, the newest first, with where its codes are used. */
export const myPurchases = memberUse('my-purchases', nothing, async ({ memberId }) => {
  const site = await currentSite();
  const now = siteNow(site);
  const mine: MyPurchase[] = [];
  for (const purchase of await listPurchasesOf(pool(), memberId, site.mode)) {
    const { id, kind, name, state, at, mostDevices } = purchase;
    const isPass = kind === 'pass';
    mine.push({
      id,
      kind,
      name,
      state,
      at,
      mostDevices,
      until: isPass ? (await findBoughtPass(pool(), purchase, now))?.until : null,
      devices: isPass ? await listDevicesOf(pool(), purchase, now) : [],
      isUsed: !isPass && (await isCardUsed(purchase)),
    });
  }
  return done(mine);
});

async function isCardUsed(purchase: StoredPurchase): Promise<boolean> {
  const code = await findCode(pool(), purchaseCode(purchase));
  if (!code) return false;
  return (await countUses(pool(), code, { memberId: null, mode: purchase.mode, except: null })).all > 0;
}

const owner = async (id: string): Promise<string | undefined> => (await findPurchase(pool(), id))?.memberId;
const AGAIN: Limit = { name: 'purchase:code', points: 5, seconds: 3600 };

/** Mails the code of what was bought to its buyer once more. */
export const sendPurchaseCode = memberUse(
  'send-purchase-code',
  uuid,
  async (actor, id): Promise<Result<{ email: string }>> => {
    const wait = await spendPoint(AGAIN, id);
    if (wait > 0) return refusedField('', 'tries.too-many', { minutes: waitMinutes(wait) });
    const site = await currentSite();
    const at = siteNow(site);
    return transaction(async (db): Promise<Result<{ email: string }>> => {
      const purchase = await findPurchase(db, id);
      const buyer = purchase && (await findMember(db, purchase.memberId));
      if (!purchase || !buyer) return missing();
      if (purchase.state !== 'paid') return refusedField('', 'product.closed');
      const held = purchase.kind === 'pass' ? await findBoughtPass(db, purchase, at) : { until: null };
      if (!held) return refusedField('', 'product.closed');
      const code = purchaseCode(purchase);
      const content = {
        template: 'bought-code',
        kind: purchase.kind,
        name: purchase.name,
        until: held.until,
        secret: { code, path: `/code?word=${code}` },
      } as const;
      await writeMail(db, site, { to: buyer, content, key: `bought-code:${randomUUID()}`, at });
      await record(db, actor, at, 'code sent again', `member:${buyer.id}`, { purchase: id });
      return done({ email: buyer.email });
    });
  },
  { owner, staff: 'manage members' },
);

/** Signs a device out of a pass that was bought. */
export const endPassDevice = memberUse(
  'end-pass-device',
  z.object({ purchaseId: uuid, deviceId: uuid }),
  async (actor, { purchaseId, deviceId }): Promise<Result<null>> => {
    const at = siteNow(await currentSite());
    return transaction(async (db): Promise<Result<null>> => {
      const purchase = await findPurchase(db, purchaseId);
      if (!purchase || !(await endDevice(db, purchaseId, deviceId, at)))
        return refusedField('', 'product.device-gone');
      await record(db, actor, at, 'device signed out of a pass', `member:${purchase.memberId}`, {
        purchase: purchaseId,
      });
      return done(null);
    });
  },
  { owner: ({ purchaseId }) => owner(purchaseId), staff: 'manage members' },
);
