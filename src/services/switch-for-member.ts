import { z } from 'zod';
import { isBefore } from '@/core/calendar';
import { gatewayById } from '@/gateways';
import { findQuote } from '@/store/credits';
import { pool } from '@/store/db';
import { findGatewayAccount } from '@/store/gateways';
import { findMember } from '@/store/members';
import { findOfferVersion } from '@/store/offers';
import { findSubscription } from '@/store/subscriptions';
import { requireRight, type Actor } from './actor';
import { beginJoining } from './begin-joining';
import { planFor, joinInputSchema } from './join-tier';
import { payJoining } from './pay-joining';
import { done, refusedField, type Result } from './result';
import { currentSite } from './site';
import { switchLater } from './switch-later';
import { priceOffer } from './terms';

const inputSchema = z.object({ quoteId: z.uuid(), requestId: z.uuid() });

/**
 * Staff switch a member to another offer, at the quote they saw: at once with the card that is kept, or at the end of
 * what is paid. What only the payer can approve is left to them.
 */
export async function switchForMember(actor: Actor, raw: unknown): Promise<Result<null>> {
  requireRight(actor, 'manage members');
  const parsed = inputSchema.safeParse(raw);
  const quote = parsed.success ? await findQuote(pool(), parsed.data.quoteId) : undefined;
  if (!parsed.success || !quote)
    return refusedField('', 'This quote is not there any more. Load the page again.');
  const member = await findMember(pool(), quote.memberId);
  const replaced = await findSubscription(pool(), quote.subscriptionId);
  const offer = await findOfferVersion(pool(), quote.offerVersionId);
  if (!member || !replaced || !offer)
    return refusedField('', 'This quote is not there any more. Load the page again.');
  // The quote is the member's; what is done with it is done by staff.
  const inTheirName: Actor = { ...actor, memberId: member.id };
  if (isBefore(quote.at, quote.startsAt)) return switchLater(inTheirName, quote.id, actor);
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
    shown: '',
    joiningId: parsed.data.requestId,
    offerId: offer.id,
    versionId: offer.versionId,
    quoteId: quote.id,
    accountId: account?.id ?? '',
    keepCard: true,
    returnTo: '/account',
  });
  const plan = await planFor(inTheirName, input);
  if (!plan.ok) return plan;
  const joiner = { member, email: member.email, name: member.name, passwordHash: null };
  const begun = await beginJoining(plan.value, joiner, [], input);
  if (!begun.ok) return begun;
  if (begun.value === 'busy')
    return refusedField('', 'This is being done already. Load the page again in a moment.');
  if (begun.value === 'done') return done(null);
  const paid = await payJoining(actor, plan.value, begun.value, { cardToken: '', keepCard: true });
  return paid.ok ? done(null) : paid;
}
