/** Addresses from which on everything is a secret: it grants access, or acts for the person it was sent to. */
const SECRET =
  /^(\/(?:sign-in\/(?:link|code)|desk\/invite|pass|by-mail|feeds|api\/letters\/(?:seen|read)|(?:api\/)?mail-off)\/).+/;

/** An address for the log: without its query, and without secrets that grant access. */
export function pathForLog(url: string): string {
  const path = url.split('?')[0] ?? '';
  return path.replace(SECRET, '$1(left out)').slice(0, 300);
}
