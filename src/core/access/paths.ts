/**
 * The normal form of an address, or null where it is refused: encoded slashes and broken escapes are refused,
 * the rest is decoded once, dots resolved, slashes merged and the last one dropped, query and fragment left out.
 */
export function normalisePath(raw: string): string | null {
  const bare = raw.split(/[?#]/, 1)[0] ?? '';
  if (/%(2f|5c|00)/i.test(bare)) return null;
  let decoded: string;
  try {
    decoded = decodeURIComponent(bare);
  } catch {
    return null;
  }
  const parts: string[] = [];
  for (const part of decoded.split('/')) {
    if (part === '..') parts.pop();
    else if (part !== '' && part !== '.') parts.push(part);
  }
  return `/${parts.join('/')}`;
}

/**
 * How many literal characters of `pattern` match `path`, or null where it does not match.
 * "/folder/*" covers "/folder" and all below it; its literal length leaves out the star and its slash.
 */
export function matchPath(pattern: string, path: string): number | null {
  const folder = pattern.endsWith('/*');
  const literal = normalisePath(folder ? pattern.slice(0, -2) : pattern);
  const target = normalisePath(path);
  if (literal === null || target === null) return null;
  if (!folder) return literal === target ? literal.length : null;
  const prefix = literal === '/' ? '' : literal;
  return target === literal || target.startsWith(`${prefix}/`) ? prefix.length : null;
}
