import type { Language } from '@/words/languages';

/** PostgreSQL's text search configuration for the language of a site. */
export const searchLanguageOf = ({ language }: { language: Language }): string =>
  language.startsWith('de') ? 'german' : 'english';
