import { isBefore } from '@/core/instants';
import { listPassesOf } from '@/billing/store/held-passes';
import { siteNow } from '@/platform/clock';
import { uuid } from '@/platform/inputs';
import { done } from '@/platform/result';
import { currentSite } from '@/platform/site';
import { pool } from '@/platform/store/db';
import { staffUse } from '@/platform/use';
import { listPasses } from '@/tiers/store/passes';
import { listTiers } from '@/tiers/store/tiers';

/** The passes that a member holds now, and the tiers and passes that can be given. */
export const giftChoices = staffUse('see members')('gift-choices', uuid, async (_, memberId) => {
  const site = await currentSite();
  const now = siteNow(site);
  const held = (await listPassesOf(pool(), memberId)).filter(
    ({ mode, since, until }) =>
      mode === site.mode && !isBefore(now, since) && (until === null || isBefore(now, until)),
  );
  const named = ({ id, name }: { id: string; name: string }) => ({ id, name });
  return done({
    held,
    tiers: (await listTiers(pool())).filter(({ retiredAt }) => retiredAt === null).map(named),
    passes: (await listPasses(pool())).map(named),
  });
});
