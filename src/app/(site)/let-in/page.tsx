import type { Metadata } from 'next';
import { redirect } from 'next/navigation';
import { frameAsked } from '@/access/services/embed';
import { searchOf, type Search } from '@/app/search';
import { currentActor, siteWords } from '@/app/session';
import { ActionForm, FormMessage, SubmitButton } from '@/kit/action-form';
import { SiteLinkButton } from '@/kit/site-link';
import { letFrameInAction } from './actions';

export const generateMetadata = async (): Promise<Metadata> => ({
  title: (await siteWords())('frame.title'),
  robots: { index: false },
});

/** The window that a frame of another site opens: its reader signs in, and says that the item may be shown there. */
export default async function LetInPage({ searchParams }: { searchParams: Search }) {
  const { ask = '' } = await searchOf(searchParams);
  const t = await siteWords();
  const found = await frameAsked(await currentActor(), ask.slice(0, 1_000));
  if (!found.ok)
    return (
      <div className="mx-auto w-full max-w-md px-5 py-14">
        <h1 className="text-3xl">{t('frame.too-old-title')}</h1>
        <p className="mt-3">{t('frame.too-old-hint')}</p>
      </div>
    );
  const { title, path, letters, isSignedIn, isOpen } = found.value;
  if (!isSignedIn) redirect(`/sign-in?to=${encodeURIComponent(`/let-in?ask=${ask}`)}`);
  return (
    <div className="mx-auto w-full max-w-md px-5 py-14">
      <h1 className="text-3xl">{isOpen ? t('frame.title') : t('frame.not-open', { title })}</h1>
      {isOpen ? (
        <ActionForm action={letFrameInAction} className="mt-4 grid gap-4">
          <input type="hidden" name="ask" value={ask} />
          <p>{t('frame.words', { title })}</p>
          <p className="figures font-semibold">{t('frame.letters', { letters })}</p>
          <SubmitButton busy={t('signin.opening')} className="w-fit px-8">
            {t('frame.allow')}
          </SubmitButton>
          <FormMessage />
        </ActionForm>
      ) : (
        <SiteLinkButton href={path} className="mt-5">
          {t('frame.see-here')}
        </SiteLinkButton>
      )}
    </div>
  );
}
