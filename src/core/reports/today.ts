import type { Instant } from '../instants';

/** A payment that succeeded: minor units, by the site's clock. */
export type Paid = { at: Instant; amount: number; currency: string };

/** What has really happened on the way to a first member. Null, false and 0: not yet. */
export type Trail = {
  gateway: { label: string; isHeard: boolean } | null;
  tiers: { onSale: number; all: number };
  /** Published items that turn a visitor away. */
  closed: number;
  hasJoinInMenu: boolean;
  /** The last complete leak check that found nothing. */
  checkedAt: Instant | null;
  /** Whether the last complete one found something. */
  hasLeaks: boolean;
  purchase: Paid | null;
  renewal: Paid | null;
  sender: { address: string; sentAt: Instant | null };
  /** The pages that the law asks for which someone has written something in. */
  legal: { written: string[]; all: number };
};

export type Sum = { currency: string; amount: number };
/**
 * Something that waits for staff; each has a list of its own. `name`: of the one it is about, where it is one alone. `sums`:
 * what the next tries are for. `next`: when the first of them is.
 */
export type Need = { count: number } & (
  | { kind: 'disputed'; name: string }
  | { kind: 'failed'; name: string; sums: Sum[]; next: Instant | null }
  | {
      kind:
        | 'unmatched'
        | 'refunds-to-send'
        | 'expiring'
        | 'leaks'
        | 'warnings'
        | 'comments'
        | 'messages'
        | 'books';
    }
  | { kind: 'awaited' }
);

/** How an account's books compared with the gateway's when that was last looked at; real time. */
export type BooksCompared = { label: string; isEqual: boolean; at: Instant };

/** What has checked itself: the leaks of the last complete check, and the books. */
export type ChecksRan = {
  leaks: { at: Instant; found: number; addresses: number; viewpoints: number } | null;
  books: BooksCompared[];
};
