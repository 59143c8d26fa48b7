'use client';

import { Button } from '@/kit/button';
import { SiteLinkButton } from '@/kit/site-link';
import { failureWords } from '@/words/failure';

/** What is known where a page failed: it was only being shown, so nothing was changed by it. */
export default function Failed({ error, reset }: { error: Error & { digest?: string }; reset: () => void }) {
  const t = failureWords(typeof document === 'undefined' ? '' : document.documentElement.lang);
  return (
    <main className="mx-auto max-w-prose px-5 py-16">
      <h1 className="text-3xl">{t('failure.title')}</h1>
      <p className="mt-3 text-lg">{t('failure.words')}</p>
      <div className="mt-6 flex flex-wrap gap-3">
        <Button onClick={reset}>{t('failure.again')}</Button>
        <SiteLinkButton href="/account" look="quiet">
          {t('failure.account')}
        </SiteLinkButton>
      </div>
      {error.digest && <p className="mt-6 text-muted">{t('failure.number', { number: error.digest })}</p>}
    </main>
  );
}
