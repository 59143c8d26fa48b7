import type { Metadata } from 'next';
import { redirect } from 'next/navigation';
import { beginAccountAction } from '@/app/begin-account-action';
import { currentActor, shown, siteWords } from '@/app/session';
import { startWords } from '@/app/start-words';
import { registering } from '@/checkout/services/registering';
import { StartForm } from '@/checkout/ui/start-form';
import { SiteLinkButton } from '@/kit/site-link';

export const generateMetadata = async (): Promise<Metadata> => ({
  title: (await siteWords())('register.title'),
});

/** Where people get an account without choosing what to join: with the free offer that the owner has set, or none. */
export default async function RegisterPage() {
  const [t, actor] = [await siteWords(), await currentActor()];
  const { offerId, isOpen, stamp } = await shown(registering(actor));
  if (actor.memberId) redirect('/account');
  if (offerId) redirect(`/join/${offerId}`);
  return (
    <div className="mx-auto w-full max-w-sm px-5 py-14">
      <h1 className="text-3xl">{t('register.title')}</h1>
      {isOpen ? (
        <div className="mt-5">
          <StartForm
            words={startWords(t, 'register.title')}
            action={beginAccountAction}
            offerId=""
            to="/account"
            name=""
            code=""
            stamp={stamp}
            signInHref="/sign-in"
          />
        </div>
      ) : (
        <>
          <p className="mt-4">{t('register.closed')}</p>
          <SiteLinkButton href="/join" className="mt-5">
            {t('signin.how-to-join')}
          </SiteLinkButton>
        </>
      )}
    </div>
  );
}
