import { countDoubleHolders, moveToTrack } from '@/billing/store/tracks';
import { staffUse } from '@/platform/use';
import { savingTier, tierInputSchema } from '@/tiers/services/lib/save-tier';

/** Makes a tier or changes one, and brings the subscriptions of those who hold it along. */
export const saveTier = staffUse('set tiers')(
  'save-tier',
  tierInputSchema,
  savingTier({ countDoubleHolders, moveToTrack }),
);
