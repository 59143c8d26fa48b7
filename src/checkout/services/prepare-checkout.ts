import { z } from 'zod';
import { listChoices } from '@/mail/store/mail-choices';
import { isCountry, listCountries } from '@/platform/countries';
import { spendPoint, type Limit } from '@/platform/store/rate-limits';
import { waitMinutes } from '@/people/services/lib/wait-minutes';
import { problem } from '@/words/problems';
import { done, missing } from '@/platform/result';
import { currentSite } from '@/platform/site';
import { wordsOf } from '@/words/words';
import { pool } from '@/platform/store/db';
import { publicUse } from '@/platform/use';
import { findMember } from '@/people/store/members';
import { findOffer } from '@/tiers/store/offers';
import { findTier } from '@/tiers/store/tiers';
import { pageOf } from './lib/checkout-page';
import { prepare } from './lib/prepare';

export type { CheckoutPage } from './lib/checkout-page';
export type { PreparedCheckout } from './lib/prepare';

/** Codes are guessed by programs: so many looks at one are enough for people. */
const CODE_TRIES: Limit = { name: 'code:look', points: 60, seconds: 15 * 60 };

const inputSchema = z.object({
  offerId: z.string().max(200),
  /** Where the payer is; left out, or unknown, where the member is. */
  country: z.string().refine(isCountry).optional().catch(undefined),
  /** A code that was typed; '' for none; left out: the one that was used before. */
  code: z.string().trim().max(60).optional().catch(undefined),
  /** Whether staff of a live site try it in test mode. */
  mode: z.enum(['', 'test']).catch(''),
});

/** Everything that checkout shows; the figures are the caller’s own, and are what will be charged. */
export const prepareCheckout = publicUse('prepare-checkout', inputSchema, async (actor, input) => {
  const found = actor.memberId ? await findMember(pool(), actor.memberId) : undefined;
  // Whether they are staff is said by their session.
  const member = found && { ...found, staffRole: actor.staffRole };
  const mode = member?.staffRole ? input.mode : '';
  const { offerId, country, code } = input;
  const wait = code ? await spendPoint(CODE_TRIES, actor.address ?? 'unknown') : 0;
  const read = await prepare(offerId, member, { country, mode, code: wait > 0 ? '' : code });
  const against = wait > 0 ? problem('tries.too-many', { minutes: waitMinutes(wait) }) : null;
  const prepared =
    read && code && against
      ? { ...read, asksCode: true, code: { word: code, discount: null, problem: against } }
      : read;
  const gone = prepared ? null : await goneOffer(input.offerId);
  if (!prepared && !gone) return missing();
  const site = await currentSite();
  return done({
    prepared,
    page: prepared && pageOf(prepared, wordsOf(site)),
    /** An offer that is no longer sold; its link may be in an old mail. */
    gone,
    member: member ? { name: member.name, email: member.email, isStaff: member.staffRole !== null } : null,
    site: { name: site.name, mode: site.mode },
    /** Whether they are asked if they want letters: those who chose nothing about them yet. */
    asksLetters: site.asksLetters && member !== undefined && !(await hasChosen(member.id)),
    countries: site.tax.way !== 'none' ? listCountries(site.language) : null,
  });
});

const hasChosen = async (memberId: string): Promise<boolean> =>
  (await listChoices(pool(), memberId)).some(({ topic }) => topic === 'letters');

async function goneOffer(id: string): Promise<{ tierName: string } | null> {
  const offer = await findOffer(pool(), id);
  const tier = offer && (await findTier(pool(), offer.tierId));
  return tier ? { tierName: tier.name } : null;
}
