import 'server-only';
import type { ReactNode } from 'react';
import { joinPanels, type Prose } from '@/core/content/prose';
import { currentActor, shown, siteWords } from '@/app/session';
import { tiersOnOffer } from '@/checkout/services/join-page';
import { JoinPanel } from '@/checkout/ui/join-panel';
import { tierOffers } from './tier-cards';

/** What is shown for the join panels of a document; nothing is looked up where it has none. */
export async function panelsOf(document: Prose, here: string): Promise<(tiers: string[]) => ReactNode> {
  const t = await siteWords();
  const made = new Map<string, ReactNode>();
  for (const ids of joinPanels(document)) {
    const offered = await shown(tiersOnOffer(await currentActor(), ids));
    const open = offered.filter(({ joining }) => joining.state === 'open' || joining.state === 'by-code');
    made.set(
      ids.join(),
      <JoinPanel t={t} tiers={open.map(({ tier, offers }) => tierOffers(t, tier, offers))} returnTo={here} />,
    );
  }
  return (tiers) => made.get(tiers.join()) ?? null;
}
