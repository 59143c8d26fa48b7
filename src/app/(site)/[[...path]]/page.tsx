import type { Metadata } from 'next';
import { SiteLink } from '@/kit/site-link';
import { notFound, permanentRedirect, redirect } from 'next/navigation';
import { cache } from 'react';
import { CategoryLinks, categoryNames, ItemListPage, namesInLists, pageOf } from '@/app/item-pages';
import { searchOf, type Search } from '@/app/search';
import { currentActor, currentSite, giveReads, shown, siteWords } from '@/app/session';
import { kindAt, listItems } from '@/access/services/list-items';
import { shareWithAlike } from '@/access/services/share-with-alike';
import { viewItem } from '@/access/services/view-item';
import type { Words } from '@/words/words';
import { ItemCards } from '@/content/ui/item-list';
import { FEEDS } from '@/app/public-feed';
import { ItemArticle } from '@/app/item-article';
import { config } from '@/platform/config';

type Props = { params: Promise<{ path?: string[] }>; searchParams: Search };

/** Decided once a request: the head and the page speak of the same view. */
const view = cache(async (path: string) => {
  const seen = await viewItem(await currentActor(), path);
  if (seen.ok && seen.value.kind === 'open' && seen.value.readsCookie) giveReads(seen.value.readsCookie);
  return seen.ok ? seen.value : ({ kind: 'missing' } as const);
});
const pathOf = async (params: Props['params']): Promise<string> =>
  `/${((await params).path ?? []).join('/')}`;
/** The kind whose list is at an address where there is no item. */
const listAt = cache(async (path: string) => {
  const found = await kindAt(await currentActor(), path);
  return found.ok ? found.value : null;
});

export async function generateMetadata({ params }: Props): Promise<Metadata> {
  const path = await pathOf(params);
  const seen = await view(path);
  if (seen.kind !== 'open' && seen.kind !== 'doorstep') {
    const kind = seen.kind === 'missing' ? await listAt(path) : null;
    return kind ? { title: kind.plural } : {};
  }
  const { item, summary } = seen;
  const base = config().SITE_URL;
  const picture = item.picture && `${base}/pictures/${item.picture.id}`;
  const title = item.path === '/' ? (await currentSite()).name : item.title;
  return {
    title: item.path === '/' ? { absolute: title } : title,
    description: summary || undefined,
    alternates: { canonical: `${base}${item.path}`, types: FEEDS },
    openGraph: {
      title,
      description: summary || undefined,
      url: `${base}${item.path}`,
      siteName: (await currentSite()).name,
      type: item.type === 'page' ? 'website' : 'article',
      ...(picture && { images: [{ url: picture, alt: item.picture?.alt }] }),
    },
    // Where a visitor is shown nothing of it, there is nothing to find.
    ...(seen.kind === 'doorstep' &&
      (!seen.isListed || (!summary && !seen.teaser)) && { robots: { index: false } }),
  };
}

export default async function ItemPage({ params, searchParams }: Props) {
  const path = await pathOf(params);
  await shareWithAlike(await currentActor());
  const seen = await view(path);
  const t = await siteWords();
  if (seen.kind === 'moved') permanentRedirect(seen.path);
  if (seen.kind === 'leads-on') redirect(seen.target);
  if (seen.kind === 'missing') {
    if (path === '/') return <Front t={t} />;
    const kind = await listAt(path);
    if (!kind) notFound();
    const { page, category } = await searchOf(searchParams);
    // Where lists of categories once were.
    if (category && (await namesInLists()).categories.some(({ id }) => id === category))
      permanentRedirect(`/categories/${category}`);
    return (
      <ItemListPage
        title={kind.plural}
        filter={{ type: kind.id }}
        page={pageOf(page)}
        at={(n) => `${path}?page=${n}`}
      >
        {kind.id === 'post' && (
          <>
            <CategoryLinks />
            <p className="mt-3">
              <SiteLink href="/by-mail" className="text-spruce underline">
                {t('by-mail.link')}
              </SiteLink>
            </p>
          </>
        )}
      </ItemListPage>
    );
  }
  const { item } = seen;
  return (
    <>
      <ItemArticle seen={seen} commentsPage={pageOf((await searchOf(searchParams)).comments)} />
      {item.path === '/' && <Latest t={t} />}
    </>
  );
}

/** The newest posts, below the front page. */
async function Latest({ t }: { t: Words }) {
  const { items } = await shown(listItems(await currentActor(), { size: 6 }));
  if (items.length === 0) return null;
  return (
    <section className="mx-auto w-full max-w-6xl px-5 pb-16">
      <h2 className="mb-6 text-2xl">{t('site.latest')}</h2>
      <ItemCards items={items} t={t} names={await categoryNames()} />
      <p className="mt-8">
        <SiteLink href="/archive" className="font-semibold text-spruce underline">
          {t('site.archive')}
        </SiteLink>
      </p>
    </section>
  );
}

/** What is at "/" where no page is the front page: the site's name and its newest posts. */
async function Front({ t }: { t: Words }) {
  const { name } = await currentSite();
  const { total } = await shown(listItems(await currentActor(), { size: 1 }));
  return (
    <>
      <div className="mx-auto w-full max-w-2xl px-5 py-12">
        <h1 className="text-5xl break-words">{name}</h1>
        {total === 0 && <p className="mt-4 text-lg text-muted">{t('site.front-empty')}</p>}
      </div>
      <Latest t={t} />
    </>
  );
}
