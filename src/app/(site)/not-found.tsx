import { SiteLinkButton } from '@/kit/site-link';
import { notFoundPage } from '@/access/services/serving-pages';
import { currentActor, siteWords } from '@/app/session';
import { RichText } from '@/content/ui/rich-text';

export default async function NotFound() {
  const t = await siteWords();
  const own = await notFoundPage(await currentActor());
  const page = own.ok ? own.value : null;
  return (
    <div className="mx-auto w-full max-w-2xl px-5 py-16">
      <h1 className="text-4xl">{page?.title ?? t('site.not-found')}</h1>
      {page ? (
        <RichText document={page.body} className="prose mt-5" />
      ) : (
        <p className="mt-3 text-lg text-muted">{t('site.not-found-hint')}</p>
      )}
      <div className="mt-6 flex flex-wrap gap-3">
        <SiteLinkButton href="/">{t('site.to-front')}</SiteLinkButton>
        <SiteLinkButton href="/search" look="quiet">
          {t('site.search')}
        </SiteLinkButton>
      </div>
    </div>
  );
}
