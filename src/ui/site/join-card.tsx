import type { KeyCut } from '@/core/key-cut';
import { KeyGlyph } from '../key-cut';
import { LinkButton } from '../kit/button';
import { joinPath } from './tier-offer-card';

type Props = {
  tier: {
    id: string;
    name: string;
    description: string;
    keyCut: KeyCut;
    offers: { id: string; name: string; price: string; sentence: string }[];
  };
  returnTo: string;
};

/** A tier as it is offered on the join page. */
export function JoinCard({ tier, returnTo }: Props) {
  return (
    <li className="flex flex-col rounded-xl border border-line bg-surface p-6">
      <KeyGlyph cut={tier.keyCut} size={24} />
      <h2 className="mt-3 text-2xl break-words">{tier.name}</h2>
      <p className="mt-1 text-muted">{tier.description}</p>
      <ul className="mt-5 space-y-4">
        {tier.offers.map((offer) => (
          <li key={offer.id} className="border-t border-line pt-4">
            <p className="figures font-display text-xl font-bold first-letter:uppercase">{offer.price}</p>
            <p className="text-[0.9375rem] text-muted">{offer.sentence}</p>
            <LinkButton href={joinPath(offer.id, returnTo)} className="mt-3 w-full">
              {tier.offers.length > 1
                ? `Join ${tier.name}: ${offer.name.toLowerCase()}`
                : `Join ${tier.name}`}
            </LinkButton>
          </li>
        ))}
      </ul>
    </li>
  );
}
