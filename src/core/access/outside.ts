import type { ItemId } from '../ids';
import type { Decision } from './decide';
import type { ItemFacts } from './facts';
import { normalisePath } from './paths';

/** What rules know of a place outside: its address alone. */
export const outsideItem = (path: string): ItemFacts => ({
  id: `outside ${path}` as ItemId,
  type: 'outside',
  path,
  ancestors: [],
  categories: [],
  tags: [],
  publishedAt: null,
});

/**
 * The addresses under which rules judge a request: as it was asked for and as it is served, which a server may have made another
 * of. Null where one of them cannot be read in one way alone: then nobody is let in.
 */
export function outsidePaths(prefix: string, raw: string, served: string): string[] | null {
  const paths = [raw.split(/[?#]/, 1)[0] ?? '', served].map((path) => {
    const normal = path.startsWith('/') ? normalisePath(path) : null;
    return normal === null ? null : normalisePath(prefix + normal);
  });
  return paths.includes(null) ? null : [...new Set(paths as string[])];
}

const ORDER: Record<Decision['state'], number> = { open: 0, metered: 1, later: 2, ended: 3, closed: 4 };

/** The strictest of some decisions; there is one at least. */
export const strictest = <T extends { decision: Decision }>(all: T[]): T | undefined =>
  [...all].sort((one, other) => ORDER[other.decision.state] - ORDER[one.decision.state])[0];
