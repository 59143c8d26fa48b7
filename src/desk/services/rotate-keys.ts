import { realNow } from '@/platform/clock';
import { nothing } from '@/platform/inputs';
import { record } from '@/platform/record';
import { done, type Result } from '@/platform/result';
import { isSealedAnew, seal, unseal } from '@/platform/seal';
import { transaction } from '@/platform/store/db';
import { systemUse } from '@/platform/use';
import { SEALED_KEYS } from '@/billing/store/gateways';
import { SEALED_WEBHOOKS } from '@/billing/store/webhooks';
import { SEALED_ONE_TIME } from '@/people/store/one-time-codes';
import { SEALED_PURCHASE_CODES } from '@/billing/store/purchases';
import { SEALED_MAILS } from '@/mail/store/mails';

/** By what was sealed. */
export type Rotated = Record<string, { resealed: number; all: number }>;

/**
 * Seals everything again under SEALING_KEY that was sealed under an old key, all or nothing. Afterwards the old keys can
 * be removed from SEALING_KEYS_OLD. Safe to run again, and while the site is running.
 */
export const rotateKeys = systemUse('rotate-keys', nothing, async (actor): Promise<Result<Rotated>> => {
  return transaction(async (db) => {
    const rotated: Rotated = {};
    for (const column of [
      ...SEALED_KEYS,
      SEALED_MAILS,
      SEALED_WEBHOOKS,
      SEALED_ONE_TIME,
      SEALED_PURCHASE_CODES,
    ]) {
      const rows = await column.lockAll(db);
      const old = rows.filter(({ sealed }) => !isSealedAnew(sealed));
      for (const { id, sealed } of old) await column.set(db, id, seal(unseal(sealed)));
      rotated[column.what] = { resealed: old.length, all: rows.length };
    }
    await record(db, actor, realNow(), 'keys rotated', 'site', rotated);
    return done(rotated);
  });
});
