import type { Metadata } from 'next';
import clsx from 'clsx';
import { notFound } from 'next/navigation';
import { cache } from 'react';
import { currentActor, currentSite, shown, siteWords } from '@/app/session';
import { categoryNames, listItems, viewItem } from '@/access/services/view-item';
import type { Words } from '@/words/words';
import { Doorstep } from '@/access/ui/doorstep';
import { PostList } from '@/content/ui/post-list';
import { ClosedSection } from '@/content/ui/closed-section';
import { RichText } from '@/content/ui/rich-text';
import { signInAction } from '@/app/sign-in-action';
import { FEEDS } from '@/app/public-feed';
import { structuredData } from '@/app/structured-data';
import { config } from '@/platform/config';
import { panelsOf } from '@/app/panels';
import { tierOffers } from '@/app/tier-cards';

type Props = { params: Promise<{ path?: string[] }> };

/** Decided once a request: the head and the page speak of the same view. */
const view = cache(async (path: string) => {
  const seen = await viewItem(await currentActor(), path);
  return seen.ok ? seen.value : ({ kind: 'missing' } as const);
});
const pathOf = async (params: Props['params']): Promise<string> =>
  `/${((await params).path ?? []).join('/')}`;

export async function generateMetadata({ params }: Props): Promise<Metadata> {
  const seen = await view(await pathOf(params));
  if (seen.kind === 'missing') return {};
  return {
    title: seen.item.path === '/' ? { absolute: (await currentSite()).name } : seen.item.title,
    description: seen.summary || undefined,
    alternates: { canonical: `${config().SITE_URL}${seen.item.path}`, types: FEEDS },
    // Where a visitor is shown nothing of it, there is nothing to find.
    ...(seen.kind === 'doorstep' && !seen.summary && !seen.teaser && { robots: { index: false } }),
  };
}

export default async function ItemPage({ params }: Props) {
  const path = await pathOf(params);
  const seen = await view(path);
  const t = await siteWords();
  if (seen.kind === 'missing' && path === '/') return <Front t={t} />;
  if (seen.kind === 'missing') notFound();
  const { item } = seen;
  const about = structuredData(seen, await currentSite());
  const actor = await currentActor();
  const names = await shown(categoryNames(actor));
  const byline = [
    ...item.categories.map((id) => names.get(id) ?? id),
    item.type === 'post' && item.publishedAt && t.date(item.publishedAt),
    item.author,
  ];
  const latest = item.path === '/' ? (await shown(listItems(actor, { type: 'post' }))).slice(0, 6) : [];
  return (
    <>
      <script type="application/ld+json" dangerouslySetInnerHTML={{ __html: about }} />
      <article
        className={clsx(
          'mx-auto w-full max-w-2xl px-5 pt-9 sm:pt-12',
          seen.kind === 'open' ? 'pb-12' : 'pb-2',
        )}
      >
        <p className="text-[0.9375rem] text-muted">{byline.filter(Boolean).join(' · ')}</p>
        <h1 className="mt-2 text-4xl leading-[1.1] sm:text-5xl">{item.title}</h1>
        {seen.kind === 'open' && seen.isDraft && (
          <p className="mt-4 rounded-md bg-metered-wash px-3 py-2 text-metered">{t('site.draft')}</p>
        )}
        {seen.kind === 'open' ? (
          <RichText
            document={seen.body}
            className="prose mt-7"
            here={item.path}
            panel={await panelsOf(seen.body, item.path)}
            closed={(words) => (
              <ClosedSection t={t} isMember={actor.memberId !== null}>
                {words}
              </ClosedSection>
            )}
          />
        ) : (
          <>
            {seen.summary && <p className="mt-6 text-xl leading-relaxed text-muted">{seen.summary}</p>}
            {seen.teaser && (
              <div className="fade-away mt-6">
                <RichText document={seen.teaser} here={item.path} />
              </div>
            )}
          </>
        )}
      </article>
      {latest.length > 0 && (
        <section className="mx-auto w-full max-w-2xl px-5 pb-16">
          <h2 className="border-t border-line pt-8 text-2xl">{t('site.latest')}</h2>
          <PostList posts={latest} t={t} names={names} />
        </section>
      )}
      {seen.kind === 'doorstep' && (
        <Doorstep
          t={t}
          signIn={signInAction}
          type={item.type}
          path={item.path}
          state={seen.state}
          opensOn={seen.opensAt ? t.date(seen.opensAt) : null}
          minutesLeft={seen.minutesLeft}
          notice={seen.notice}
          showSignIn={seen.showSignIn}
          tiers={seen.tiers.map(({ tier, offers, at }) => ({
            ...tierOffers(t, tier, offers),
            later: at === 'later',
          }))}
        />
      )}
    </>
  );
}

/** What is at "/" where no page is the front page: the site's name and its newest posts. */
async function Front({ t }: { t: Words }) {
  const actor = await currentActor();
  const [site, names] = [await currentSite(), await shown(categoryNames(actor))];
  const latest = (await shown(listItems(actor, { type: 'post' }))).slice(0, 6);
  return (
    <div className="mx-auto w-full max-w-2xl px-5 py-12">
      <h1 className="text-5xl break-words">{site.name}</h1>
      {latest.length === 0 ? (
        <p className="mt-4 text-lg text-muted">{t('site.front-empty')}</p>
      ) : (
        <>
          <h2 className="mt-10 border-t border-line pt-8 text-2xl">{t('site.latest')}</h2>
          <PostList posts={latest} t={t} names={names} />
        </>
      )}
    </div>
  );
}
