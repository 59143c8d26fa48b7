import 'server-only';
import { currentActor, shown, siteWords } from '@/app/session';
import { tierOffers } from '@/app/tier-cards';
import type { NoticeSample } from '@/access/ui/doorstep-fields';
import { tiersOnOffer } from '@/checkout/services/join-page';
import { desk } from '@/words/desk';

/** What the merge fields of a notice could be filled with, so that an owner sees how it reads. */
export async function noticeSample(): Promise<NoticeSample> {
  const t = await siteWords();
  const offered = await shown(tiersOnOffer(await currentActor(), []));
  const cards = offered.map(({ tier, offers }) => tierOffers(t, tier, offers));
  return {
    'first name': desk('desk-access.sample-name'),
    item: desk('desk-access.sample-title'),
    summary: desk('desk-access.sample-summary'),
    tiers: t.list(cards.slice(0, 2).map(({ name }) => name)),
    price: cards.flatMap(({ offers }) => offers).find(({ isFree }) => !isFree)?.price ?? '',
    join: { label: t('site.join'), href: '/join' },
    'sign in': { label: t('site.sign-in'), href: '/sign-in' },
  };
}
