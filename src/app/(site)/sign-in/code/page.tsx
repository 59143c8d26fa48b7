import type { Metadata } from 'next';
import { redirect } from 'next/navigation';
import { currentActor } from '@/app/session';
import { enterCodeAction, sendCodeAgainAction } from '@/app/sign-in-action';
import { codeAsked } from '@/people/services/enter-code';
import { CodeForm } from '@/people/ui/code-form';

export const metadata: Metadata = { title: 'Check your email', robots: { index: false } };

/** Where the code is typed that was mailed to whatever address this browser named. */
export default async function CodePage() {
  const actor = await currentActor();
  const asked = await codeAsked(actor);
  if (!asked.ok) redirect(actor.memberId ? '/account' : '/sign-in');
  const { email, purpose } = asked.value;
  return (
    <div className="mx-auto w-full max-w-md px-5 py-14">
      <h1 className="text-4xl">Check your email</h1>
      <p className="mt-3 text-lg">
        {purpose === 'sign-in' ? 'If it has an account, we’ve' : 'We’ve'} emailed a six-digit code to{' '}
        <b className="break-words">{email}</b>. Type it here to continue.
      </p>
      <CodeForm
        action={enterCodeAction}
        again={sendCodeAgainAction}
        back={purpose === 'join' ? '/join' : purpose === 'sign-in' ? '/sign-in' : '/account/settings'}
      />
    </div>
  );
}
