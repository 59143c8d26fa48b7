import { oncePerRequest, type InHand } from './request';
import { pool } from './store/db';
import { findVersion } from './store/version';

type Book = { version: bigint; value: Promise<unknown> };

/** What was read, by its name, for each database that this process asks. */
const shelves = new WeakMap<object, Map<string, Book>>();

/** Old lists of a full site are not kept for ever: more names than this, and the one that was asked for longest ago goes. */
const MOST_NAMES = 200;

const VERSION = 'site version';

/** The site's version, where it has come along with something else that was read first in a request. */
export const noteVersion = (version: bigint): void =>
  void oncePerRequest(VERSION, () => Promise.resolve(version));

/** The version of the site by which a request was answered; undefined where none was read, or something was written since. */
export const versionIn = (request: InHand): Promise<bigint> | undefined =>
  request.read?.get(VERSION) as Promise<bigint> | undefined;

/**
 * What is the same for all who ask, until something of it changes: read once for each version of the site. The version is
 * asked for with every request, so that a change counts from the next one on, whichever process made it. It is read before
 * the value is, so the value is never older than its version says. What is returned is shared: it cannot be changed.
 */
export async function shelved<T>(name: string, read: () => Promise<T>): Promise<T> {
  const version = await oncePerRequest(VERSION, () => findVersion(pool()));
  const shelf = shelves.get(pool()) ?? new Map<string, Book>();
  shelves.set(pool(), shelf);
  const known = shelf.get(name);
  if (known && known.version >= version) {
    putBack(shelf, name, known);
    return known.value as Promise<T>;
  }
  const value = read().then(frozen);
  putBack(shelf, name, { version, value });
  const [oldest] = shelf.keys();
  if (shelf.size > MOST_NAMES && oldest !== undefined) shelf.delete(oldest);
  value.catch(() => shelf.get(name)?.value === value && shelf.delete(name));
  return value;
}

/** At the end, where what was asked for last is. */
function putBack(shelf: Map<string, Book>, name: string, book: Book): void {
  shelf.delete(name);
  shelf.set(name, book);
}

function frozen<T>(value: T): T {
  if (typeof value !== 'object' || value === null || Object.isFrozen(value)) return value;
  Object.freeze(value);
  for (const part of Object.values(value)) frozen(part);
  return value;
}
