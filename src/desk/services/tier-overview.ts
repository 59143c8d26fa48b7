import { z } from 'zod';
import { localDate } from '@/core/calendar';
import { siteNow } from '@/platform/clock';
import { nothing, slug } from '@/platform/inputs';
import { done, missing } from '@/platform/result';
import { currentSite } from '@/platform/site';
import { messagesUnder } from '@/words/words';
import { pool } from '@/platform/store/db';
import { staffUse } from '@/platform/use';
import { listJoinFields } from '@/tiers/store/join-fields';
import { readTierDetail } from './lib/tier-detail';
import { readTierOverview } from './lib/tier-overview';
import { readVersions } from '@/billing/services/lib/offer-versions';
import { gatewayLimits } from '@/billing/services/lib/checkout-gateways';
import { wasOfferEverBought } from '@/billing/store/tier-holders';

export type { TierOverview } from './lib/tier-overview';

export const tierOverview = staffUse('look')('tier-overview', nothing, async () =>
  done(await readTierOverview()),
);

/** Everything that the Desk shows of a tier; "new" for one that is about to be made. */
export const tierDetail = staffUse('set tiers')('tier-detail', slug, async (_, id) => {
  const detail = await readTierDetail(id === 'new' ? null : id);
  return detail ? done(detail) : missing();
});

const offerSchema = z.object({ tierId: slug, offerId: slug });

/** An offer with all that its editor shows; "new" for one that is about to be made. */
export const offerEditor = staffUse('set tiers')('offer-editor', offerSchema, async (_, ids) => {
  const detail = await readTierDetail(ids.tierId);
  const tier = detail?.tier;
  const offer = ids.offerId === 'new' ? null : detail?.offers.find(({ id }) => id === ids.offerId);
  if (!tier || offer === undefined) return missing();
  const site = await currentSite();
  const now = siteNow(site);
  return done({
    tier,
    offer,
    others: detail.others,
    opens: detail.opens,
    versions: offer ? await readVersions(offer.id) : { versions: [], previews: [] },
    gateways: await gatewayLimits(),
    canDelete: offer !== null && !(await wasOfferEverBought(pool(), offer.id)),
    currency: site.currency,
    /** How the site speaks to members, for the editor to show in the browser. */
    speaking: {
      language: site.language,
      zone: site.zone,
      messages: messagesUnder(site, 'offer.', 'length.', 'join.'),
    },
    now,
    today: localDate(now, site.zone),
  });
});

/** What is asked at checkout, with the tiers that can ask for it. */
export const joinQuestions = staffUse('set tiers')('join-questions', nothing, async () =>
  done({ fields: await listJoinFields(pool()), overview: await readTierOverview() }),
);
