import type { Metadata } from 'next';
import { redirect } from 'next/navigation';
import { searchOf, type Search } from '@/app/search';
import { currentActor, shown, siteWords } from '@/app/session';
import { enterOneTimeAction } from '@/app/sign-in-action';
import { ActionForm, FormMessage, SubmitButton } from '@/kit/action-form';
import { TextField } from '@/kit/field';
import { oneTimeAsked } from '@/people/services/one-time-codes';
import { safeReturn } from '@/platform/safe-return';

export const generateMetadata = async (): Promise<Metadata> => ({
  title: (await siteWords())('one-time.code'),
  robots: { index: false },
});

/** The second step of signing in, for who has one-time codes. */
export default async function OneTimePage({ searchParams }: { searchParams: Search }) {
  const actor = await currentActor();
  const to = safeReturn((await searchOf(searchParams)).to ?? '/desk');
  if (!(await shown(oneTimeAsked(actor)))) redirect(actor.memberId ? to : '/sign-in');
  const t = await siteWords();
  return (
    <div className="mx-auto w-full max-w-md px-5 py-14">
      <h1 className="text-4xl">{t('one-time.code')}</h1>
      <p className="mt-3 text-lg">{t('one-time.enter')}</p>
      <ActionForm action={enterOneTimeAction} label={t('one-time.code')} className="mt-6 grid gap-4">
        <FormMessage />
        <input type="hidden" name="to" value={to} />
        <TextField
          name="code"
          label={t('one-time.code')}
          autoComplete="one-time-code"
          maxLength={40}
          className="max-w-sm"
          hint={t('one-time.lost')}
          autoFocus
          required
        />
        <SubmitButton busy={t('signin.checking')} className="min-h-12 w-fit px-8 text-base">
          {t('signin.continue')}
        </SubmitButton>
      </ActionForm>
    </div>
  );
}
