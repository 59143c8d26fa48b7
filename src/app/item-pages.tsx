import 'server-only';
import { SiteLink } from '@/kit/site-link';
import { cache, type ReactNode } from 'react';
import { currentActor, shown, siteWords } from '@/app/session';
import { listItems, listNames, PAGE_SIZE } from '@/access/services/list-items';
import { shareWithAlike } from '@/access/services/share-with-alike';
import { ItemList } from '@/content/ui/item-list';
import { Empty } from '@/kit/empty';

/** What lists call categories and tags; looked up once a request. */
export const namesInLists = cache(async () => shown(listNames(await currentActor())));
export const categoryNames = async (): Promise<Map<string, string>> =>
  new Map((await namesInLists()).categories.map(({ id, name }) => [id, name]));

/** The number of a page, as an address gives it. */
export const pageOf = (given: string | undefined): number =>
  /^[1-9]\d{0,3}$/.test(given ?? '') ? Number(given) : 1;

type Filter = { type?: string; category?: string; tag?: string; month?: string };
type Props = {
  title: string;
  filter: Filter;
  page: number;
  /** The address of another page of the list. */
  at: (page: number) => string;
  children?: ReactNode;
};

/** A list of items with its pages; `children` is shown between its title and the items. */
export async function ItemListPage({ title, filter, page, at, children }: Props) {
  await shareWithAlike(await currentActor());
  const [t, names] = [await siteWords(), await categoryNames()];
  const { items, total } = await shown(listItems(await currentActor(), { ...filter, page }));
  return (
    <div className="mx-auto w-full max-w-2xl px-5 py-12">
      <h1 className="text-4xl break-words">{title}</h1>
      {children}
      {items.length > 0 ? (
        <ItemList items={items} t={t} names={names} />
      ) : (
        <div className="mt-8">
          <Empty title={t('site.no-posts')}>{t('site.no-posts-hint')}</Empty>
        </div>
      )}
      <PageLinks page={page} pages={Math.ceil(total / PAGE_SIZE)} at={at} />
    </div>
  );
}

/** The way to newer and older pages of a list; `pages` is how many there are. */
export async function PageLinks({
  page,
  pages,
  at,
  label,
}: {
  page: number;
  pages: number;
  at: (page: number) => string;
  /** What it leads through. */
  label?: string;
}) {
  const t = await siteWords();
  if (pages < 2) return null;
  return (
    <nav aria-label={label ?? t('kind.pages')} className="figures mt-6 flex items-center gap-5">
      {page > 1 && (
        <SiteLink href={at(page - 1)} className="font-semibold text-spruce underline">
          {t('site.newer')}
        </SiteLink>
      )}
      <span className="text-muted">{t('site.page-of', { page, pages })}</span>
      {page < pages && (
        <SiteLink href={at(page + 1)} className="font-semibold text-spruce underline">
          {t('site.older')}
        </SiteLink>
      )}
    </nav>
  );
}

/** Links to the lists of categories, those that are in use. */
export async function CategoryLinks({ here }: { here?: string }) {
  const [t, { categories }] = [await siteWords(), await namesInLists()];
  const used = categories.filter(({ isUsed }) => isUsed);
  if (used.length === 0) return null;
  return (
    <nav aria-label={t('site.categories')} className="mt-4">
      <ul className="flex flex-wrap gap-x-4 gap-y-1">
        {used.map(({ id, name }) => (
          <li key={id}>
            <SiteLink
              href={`/categories/${id}`}
              aria-current={here === id ? 'page' : undefined}
              className="underline-offset-4 hover:underline aria-[current]:font-semibold aria-[current]:underline"
            >
              {name}
            </SiteLink>
          </li>
        ))}
      </ul>
    </nav>
  );
}
