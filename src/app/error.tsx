'use client';

import { Button } from '@/ui/kit/button';

export default function Failed({ error, reset }: { error: Error & { digest?: string }; reset: () => void }) {
  return (
    <main className="mx-auto max-w-prose px-5 py-16">
      <h1 className="text-3xl">Something went wrong here</h1>
      <p className="mt-2 text-muted">
        It is our fault, not yours, and nothing was half-saved. Try again; if it comes back, tell the people
        who run the site{error.digest ? ` this number: ${error.digest}` : ''}.
      </p>
      <Button className="mt-5" onClick={reset}>
        Try again
      </Button>
    </main>
  );
}
