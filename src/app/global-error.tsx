'use client';

import { failureWords } from '@/words/failure';

/** The same where even the frame around the pages failed: by itself, without our styles. */
export default function Failed({ error }: { error: Error & { digest?: string } }) {
  const t = failureWords(typeof navigator === 'undefined' ? '' : navigator.language);
  return (
    <html lang={t.language}>
      <body
        style={{ margin: 0, background: '#F6F3EC', color: '#1D2B2F', font: '18px/1.6 system-ui, sans-serif' }}
      >
        <main style={{ maxWidth: '36rem', margin: '0 auto', padding: '4rem 1.25rem' }}>
          <h1>{t('failure.title')}</h1>
          <p>{t('failure.words')}</p>
          <p>
            {t('failure.back')}{' '}
            {/* oxlint-disable-next-line nextjs/no-html-link-for-pages -- the router may be what failed */}
            <a href="/account">{t('failure.account')}</a>
          </p>
          {error.digest && <p>{t('failure.number', { number: error.digest })}</p>}
        </main>
      </body>
    </html>
  );
}
