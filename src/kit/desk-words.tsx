'use client';

import { createContext, use, useMemo } from 'react';
import { deskWordsOf } from '@/words/desk';
import type { Writing } from '@/words/formats';
import type { Words } from '@/words/speak';

const WritingContext = createContext<Writing>({ language: 'en-GB', zone: 'UTC' });

/** How the site writes money and dates, for what the Desk computes in the browser. */
export const DeskWordsProvider = WritingContext.Provider;

/** How the Desk speaks, in the browser. Only the Desk loads these sentences. */
export function useDeskWords(): Words {
  const { language, zone } = use(WritingContext);
  return useMemo(() => deskWordsOf({ language, zone }), [language, zone]);
}
