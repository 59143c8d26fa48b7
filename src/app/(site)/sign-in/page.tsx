import type { Metadata } from 'next';
import Link from 'next/link';
import { mailLinkAction, signInAction } from '@/app/sign-in-action';
import { SignInForm } from '@/ui/site/sign-in-form';
import { AskForLink } from '@/ui/site/sign-in-link';

export const metadata: Metadata = { title: 'Sign in' };

export default async function SignInPage({ searchParams }: { searchParams: Promise<{ to?: string }> }) {
  const { to } = await searchParams;
  return (
    <div className="mx-auto w-full max-w-sm px-5 py-14">
      <h1 className="text-3xl">Sign in</h1>
      <SignInForm action={signInAction} to={to ?? '/account'} />
      <AskForLink action={mailLinkAction} to={to ?? '/account'} />
      <p className="mt-6 text-muted">
        Not a member yet?{' '}
        <Link href="/join" className="text-spruce underline">
          See how to join.
        </Link>
      </p>
    </div>
  );
}
