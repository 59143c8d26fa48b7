/** Addresses from which on everything is a secret that grants access. */
const SECRET = /^(\/(?:sign-in\/(?:link|code)|feeds)\/).+/;

/** An address for the log: without its query, and without secrets that grant access. */
export function pathForLog(url: string): string {
  const path = url.split('?')[0] ?? '';
  return path.replace(SECRET, '$1(left out)').slice(0, 300);
}
