import { z } from 'zod';
import { isBefore } from '@/core/calendar';
import { gatewayById } from '@/gateways';
import { findQuote } from '@/store/credits';
import { pool } from '@/platform/store/db';
import { findGatewayAccount } from '@/store/gateways';
import { findMember } from '@/store/members';
import { findOfferVersion } from '@/store/offers';
import { findSubscription } from '@/store/subscriptions';
import { type Actor } from '@/platform/actor';
import { beginJoining } from '@/services/lib/begin-joining';
import { joinInputSchema, planFor } from './lib/plan-joining';
import { payJoining } from '@/services/lib/pay-joining';
import { done, refusedField, type Result } from '@/platform/result';
import { currentSite } from '@/platform/site';
import { acceptLater } from './lib/switch-later';
import { priceOffer } from '@/services/lib/terms';
import { staffUse } from '@/platform/use';

const GONE = 'This quote is no longer available. Load the page again.';
const inputSchema = z.object({ quoteId: z.uuid(), requestId: z.uuid() });

/**
 * Staff switch a member to another offer, at the quote they saw: at once with the card that is kept, or at the end of
 * what is paid. What only the payer can approve is left to them.
 */
export const switchForMember = staffUse('manage members')(
  'switch-for-member',
  inputSchema,
  async (actor, { quoteId, requestId }): Promise<Result<null>> => {
    const quote = await findQuote(pool(), quoteId);
    if (!quote) return refusedField('', GONE);
    const member = await findMember(pool(), quote.memberId);
    const replaced = await findSubscription(pool(), quote.subscriptionId);
    const offer = await findOfferVersion(pool(), quote.offerVersionId);
    if (!member || !replaced || !offer) return refusedField('', GONE);
    // The quote is the member's; what is done with it is done by staff.
    const inTheirName: Actor = { ...actor, memberId: member.id };
    if (isBefore(quote.at, quote.startsAt)) return acceptLater(actor, quote.id);
    const account = replaced.gatewayAccountId
      ? await findGatewayAccount(pool(), replaced.gatewayAccountId)
      : undefined;
    if (account && gatewayById(account.gateway).nature === 'wallet')
      return refusedField(
        '',
        'Only the member can approve this at their wallet: they switch in their account.',
      );
    const { country, addedTax } = priceOffer(await currentSite(), offer, member.country);
    const input = joinInputSchema.parse({
      country,
      addedTax,
      joiningId: requestId,
      offerId: offer.id,
      versionId: offer.versionId,
      quoteId: quote.id,
      accountId: account?.id ?? '',
      keepCard: true,
      returnTo: '/account',
    });
    const plan = await planFor(inTheirName, input);
    if (!plan.ok) return plan;
    const begun = await beginJoining(actor, plan.value, member, [], input);
    if (!begun.ok) return begun;
    if (begun.value === 'busy')
      return refusedField('', 'This is being done already. Load the page again in a moment.');
    if (begun.value === 'done') return done(null);
    const paid = await payJoining(actor, plan.value, begun.value, { cardToken: '', keepCard: true });
    return paid.ok ? done(null) : paid;
  },
);
