import { localDate } from '@/core/calendar';
import type { Instant } from '@/core/instants';
import { joiningState, joiningTerms, type JoiningState } from '@/core/tiers/joining';
import { pool, type Db } from '@/platform/store/db';
import type { Site } from '@/platform/store/site';
import { type Tier } from '@/tiers/store/tiers';
import { countPlacesTaken } from '@/billing/store/tier-holders';

/** Whether people can join the tier today, with the places that are left; but for one checkout, which may have one. */
export async function joiningStateOf(
  site: Site,
  tier: Tier,
  now: Instant,
  { db = pool(), checkout = null }: { db?: Db; checkout?: string | null } = {},
): Promise<JoiningState> {
  const taken = tier.places === null ? 0 : await countPlacesTaken(db, tier.id, site.mode, now, checkout);
  return joiningState(joiningTerms(site, tier), taken, localDate(now, site.zone));
}
