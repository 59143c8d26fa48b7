import 'server-only';
import { currentActor } from '@/app/session';
import { tierOffers, type TierCard } from '@/app/tier-cards';
import type { OpeningTier } from '@/access/services/view-item';
import { prepareCheckout } from '@/checkout/services/prepare-checkout';
import type { Words } from '@/words/words';

/** For so many offers of a doorstep it is worked out what they cost the member who reads; the others say it at checkout. */
const WORKED_OUT = 4;

/**
 * The tiers of a doorstep as cards. To a member who holds or held one each offer says what it costs them: without a trial where they have had it,
 * and where joining is a switch, with what is credited and due.
 */
export async function doorstepTiers(
  t: Words,
  { tiers: opening, hasHeld }: { tiers: OpeningTier[]; hasHeld: boolean },
): Promise<(TierCard & { later: boolean })[]> {
  const cards = opening.map(({ tier, offers, at }) => ({
    ...tierOffers(t, tier, offers),
    later: at === 'later',
  }));
  const actor = await currentActor();
  if (!hasHeld || actor.memberId === null || actor.look) return cards;
  for (const offer of cards.flatMap(({ offers }) => offers).slice(0, WORKED_OUT)) {
    const found = await prepareCheckout(actor, { offerId: offer.id, mode: '' });
    const { prepared, page } = found.ok ? found.value : { prepared: null, page: null };
    if (prepared) offer.sentence = prepared.sentence;
    if (!page?.isSwitch || page.obstacle) continue;
    const { title, quote, cost, isLater, button } = page;
    offer.switch = {
      title,
      lines: [...quote.credits.map(({ words, amount }) => `${words} ${amount}`), isLater ? button : cost],
    };
  }
  return cards;
}
