import 'server-only';
import { currentActor } from '@/app/session';
import { tierOffers, type TierCard } from '@/app/tier-cards';
import type { OpeningTier } from '@/access/services/view-item';
import { prepareCheckout } from '@/checkout/services/prepare-checkout';
import type { Words } from '@/words/words';

/** A quote is worked out for so many offers of a doorstep; the others say it at checkout. */
const QUOTED = 2;

/** The tiers of a doorstep as cards; to a member for whom joining one is a switch, with what that costs them. */
export async function doorstepTiers(
  t: Words,
  opening: OpeningTier[],
): Promise<(TierCard & { later: boolean })[]> {
  const cards = opening.map(({ tier, offers, at }) => ({
    ...tierOffers(t, tier, offers),
    later: at === 'later',
  }));
  const actor = await currentActor();
  if (actor.memberId === null || actor.look) return cards;
  // Only on a ladder is joining a switch.
  const onLadders = new Set(opening.flatMap(({ tier }) => (tier.ladderId === null ? [] : [tier.id])));
  const offers = cards.flatMap((card) => (onLadders.has(card.id) ? card.offers : []));
  for (const offer of offers.slice(0, QUOTED)) {
    const found = await prepareCheckout(actor, { offerId: offer.id, mode: '' });
    const page = found.ok ? found.value.page : null;
    if (!page?.isSwitch || page.obstacle) continue;
    const { title, quote, cost, isLater, button } = page;
    offer.switch = {
      title,
      lines: [...quote.credits.map(({ words, amount }) => `${words} ${amount}`), isLater ? button : cost],
    };
  }
  return cards;
}
