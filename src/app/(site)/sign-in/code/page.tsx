import type { Metadata } from 'next';
import { redirect } from 'next/navigation';
import { currentActor, siteWords } from '@/app/session';
import { enterCodeAction, sendCodeAgainAction } from '@/app/sign-in-action';
import { codeAsked } from '@/people/services/enter-code';
import { CodeForm } from '@/people/ui/code-form';

export const generateMetadata = async (): Promise<Metadata> => ({
  title: (await siteWords())('signin.check-email'),
  robots: { index: false },
});

/** Takes the code that was mailed to whatever address this browser named. */
export default async function CodePage() {
  const actor = await currentActor();
  const asked = await codeAsked(actor);
  if (!asked.ok) redirect(actor.memberId ? '/account' : '/sign-in');
  const t = await siteWords();
  const { email, purpose } = asked.value;
  return (
    <div className="mx-auto w-full max-w-md px-5 py-14">
      <h1 className="text-4xl">{t('signin.check-email')}</h1>
      <p className="mt-3 text-lg break-words">
        {purpose === 'sign-in' ? t('signin.code-if', { email }) : t('signin.code-sent', { email })}
      </p>
      <CodeForm
        t={t}
        action={enterCodeAction}
        again={sendCodeAgainAction}
        back={purpose === 'join' ? '/join' : purpose === 'sign-in' ? '/sign-in' : '/account/settings'}
      />
    </div>
  );
}
