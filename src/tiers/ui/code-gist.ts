import type { CodeTerms } from '@/core/tiers/codes';
import { desk } from '@/words/desk';
import { discountWords } from '@/words/discounts';
import { lengthWords } from '@/words/offers';
import type { Words } from '@/words/speak';

type Named = { id: string; name: string };
const nameOf = (named: Named[], id: string): string => named.find((one) => one.id === id)?.name ?? id;

/** What a code does, in a sentence or two. */
export function codeGist(
  { admits, discount, currency, gives }: CodeTerms,
  { tiers, passes, t }: { tiers: Named[]; passes: Named[]; t: Words },
): string {
  return [
    discountWords(discount, currency ?? '', t),
    gives &&
      desk('desk-codes.gives-words', {
        name: nameOf(gives.kind === 'tier' ? tiers : passes, gives.id),
        length: gives.lasts ? lengthWords(gives.lasts, t) : 'none',
      }),
    admits.length > 0 &&
      desk('desk-codes.admits-words', { tiers: t.list(admits.map((id) => nameOf(tiers, id))) }),
  ]
    .filter(Boolean)
    .join(' ');
}
