import type { Metadata } from 'next';
import { takeLinkAction } from '@/app/sign-in-action';
import { currentActor, shown } from '@/app/session';
import { isLinkGood } from '@/people/services/take-link';
import { LinkButton } from '@/kit/button';
import { UseLink } from '@/people/ui/sign-in-form';

export const metadata: Metadata = { title: 'Sign in', robots: { index: false } };

/** Where a mailed link leads. Looking at it uses nothing up: programs that read mail open links too. */
export default async function LinkPage({ params }: { params: Promise<{ token: string }> }) {
  const { token } = await params;
  const isGood = await shown(isLinkGood(await currentActor(), token.slice(0, 100)));
  return (
    <div className="mx-auto w-full max-w-sm px-5 py-14">
      <h1 className="text-3xl">{isGood ? 'Continue to checkout' : 'This link has expired'}</h1>
      {isGood ? (
        <UseLink action={takeLinkAction} token={token} />
      ) : (
        <>
          <p className="mt-3">It was used or is too old. Sign in to continue.</p>
          <LinkButton href="/sign-in" className="mt-5">
            Sign in
          </LinkButton>
        </>
      )}
    </div>
  );
}
