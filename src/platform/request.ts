import { AsyncLocalStorage } from 'node:async_hooks';
import type { MemberId } from '@/core/ids';

/** What the server that admits requests and the pages that answer them tell each other about one request. */
export type InHand = {
  /** Code of ours has taken it up: what goes wrong from now on is our failure. */
  isTakenUp: boolean;
  /** What a browser sent could not be read as the form it said it was: 400, RFC 9110 15.5.1. */
  isUnreadable: boolean;
  /** What was read once for all of the request. */
  read?: Map<string, Promise<unknown>>;
  /** The member who asks, and the name of all to whom rules say the same: what is shared is shared among those alone. */
  alike?: { memberId: MemberId; name: string };
  /**
   * Whether the answer is the same for every visitor who carries nothing of ours, or for all members who are alike, and until
   * when, in ms of real time. Unless a page says so, it is not; and where anything in it says otherwise, it is not either.
   */
  share: { until?: number; isRefused?: true; isUnversioned?: true; commentsOf?: string };
  /** The origins whose pages may show the answer in a frame; none where it is left out. */
  ancestors?: readonly string[];
  /** A cookie that is sent along, where a page that is being made could not set it. */
  cookie?: string;
};

// The pages are built apart from the server, and have modules of their own: the process is what they share.
const KEY = Symbol.for('nest-key: request in hand');
const shared = globalThis as { [KEY]?: AsyncLocalStorage<InHand> };
const inHand = (shared[KEY] ??= new AsyncLocalStorage<InHand>());

export const answering = <T>(request: InHand, answer: () => T): T => inHand.run(request, answer);
export const takeUp = (): void => {
  const request = inHand.getStore();
  if (request) request.isTakenUp = true;
};

/** Thrown where an action gets something else than a form. */
export class UnreadableForm extends Error {
  override name = 'UnreadableForm';
}

/** Notes that an action failed; whether it was because of what it was sent. */
export function noteFailedAction(error: unknown): boolean {
  const request = inHand.getStore();
  if (!request || (request.isTakenUp && !isUnreadableForm(error))) return false;
  request.isUnreadable = true;
  return true;
}

// By its name: each build has a class of its own.
const isUnreadableForm = (error: unknown): boolean =>
  error instanceof Error && error.name === 'UnreadableForm';

/** What is read once in a request, however many ask for it; outside of one, each time. */
export function oncePerRequest<T>(name: string, read: () => Promise<T>): Promise<T> {
  const request = inHand.getStore();
  if (!request) return read();
  const known = (request.read ??= new Map<string, Promise<unknown>>());
  if (!known.has(name)) known.set(name, read());
  return known.get(name) as Promise<T>;
}

/** After something was written: what was read before may no longer be so. */
export const forgetRead = (): void => inHand.getStore()?.read?.clear();

/** Whether what a member is answered with can be kept for others who are alike. */
export const hasAlike = (memberId: string): boolean => inHand.getStore()?.alike?.memberId === memberId;

/** Says that the answer is the same for all who are alike, until `until` in ms of real time at most. */
export function shareUntil(until: number): void {
  const share = inHand.getStore()?.share;
  if (share) share.until = Math.min(until, share.until ?? Infinity);
}

/** Says that the answer is for the one who asks alone, whatever else says that it can be shared. */
export function shareNot(): void {
  const share = inHand.getStore()?.share;
  if (share) share.isRefused = true;
}

/** Sends a cookie along with the page that is being made; it is for the one who asks alone. */
export function setCookie(cookie: string): void {
  const request = inHand.getStore();
  if (!request) return;
  request.cookie = cookie;
  request.share.isRefused = true;
}

/** Says that pages of some origins may show the answer in a frame. */
export function frameBy(origins: readonly string[]): void {
  const request = inHand.getStore();
  if (request) request.ancestors = origins;
}

/** Says that something in the answer may change while the version of the site stays: it can be shared for a moment alone. */
export function keepBriefly(): void {
  const share = inHand.getStore()?.share;
  if (share) share.isUnversioned = true;
}

/**
 * Says that the comments of an item are in the answer. They may change while the version stays, and to those who have written
 * one it shows more: it is shared for a moment, and among all others alone.
 */
export function keepForNonWriters(itemId: string): void {
  keepBriefly();
  const share = inHand.getStore()?.share;
  if (share) share.commentsOf = itemId;
}
