import type { Metadata } from 'next';
import { takeLinkAction } from '@/app/sign-in-action';
import { isLinkGood } from '@/services/sign-in-link';
import { LinkButton } from '@/ui/kit/button';
import { UseLink } from '@/ui/site/sign-in-link';

export const metadata: Metadata = { title: 'Sign in', robots: { index: false } };

/** Where a mailed link leads. Looking at it uses nothing up: programs that read mail open links too. */
export default async function LinkPage({ params }: { params: Promise<{ token: string }> }) {
  const { token } = await params;
  const isGood = await isLinkGood(token);
  return (
    <div className="mx-auto w-full max-w-sm px-5 py-14">
      <h1 className="text-3xl">{isGood ? 'Sign in' : 'This link is over'}</h1>
      {isGood ? (
        <UseLink action={takeLinkAction} token={token} />
      ) : (
        <>
          <p className="mt-3">It has been used, or is too old. Ask for another; it takes a minute.</p>
          <LinkButton href="/sign-in" className="mt-5">
            Go to Sign in
          </LinkButton>
        </>
      )}
    </div>
  );
}
