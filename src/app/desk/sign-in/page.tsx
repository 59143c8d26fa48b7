import type { Metadata } from 'next';
import { Link } from '@/kit/link';
import { redirect } from 'next/navigation';
import { searchOf, type Search } from '@/app/search';
import { currentMember, currentSite, deskWords } from '@/app/session';
import {
  askForCodeAction,
  askForPasskeyAction,
  signInAction,
  signInByPasskeyAction,
} from '@/app/sign-in-action';
import { safeReturn } from '@/platform/safe-return';
import { SignInByPasskey } from '@/people/ui/passkeys';
import { AskForCode, SignInForm } from '@/people/ui/sign-in-form';
import { Sentence } from '@/kit/sentence';
import { desk } from '@/words/desk';

export const metadata: Metadata = { title: desk('desk-frame.desk-sign-in') };

export default async function DeskSignInPage({ searchParams }: { searchParams: Search }) {
  const t = await deskWords();
  const to = safeReturn((await searchOf(searchParams)).to ?? '/desk');
  const [site, member] = [await currentSite(), await currentMember()];
  if (member?.staffRole) redirect(to.startsWith('/desk') && !to.startsWith('/desk/sign-in') ? to : '/desk');
  return (
    <main className="grid min-h-dvh place-items-center bg-night px-5 text-on-night">
      <div className="w-full max-w-sm rounded-xl bg-paper p-8 text-ink">
        <h1 className="text-3xl">{site.name}</h1>
        <p className="text-muted">{desk('desk-frame.the-desk-for-those-who')}</p>
        {member && (
          <p className="mt-4 rounded-md bg-metered-wash px-3 py-2 text-metered">
            {member.lacksProof ? (
              <Sentence
                words={desk('desk-frame.lacks-proof')}
                parts={{
                  link: (words) => (
                    <Link href="/account/settings#passkeys" className="underline">
                      {words}
                    </Link>
                  ),
                }}
              />
            ) : (
              desk('desk-frame.youre-signed-in-as-who', { name: member.name || member.email })
            )}
          </p>
        )}
        <SignInForm t={t} action={signInAction} to={to} />
        <SignInByPasskey t={t} ask={askForPasskeyAction} signIn={signInByPasskeyAction} to={to} />
        <AskForCode t={t} action={askForCodeAction} to={to} />
      </div>
    </main>
  );
}
