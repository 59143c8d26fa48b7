import type { KeyCut } from '@/core/key-cut';
import type { Words } from '@/words/speak';
import { KeyGlyph } from '@/kit/key-cut';
import { SiteLinkButton } from '@/kit/site-link';
import { joinPath } from '@/content/ui/tier-offer-card';

type Props = {
  t: Words;
  tiers: {
    id: string;
    name: string;
    keyCut: KeyCut;
    offers: { id: string; name: string; price: string; sentence: string }[];
  }[];
  /** The page people return to after joining. */
  returnTo: string;
};

/** A few tiers to join, small enough for a page or a post. */
export function JoinPanel({ t, tiers, returnTo }: Props) {
  if (tiers.length === 0) return null;
  return (
    <aside
      aria-label={t('site.join')}
      className="rounded-xl border border-line bg-surface text-base leading-normal"
    >
      <ul className="divide-y divide-line">
        {tiers.map((tier) => (
          <li key={tier.id} className="flex flex-wrap items-center gap-x-5 gap-y-3 px-5 py-4">
            <div className="min-w-48 flex-1">
              <p className="flex items-center gap-2.5 font-display text-lg font-semibold">
                <KeyGlyph cut={tier.keyCut} size={18} />
                {tier.name}
              </p>
              <p className="text-[0.9375rem] text-muted">{tier.offers[0]?.sentence}</p>
            </div>
            <ul className="flex flex-wrap gap-2">
              {tier.offers.map((offer, index) => (
                <li key={offer.id}>
                  <SiteLinkButton href={joinPath(offer.id, returnTo)} look={index === 0 ? 'main' : 'quiet'}>
                    <span className="first-letter:uppercase">{offer.price}</span>
                  </SiteLinkButton>
                </li>
              ))}
            </ul>
          </li>
        ))}
      </ul>
    </aside>
  );
}
