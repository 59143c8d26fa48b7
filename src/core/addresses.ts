/** What no address of ours holds, and browsers quietly drop or turn into something else: WHATWG URL, section 4.4. */

const CROOKED = /[\u0000-\u0020\u007f-\u00a0\u2028\u2029\\]/;

/** Whether a text is an address on this site, however a browser reads it. */
export function isPathHere(path: string): boolean {
  if (!path.startsWith('/') || CROOKED.test(path)) return false;
  const [before = ''] = path.split(/[?#]/);
  try {
    const { origin, pathname } = new URL(path, 'https://here.invalid');
    // After dots are resolved nothing may be left that begins like the name of another host.
    return origin === 'https://here.invalid' && !pathname.includes('//') && !before.includes('//');
  } catch {
    return false;
  }
}

/** Whether a link in a text may lead there: the web, an address here, a place on the page, or mail. */
export function isSafeHref(href: string): boolean {
  if (href.startsWith('#')) return !CROOKED.test(href);
  if (href.startsWith('/')) return isPathHere(href);
  if (CROOKED.test(href)) return false;
  try {
    const { protocol, hostname } = new URL(href);
    return protocol === 'mailto:' || ((protocol === 'https:' || protocol === 'http:') && hostname !== '');
  } catch {
    return false;
  }
}
