import type { Metadata } from 'next';
import { LinkButton } from '@/kit/button';

export const metadata: Metadata = { title: 'Use the code', robots: { index: false } };

export default function OtherBrowserPage() {
  return (
    <div className="mx-auto w-full max-w-md px-5 py-14">
      <h1 className="text-4xl">This link can’t be used here</h1>
      <p className="mt-3 text-lg">
        It works once, for ten minutes, in the browser where you asked for it. Go back to that browser and
        type the six-digit code from the same email, or request a new one here.
      </p>
      <LinkButton href="/sign-in" className="mt-6">
        Sign in
      </LinkButton>
    </div>
  );
}
