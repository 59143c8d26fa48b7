import { z } from 'zod';
import { accountSectionSchema, wholeArrangement } from '@/core/account-sections';
import { lock, transaction } from '@/store/db';
import { setAccountSettings } from '@/store/site';
import { listTiers, setAccountSections } from '@/store/tiers';
import { requireRight, type Actor } from './actor';
import { siteNow } from './clock';
import { record } from './record';
import { done, problemsOf, refused, type Result } from './result';
import { currentSite } from './site';

const sections = z.array(accountSectionSchema).max(20).transform(wholeArrangement);
const inputSchema = z.object({
  sections,
  mayDelete: z.boolean(),
  /** By tier id: an arrangement of its own. Tiers that are left out have the site's. */
  tiers: z.record(z.string(), sections).default({}),
});

/** The order of the account's sections and which are on, for all members and for those who hold a tier. */
export async function saveAccountSettings(actor: Actor, raw: unknown): Promise<Result<null>> {
  requireRight(actor, 'set up the site');
  const parsed = inputSchema.safeParse(raw);
  if (!parsed.success) return refused(problemsOf(parsed.error));
  const input = parsed.data;
  const site = await currentSite();
  return transaction(async (db) => {
    await lock(db, 'account settings');
    await setAccountSettings(db, input.sections, input.mayDelete);
    for (const { id } of await listTiers(db)) await setAccountSections(db, id, input.tiers[id] ?? null);
    await record(db, actor, siteNow(site), 'account arranged', 'site', {
      mayDelete: input.mayDelete,
      tiers: Object.keys(input.tiers),
    });
    return done(null);
  });
}
