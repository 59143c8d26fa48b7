import { Lock } from '@lucide/icons';
import { SiteIcon } from '@/kit/site-icon';
import { SiteLink } from '@/kit/site-link';
import type { Instant } from '@/core/instants';
import type { KeyCut } from '@/core/key-cut';
import { KeyGlyph } from '@/kit/key-cut';
import type { Words } from '@/words/speak';
import { Picture, type PictureOf } from './picture';

export type ListedItem = {
  id: string;
  path: string;
  title: string;
  summary: string;
  publishedAt: Instant | null;
  categories: string[];
  minutes: number;
  picture: PictureOf | null;
  isOpen: boolean;
  /** The tiers that would open it. */
  keys: { id: string; name: string; keyCut: KeyCut }[];
  opensAt: Instant | null;
};

type Props = { items: ListedItem[]; t: Words; names: Map<string, string> };

/** The line above an item's title: its categories, its day, and how long it takes to read. */
export const lineAbove = (
  item: Pick<ListedItem, 'categories' | 'publishedAt' | 'minutes'>,
  t: Words,
  names: Map<string, string>,
): string =>
  [
    ...item.categories.map((id) => names.get(id) ?? id),
    item.publishedAt && t.date(item.publishedAt),
    item.minutes > 0 && t('site.minutes', { minutes: item.minutes }),
  ]
    .filter(Boolean)
    .join(' · ');

/** An item's title as a link, with a lock where it is closed. */
function Title({ item, t }: { item: ListedItem; t: Words }) {
  return (
    <>
      <SiteLink href={item.path} className="hover:underline">
        {item.title}
      </SiteLink>
      {!item.isOpen && (
        <SiteIcon icon={Lock} className="ml-2 inline size-4 text-closed" aria-label={t('site.closed')} />
      )}
    </>
  );
}

/** Items one below the other, as lists of the site show them. */
export function ItemList({ items, t, names }: Props) {
  return (
    <ul className="mt-4 divide-y divide-line">
      {items.map((item) => (
        <li key={item.id} className="flex gap-5 py-5">
          <div className="min-w-0 flex-1">
            <p className="text-[0.9375rem] text-muted">{lineAbove(item, t, names)}</p>
            <h3 className="mt-0.5 text-xl">
              <Title item={item} t={t} />
            </h3>
            {item.summary && <p className="mt-1 text-muted">{item.summary}</p>}
            <Keys item={item} t={t} />
          </div>
          {item.picture && (
            <Picture
              picture={item.picture}
              sizes="10rem"
              className="aspect-[3/2] w-28 flex-none self-start rounded-lg object-cover sm:w-40"
            />
          )}
        </li>
      ))}
    </ul>
  );
}

const NAMED = 2;

/** What would open a closed item: the keys of its tiers, and the day on which it opens by itself. */
function Keys({ item, t }: { item: ListedItem; t: Words }) {
  if (item.isOpen || (item.keys.length === 0 && !item.opensAt)) return null;
  const isNamed = item.keys.length <= NAMED;
  return (
    <p className="mt-2 flex flex-wrap items-center gap-x-4 gap-y-1 text-[0.9375rem] text-muted">
      {item.keys.map((tier) => (
        <span key={tier.id} className="inline-flex items-center gap-2" title={tier.name}>
          <KeyGlyph cut={tier.keyCut} size={15} />
          <span className={isNamed ? undefined : 'sr-only'}>{tier.name}</span>
        </span>
      ))}
      {item.opensAt && (
        <span className="text-later">{t('site.opens-on', { date: t.date(item.opensAt) })}</span>
      )}
    </p>
  );
}

/** Items as cards, the first one wider; for a front page. */
export function ItemCards({ items, t, names }: Props) {
  return (
    <ul className="grid gap-x-6 gap-y-10 sm:grid-cols-2 lg:grid-cols-[4fr_3fr_3fr]">
      {items.map((item, index) => (
        <li key={item.id} className="min-w-0">
          {item.picture && (
            <SiteLink href={item.path} tabIndex={-1} aria-hidden>
              <Picture
                picture={item.picture}
                sizes="(min-width: 64rem) 26rem, (min-width: 40rem) 50vw, 100vw"
                isFirst={index < 3}
                className="mb-3 aspect-[5/2] w-full rounded-lg object-cover sm:aspect-[9/4]"
              />
            </SiteLink>
          )}
          <p className="text-[0.9375rem] text-muted">{lineAbove(item, t, names)}</p>
          <h3 className="mt-0.5 text-xl leading-snug">
            <Title item={item} t={t} />
          </h3>
          {item.summary && <p className="mt-1 line-clamp-3 text-muted">{item.summary}</p>}
          <Keys item={item} t={t} />
        </li>
      ))}
    </ul>
  );
}
