import countries from 'i18n-iso-countries';

const codes = new Set(Object.keys(countries.getAlpha2Codes()));

/** Whether a code is a country of ISO 3166-1 alpha-2. */
export const isCountry = (code: string): boolean => codes.has(code);

const names = new Intl.DisplayNames('en-GB', { type: 'region' });
export const countryName = (code: string): string => (code ? (names.of(code) ?? code) : 'everywhere else');

/** Every country with its name, in the order of names. */
export function listCountries(): { code: string; name: string }[] {
  return [...codes]
    .map((code) => ({ code, name: countryName(code) }))
    .sort((a, b) => a.name.localeCompare(b.name, 'en'));
}
