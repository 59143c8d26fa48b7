import { Lock } from 'lucide-react';
import Link from 'next/link';
import type { Instant } from '@/core/instants';
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
};

type Props = { items: ListedItem[]; t: Words; names: Map<string, string> };

/** What stands above an item's title: its categories, its day, and how long it takes to read. */
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

/** Items one below the other, as lists of the site show them. */
export function ItemList({ items, t, names }: Props) {
  return (
    <ul className="mt-4 divide-y divide-line">
      {items.map((item) => (
        <li key={item.id} className="flex gap-5 py-5">
          <div className="min-w-0 flex-1">
            <p className="text-[0.9375rem] text-muted">{lineAbove(item, t, names)}</p>
            <h3 className="mt-0.5 text-xl">
              <Link href={item.path} prefetch={false} className="hover:underline">
                {item.title}
              </Link>
              {!item.isOpen && (
                <Lock className="ml-2 inline size-4 text-closed" aria-label={t('site.closed')} />
              )}
            </h3>
            {item.summary && <p className="mt-1 text-muted">{item.summary}</p>}
          </div>
          {item.picture && (
            <Picture
              picture={item.picture}
              sizes="10rem"
              className="aspect-[3/2] w-28 flex-none rounded-lg object-cover sm:w-40"
            />
          )}
        </li>
      ))}
    </ul>
  );
}
