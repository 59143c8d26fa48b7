'use client';

/** The same where even the frame around the pages failed: by itself, without our styles. */
export default function Failed({ error }: { error: Error & { digest?: string } }) {
  return (
    <html lang="en-GB">
      <body
        style={{ margin: 0, background: '#F6F3EC', color: '#1D2B2F', font: '18px/1.6 system-ui, sans-serif' }}
      >
        <main style={{ maxWidth: '36rem', margin: '0 auto', padding: '4rem 1.25rem' }}>
          <h1>Something went wrong</h1>
          <p>
            We couldn’t finish what you asked for. If you had just paid or saved something, we can’t tell from
            here whether it went through: look in your account before you try again. You will never be charged
            twice for the same thing.
          </p>
          <p>
            Use your browser’s Back button to return to what you typed, or{' '}
            {/* eslint-disable-next-line @next/next/no-html-link-for-pages -- the router may be what failed */}
            <a href="/account">open your account</a>.
          </p>
          {error.digest && (
            <p>If it happens again, tell the people who run this site this number: {error.digest}</p>
          )}
        </main>
      </body>
    </html>
  );
}
