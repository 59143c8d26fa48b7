import type { Metadata } from 'next';
import { SiteLink } from '@/kit/site-link';
import { isLocalMonth } from '@/core/instants';
import { ItemListPage, pageOf } from '@/app/item-pages';
import { searchOf, type Search } from '@/app/search';
import { currentActor, shown, siteWords } from '@/app/session';
import { shareWithAlike } from '@/access/services/share-with-alike';
import { listArchive } from '@/access/services/list-items';
import { Empty } from '@/kit/empty';

export const generateMetadata = async (): Promise<Metadata> => ({
  title: (await siteWords())('site.archive'),
});

/** The months in which something came out, by year; with ?month=2026-11, what came out in it. */
export default async function ArchivePage({ searchParams }: { searchParams: Search }) {
  const { month, page } = await searchOf(searchParams);
  const t = await siteWords();
  await shareWithAlike(await currentActor());
  if (month && isLocalMonth(month))
    return (
      <ItemListPage
        title={t.month(month)}
        filter={{ month, type: 'post' }}
        page={pageOf(page)}
        at={(n) => `/archive?month=${month}&page=${n}`}
      >
        <p className="mt-2">
          <SiteLink href="/archive" className="text-spruce underline">
            {t('site.archive')}
          </SiteLink>
        </p>
      </ItemListPage>
    );
  const months = await shown(listArchive(await currentActor()));
  return (
    <div className="mx-auto w-full max-w-2xl px-5 py-12">
      <h1 className="text-4xl">{t('site.archive')}</h1>
      {months.length === 0 && (
        <div className="mt-8">
          <Empty title={t('site.no-posts')}>{t('site.no-posts-hint')}</Empty>
        </div>
      )}
      {[...new Set(months.map((one) => one.month.slice(0, 4)))].map((year) => (
        <section key={year} className="mt-8">
          <h2 className="figures text-2xl">{year}</h2>
          <ul className="figures mt-2 divide-y divide-line border-y border-line">
            {months
              .filter((one) => one.month.startsWith(year))
              .map((one) => (
                <li key={one.month} className="flex justify-between gap-4 py-2.5">
                  <SiteLink href={`/archive?month=${one.month}`} className="hover:underline">
                    {isLocalMonth(one.month) ? t.month(one.month) : one.month}
                  </SiteLink>
                  <span className="text-muted">{t('site.archive-count', { count: one.items })}</span>
                </li>
              ))}
          </ul>
        </section>
      ))}
    </div>
  );
}
