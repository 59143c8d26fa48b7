import { z } from 'zod';
import { wholeArrangement } from '@/core/account-sections';
import { accountSectionSchema } from '@/core/account-sections-schema';
import { lock, transaction } from '@/platform/store/db';
import { setAccountSettings } from '@/platform/store/site';
import { listTiers, setAccountSections } from '@/tiers/store/tiers';
import { siteNow } from '@/platform/clock';
import { record } from '@/platform/record';
import { done, type Result } from '@/platform/result';
import { currentSite } from '@/platform/site';
import { staffUse } from '@/platform/use';

const sections = z.array(accountSectionSchema).max(20).transform(wholeArrangement);
const inputSchema = z.object({
  sections,
  mayDelete: z.boolean(),
  /** By tier id: an arrangement of its own, or null for the site's. Tiers that are left out keep what they had. */
  tiers: z.record(z.string().max(200), sections.nullable()).optional(),
});

/** The order of the account's sections and which are on, for all members and for those who hold a tier. */
export const saveAccountSettings = staffUse('change settings')(
  'save-account-settings',
  inputSchema,
  async (actor, input): Promise<Result<null>> => {
    const site = await currentSite();
    return transaction(async (db) => {
      await lock(db, 'account settings');
      await setAccountSettings(db, input.sections, input.mayDelete);
      for (const { id } of await listTiers(db)) {
        const own = input.tiers?.[id];
        if (own !== undefined) await setAccountSections(db, id, own);
      }
      await record(db, actor, siteNow(site), 'account arranged', 'site', {
        mayDelete: input.mayDelete,
        tiers: Object.keys(input.tiers ?? {}),
      });
      return done(null);
    });
  },
);
