import { z } from 'zod';
import { gatewayById } from '@/billing/gateways';
import { acceptLater } from '@/billing/services/lib/accept-later';
import { findQuote } from '@/billing/store/quotes';
import { findSubscription } from '@/billing/store/subscriptions';
import type { Actor } from '@/platform/actor';
import { done, refusedField, type Result } from '@/platform/result';
import { currentSite } from '@/platform/site';
import { pool } from '@/platform/store/db';
import { staffUse } from '@/platform/use';
import { findGatewayAccount } from '@/billing/store/gateways';
import { findMember } from '@/people/store/members';
import { findOfferVersion } from '@/tiers/store/offers';
import { checkoutInputSchema, planFor } from './lib/plan';
import { priceOffer } from './lib/pricing';
import { submitFor } from './lib/submit';

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
    if (!quote) return refusedField('', 'quote.gone');
    const member = await findMember(pool(), quote.memberId);
    const replaced = await findSubscription(pool(), quote.subscriptionId);
    const offer = await findOfferVersion(pool(), quote.offerVersionId);
    if (!member || !replaced || !offer) return refusedField('', 'quote.gone');
    if (!quote.atOnce) return acceptLater(actor, quote.id);
    // The quote is the member's; what is done with it is done by staff.
    const inTheirName: Actor = { ...actor, memberId: member.id };
    const account = replaced.gatewayAccountId
      ? await findGatewayAccount(pool(), replaced.gatewayAccountId)
      : undefined;
    if (account && gatewayById(account.gateway).nature === 'wallet')
      return refusedField('', 'switch.by-member');
    const { country, addedTax } = priceOffer(await currentSite(), offer, member.country);
    const input = checkoutInputSchema.parse({
      country,
      addedTax,
      checkoutId: requestId,
      offerId: offer.id,
      versionId: offer.versionId,
      quoteId: quote.id,
      accountId: account?.id ?? '',
      keepCard: true,
      returnTo: '/account',
    });
    const plan = await planFor(inTheirName, input);
    if (!plan.ok) return plan;
    const submitted = await submitFor(actor, plan.value, member, [], input);
    return submitted.ok ? done(null) : submitted;
  },
);
