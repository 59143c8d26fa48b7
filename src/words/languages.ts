/** The languages in which members can read the site, by locale (BCP 47), each with its own name. */
export const LANGUAGES = {
  'en-GB': 'English (United Kingdom)',
  'en-US': 'English (United States)',
  'de-DE': 'Deutsch',
} as const;
export type Language = keyof typeof LANGUAGES;

export const isLanguage = (text: string): text is Language => Object.hasOwn(LANGUAGES, text);

/** The locale of dates in the Desk, which is English whatever the members read. */
export const deskLocale = (language: Language): Language => (language === 'en-US' ? 'en-US' : 'en-GB');
