import type { Metadata } from 'next';
import Link from 'next/link';
import { searchOf, type Search } from '@/app/search';
import { askForCodeAction, signInAction } from '@/app/sign-in-action';
import { safeReturn } from '@/platform/safe-return';
import { AskForCode, SignInForm } from '@/people/ui/sign-in-form';

export const metadata: Metadata = { title: 'Sign in' };

export default async function SignInPage({ searchParams }: { searchParams: Search }) {
  const to = safeReturn((await searchOf(searchParams)).to ?? '/account');
  return (
    <div className="mx-auto w-full max-w-sm px-5 py-14">
      <h1 className="text-3xl">Sign in</h1>
      <SignInForm action={signInAction} to={to} />
      <AskForCode action={askForCodeAction} to={to} />
      <p className="mt-6 text-muted">
        Not a member yet?{' '}
        <Link href="/join" className="text-spruce underline">
          See how to join
        </Link>
      </p>
    </div>
  );
}
