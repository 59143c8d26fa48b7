import type { Metadata } from 'next';
import { isPassLinkGood } from '@/access/services/get-pass';
import { takeReadLinkAction } from '@/app/pass-actions';
import { currentActor, shown, siteWords } from '@/app/session';
import { SiteLinkButton } from '@/kit/site-link';
import { UseLink } from '@/people/ui/sign-in-form';

export const generateMetadata = async (): Promise<Metadata> => ({
  title: (await siteWords())('pass.link-title'),
  robots: { index: false },
});

/** Where a mailed link leads that proves an address. Looking at it uses nothing up: programs that read mail open links too. */
export default async function PassLinkPage({ params }: { params: Promise<{ token: string }> }) {
  const token = (await params).token.slice(0, 100);
  const t = await siteWords();
  const isGood = await shown(isPassLinkGood(await currentActor(), token));
  return (
    <div className="mx-auto w-full max-w-sm px-5 py-14">
      <h1 className="text-3xl">{isGood ? t('pass.link-title') : t('signin.link-expired')}</h1>
      {isGood ? (
        <UseLink t={t} action={takeReadLinkAction} token={token} />
      ) : (
        <>
          <p className="mt-3">{t('pass.link-expired-hint')}</p>
          <SiteLinkButton href="/" className="mt-5">
            {t('site.to-front')}
          </SiteLinkButton>
        </>
      )}
    </div>
  );
}
