import countries from 'i18n-iso-countries';

const codes = new Set(Object.keys(countries.getAlpha2Codes()));

/** Whether a code is a country of ISO 3166-1 alpha-2. */
export const isCountry = (code: string): boolean => codes.has(code);

/** Every country with its name in the language of a locale, in the order of names. */
export function listCountries(locale: string): { code: string; name: string }[] {
  const names = new Intl.DisplayNames(locale, { type: 'region' });
  return [...codes]
    .map((code) => ({ code, name: names.of(code) ?? code }))
    .sort((a, b) => a.name.localeCompare(b.name, locale));
}
