import { SiteLinkButton } from '@/kit/site-link';
import type { Metadata } from 'next';
import { siteWords } from '@/app/session';

export const generateMetadata = async (): Promise<Metadata> => ({
  title: (await siteWords())('signin.other-browser'),
  robots: { index: false },
});

export default async function OtherBrowserPage() {
  const t = await siteWords();
  return (
    <div className="mx-auto w-full max-w-md px-5 py-14">
      <h1 className="text-4xl">{t('signin.other-browser')}</h1>
      <p className="mt-3 text-lg">{t('signin.other-browser-hint')}</p>
      <SiteLinkButton href="/sign-in" className="mt-6">
        {t('site.sign-in')}
      </SiteLinkButton>
    </div>
  );
}
