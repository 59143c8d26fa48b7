import type { Metadata } from 'next';
import { SiteLink } from '@/kit/site-link';
import { categoryNames, pageOf } from '@/app/item-pages';
import { searchOf, type Search } from '@/app/search';
import { currentActor, shown, siteWords } from '@/app/session';
import { searchSite } from '@/access/services/list-items';
import { ItemList } from '@/content/ui/item-list';
import { Button } from '@/kit/button';
import { Empty } from '@/kit/empty';
import { inputClass } from '@/kit/input-class';

export const generateMetadata = async (): Promise<Metadata> => ({
  title: (await siteWords())('site.search'),
  robots: { index: false },
});

export default async function SearchPage({ searchParams }: { searchParams: Search }) {
  const given = await searchOf(searchParams);
  const [words, page] = [(given.q ?? '').slice(0, 200).trim(), Math.min(50, pageOf(given.page))];
  const [t, names] = [await siteWords(), await categoryNames()];
  const { items, hasMore } = await shown(searchSite(await currentActor(), { words, page }));
  const at = (n: number): string => `/search?q=${encodeURIComponent(words)}&page=${n}`;
  return (
    <div className="mx-auto w-full max-w-2xl px-5 py-12">
      <h1 className="text-4xl">{t('site.search')}</h1>
      <form role="search" className="mt-5 flex gap-3">
        <input
          name="q"
          type="search"
          defaultValue={words}
          maxLength={200}
          aria-label={t('site.search-label')}
          className={inputClass}
        />
        <Button type="submit">{t('site.search')}</Button>
      </form>
      <p className="mt-2 text-muted">{t('site.search-hint')}</p>
      {items.length > 0 && <ItemList items={items} t={t} names={names} />}
      {words !== '' && items.length === 0 && (
        <div className="mt-8">
          <Empty title={t('site.search-none', { words })}>{t('site.search-none-hint')}</Empty>
        </div>
      )}
      {(page > 1 || hasMore) && (
        <nav aria-label={t('kind.pages')} className="mt-6 flex gap-5">
          {page > 1 && (
            <SiteLink href={at(page - 1)} className="font-semibold text-spruce underline">
              {t('site.previous-page')}
            </SiteLink>
          )}
          {hasMore && (
            <SiteLink href={at(page + 1)} className="font-semibold text-spruce underline">
              {t('site.next-page')}
            </SiteLink>
          )}
        </nav>
      )}
    </div>
  );
}
