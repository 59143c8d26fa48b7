import { SiteLinkButton } from '@/kit/site-link';
import type { Metadata } from 'next';
import { takeLinkAction } from '@/app/sign-in-action';
import { currentActor, shown, siteWords } from '@/app/session';
import { isLinkGood } from '@/people/services/take-link';
import { UseLink } from '@/people/ui/sign-in-form';

export const generateMetadata = async (): Promise<Metadata> => ({
  title: (await siteWords())('signin.title'),
  robots: { index: false },
});

/** Where a mailed link leads. Looking at it uses nothing up: programs that read mail open links too. */
export default async function LinkPage({ params }: { params: Promise<{ token: string }> }) {
  const { token } = await params;
  const t = await siteWords();
  const isGood = await shown(isLinkGood(await currentActor(), token.slice(0, 100)));
  return (
    <div className="mx-auto w-full max-w-sm px-5 py-14">
      <h1 className="text-3xl">{isGood ? t('signin.link-title') : t('signin.link-expired')}</h1>
      {isGood ? (
        <UseLink t={t} action={takeLinkAction} token={token} />
      ) : (
        <>
          <p className="mt-3">{t('signin.link-expired-hint')}</p>
          <SiteLinkButton href="/sign-in" className="mt-5">
            {t('site.sign-in')}
          </SiteLinkButton>
        </>
      )}
    </div>
  );
}
