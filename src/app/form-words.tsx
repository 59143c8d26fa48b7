import type { ReactNode } from 'react';
import { FormWordsProvider } from '@/kit/action-form';
import type { Words } from '@/words/words';

/** What every form inside can say, in the language of the pages around it. */
export function FormWordsOf({ t, children }: { t: Words; children: ReactNode }) {
  const words = {
    lost: t('form.lost'),
    checkOne: t('form.check-marked', { count: 1 }),
    checkMany: t('form.check-marked', { count: 2 }),
  };
  return <FormWordsProvider value={words}>{children}</FormWordsProvider>;
}
