'use client';

import { Button, LinkButton } from '@/kit/button';

/** What is known where a page failed: it was only being shown, so nothing was changed by it. */
export default function Failed({ error, reset }: { error: Error & { digest?: string }; reset: () => void }) {
  return (
    <main className="mx-auto max-w-prose px-5 py-16">
      <h1 className="text-3xl">This page couldn’t be shown</h1>
      <p className="mt-3 text-lg">
        The fault is ours. If you were only reading, nothing was changed. If you had just paid or saved
        something, we can’t tell from here whether it went through: look in your account before you try again.
        You will never be charged twice for the same thing.
      </p>
      <div className="mt-6 flex flex-wrap gap-3">
        <Button onClick={reset}>Try again</Button>
        <LinkButton href="/account" look="quiet">
          Your account
        </LinkButton>
      </div>
      {error.digest && (
        <p className="mt-6 text-muted">
          If it happens again, tell the people who run this site this number: {error.digest}
        </p>
      )}
    </main>
  );
}
