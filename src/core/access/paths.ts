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

/** A cover by address, taken apart once: "/about", "/folder/*", which covers "/folder" too, or a pattern with stars. */
export type PathPattern = {
  kind: 'address' | 'folder' | 'pattern';
  /** Up to the first star, without the slash before it. */
  literal: string;
  parts: string[];
};

const patterns = new Map<string, PathPattern | null>();
const MOST_PATTERNS = 10_000;

/** Null where the pattern is refused as an address would be. */
export function readPattern(pattern: string): PathPattern | null {
  const known = patterns.get(pattern);
  if (known !== undefined) return known;
  if (patterns.size >= MOST_PATTERNS) patterns.clear();
  const read = takeApart(pattern);
  patterns.set(pattern, read);
  return read;
}

function takeApart(pattern: string): PathPattern | null {
  const isFolder = pattern.indexOf('*') === pattern.length - 1 && pattern.endsWith('/*');
  const whole = normalisePath(isFolder ? pattern.slice(0, -2) : pattern);
  if (whole === null) return null;
  const parts = whole.split('/').slice(1);
  if (isFolder) return { kind: 'folder', literal: whole === '/' ? '' : whole, parts };
  const star = whole.indexOf('*');
  if (star === -1) return { kind: 'address', literal: whole, parts };
  return { kind: 'pattern', literal: whole.slice(0, star).replace(/\/$/, ''), parts };
}

type Target = { raw: string; path: string | null; parts: string[] };
/** The address that was matched last: of many items, each is held against all patterns before the next. */
let last: Target = { raw: '/', path: '/', parts: [] };

function targetOf(raw: string): Target {
  if (last.raw === raw) return last;
  const path = normalisePath(raw);
  last = { raw, path, parts: path === null || path === '/' ? [] : path.split('/').slice(1) };
  return last;
}

/**
 * How many literal characters of `pattern` match `path`, or null where it does not match. In a pattern "*" matches any
 * characters within one part, and a part "**" any parts, none included.
 */
export function matchPath(pattern: string, path: string): number | null {
  const read = readPattern(pattern);
  const { path: target, parts: targetParts } = targetOf(path);
  if (read === null || target === null || !target.startsWith(read.literal)) return null;
  const { kind, literal, parts } = read;
  const isMatch =
    kind === 'address'
      ? literal === target
      : kind === 'folder'
        ? target === (literal || '/') || target.startsWith(`${literal}/`)
        : matchParts(parts, targetParts);
  return isMatch ? literal.length : null;
}

/** Part by part; where a star took too little, it is given one more: never more steps than the product of both lengths. */
function matchParts(pattern: string[], path: string[]): boolean {
  return matchStars(
    pattern.length,
    path.length,
    (n) => pattern[n] === '**',
    (n, m) => matchPart(pattern[n] ?? '', path[m] ?? ''),
  );
}

const matchPart = (pattern: string, part: string): boolean =>
  matchStars(
    pattern.length,
    part.length,
    (n) => pattern[n] === '*',
    (n, m) => pattern[n] === part[m],
  );

/** Matches a row with stars against a row without, from left to right; only the last star is ever gone back to. */
function matchStars(
  patternLength: number,
  length: number,
  isStar: (n: number) => boolean,
  isSame: (n: number, m: number) => boolean,
): boolean {
  let [n, m, star, after] = [0, 0, -1, 0];
  while (m < length) {
    if (n < patternLength && isStar(n)) [star, after, n] = [n, m, n + 1];
    else if (n < patternLength && isSame(n, m)) [n, m] = [n + 1, m + 1];
    else if (star >= 0) [n, m, after] = [star + 1, after + 1, after + 1];
    else return false;
  }
  while (n < patternLength && isStar(n)) n++;
  return n === patternLength;
}
