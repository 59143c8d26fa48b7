import type { Metadata } from 'next';
import { currentActor, shown, siteWords } from '@/app/session';
import { registering } from '@/checkout/services/registering';
import { SiteLink } from '@/kit/site-link';
import { searchOf, type Search } from '@/app/search';
import {
  askForCodeAction,
  askForPasskeyAction,
  signInAction,
  signInByPasskeyAction,
} from '@/app/sign-in-action';
import { safeReturn } from '@/platform/safe-return';
import { SignInByPasskey } from '@/people/ui/passkeys';
import { AskForCode, SignInForm } from '@/people/ui/sign-in-form';

export const generateMetadata = async (): Promise<Metadata> => ({
  title: (await siteWords())('signin.title'),
});

export default async function SignInPage({ searchParams }: { searchParams: Search }) {
  const t = await siteWords();
  const { isOpen } = await shown(registering(await currentActor()));
  const to = safeReturn((await searchOf(searchParams)).to ?? '/account');
  return (
    <div className="mx-auto w-full max-w-sm px-5 py-14">
      <h1 className="text-3xl">{t('signin.title')}</h1>
      <SignInForm t={t} action={signInAction} to={to} />
      <SignInByPasskey t={t} ask={askForPasskeyAction} signIn={signInByPasskeyAction} to={to} />
      <AskForCode t={t} action={askForCodeAction} to={to} />
      <p className="mt-6 text-muted">
        {t('signin.not-member')}{' '}
        <SiteLink href="/join" className="text-spruce underline">
          {t('signin.how-to-join')}
        </SiteLink>
        {isOpen && (
          <>
            {' · '}
            <SiteLink href="/register" className="text-spruce underline">
              {t('register.link')}
            </SiteLink>
          </>
        )}
      </p>
    </div>
  );
}
