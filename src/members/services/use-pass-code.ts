import { z } from 'zod';
import { givePassTo } from '@/access/services/lib/give-pass';
import { hashPurchaseCode } from '@/billing/services/lib/purchase-code';
import { findBoughtPass, listDevicesOf } from '@/billing/store/held-passes';
import { findPurchaseByCode, type StoredPurchase } from '@/billing/store/purchases';
import { waitMinutes } from '@/people/services/lib/wait-minutes';
import type { Actor } from '@/platform/actor';
import { siteNow } from '@/platform/clock';
import { done, refusedField, type Result } from '@/platform/result';
import { safeReturn } from '@/platform/safe-return';
import { currentSite } from '@/platform/site';
import { lock, pool, transaction } from '@/platform/store/db';
import { spendPoint, type Limit } from '@/platform/store/rate-limits';
import { publicUse } from '@/platform/use';

/** Personal codes are guessed by programs: so many tries are enough for people, and so many for all of them together. */
const OF_CALLER: Limit = { name: 'pass-code:caller', points: 20, seconds: 15 * 60 };
const OF_ALL: Limit = { name: 'pass-code:all', points: 2_000, seconds: 3600 };

const word = z.string().trim().min(1).max(60);

async function againstTrying({ address }: Actor): Promise<Result<never> | null> {
  const wait = (await spendPoint(OF_CALLER, address ?? 'unknown')) || (await spendPoint(OF_ALL, 'all'));
  return wait > 0 ? refusedField('word', 'tries.too-many', { minutes: waitMinutes(wait) }) : null;
}

/** The pass that a personal code opens; undefined where it is none, or no longer good. */
async function passOf(typed: string): Promise<StoredPurchase | undefined> {
  const purchase = await findPurchaseByCode(pool(), hashPurchaseCode(typed));
  const { mode } = await currentSite();
  return purchase?.kind === 'pass' && purchase.mode === mode ? purchase : undefined;
}

/** What a personal code opens. Looking at it uses nothing up. */
export const lookAtPassCode = publicUse('look-at-pass-code', word, async (actor, typed) => {
  const against = await againstTrying(actor);
  if (against) return against;
  const purchase = await passOf(typed);
  if (!purchase) return refusedField('word', 'checkout.code-invalid');
  const held = await findBoughtPass(pool(), purchase, siteNow(await currentSite()));
  if (!held) return refusedField('word', 'product.closed');
  return done({
    name: purchase.name,
    until: held.until,
    isBuyer: purchase.memberId === actor.memberId,
  });
});

/**
 * Opens what a pass opens, by its personal code, for the member who is signed in or for this browser: as long as its buyer
 * holds it, and on no more devices than it was sold for.
 */
export const enterPassCode = publicUse(
  'enter-pass-code',
  z.object({ word, to: z.string().max(500).default('/') }),
  async (
    actor,
    { word: typed, to },
  ): Promise<Result<{ browser: string | null; to: string; name: string }>> => {
    const against = await againstTrying(actor);
    if (against) return against;
    if (actor.look) return refusedField('word', 'pass.looking');
    const purchase = await passOf(typed);
    if (!purchase) return refusedField('word', 'checkout.code-invalid');
    const got = { to: safeReturn(to), name: purchase.name };
    return transaction(async (db): Promise<Result<{ browser: string | null; to: string; name: string }>> => {
      await lock(db, 'purchase', purchase.id);
      const site = await currentSite(db);
      const now = siteNow(site);
      const held = await findBoughtPass(db, purchase, now);
      if (!held) return refusedField('word', 'product.closed');
      if (purchase.memberId === actor.memberId) return done({ ...got, browser: null });
      const devices = await listDevicesOf(db, purchase, now);
      if (purchase.mostDevices !== null && devices.length >= purchase.mostDevices)
        return refusedField('word', 'product.devices-full', { count: purchase.mostDevices });
      const browser = await givePassTo(db, actor, site, {
        pass: purchase.item,
        why: { why: 'purchase', purchaseId: purchase.id },
        since: now,
        until: held.until,
      });
      return done({ ...got, browser });
    });
  },
);
