import type { IncomingMessage } from 'node:http';
import { createIsbotFromList, isbotPatterns, list } from 'isbot';

/** A browser without a window is still a person's, who tries the site by it; whom robots belong to, they say themselves. */
const WINDOWLESS = new Set(isbotPatterns('HeadlessChrome/1'));
const isRobot = createIsbotFromList(list.filter((pattern) => !WINDOWLESS.has(pattern)));

/**
 * Whether a person opens a page with a request: not what is fetched ahead (Sec-Purpose, Fetch 2.2.7), not a frame, a picture
 * or a script of another page (Sec-Fetch-Dest), no HEAD, and no robot that says it is one.
 */
export function isPersonsView({ method, headers }: IncomingMessage): boolean {
  if (method !== 'GET') return false;
  const purposes = [headers['sec-purpose'], headers.purpose, headers['x-purpose'], headers['x-moz']].join(
    ' ',
  );
  if (/prefetch|prerender|preview/i.test(purposes) || headers['next-router-prefetch']) return false;
  const dest = headers['sec-fetch-dest'];
  if (typeof dest === 'string' && dest !== 'document' && !(dest === 'empty' && headers.rsc)) return false;
  const agent = headers['user-agent'];
  return Boolean(agent) && !isRobot(agent ?? '');
}
