import type { Instant } from '@/core/instants';
import type { StoredBook } from '@/billing/store/book';
import type { Actor } from '@/platform/actor';
import type { Transaction } from '@/platform/store/db';
import type { Site } from '@/platform/store/site';

/** A member's book, locked until the transaction ends, at an instant of its mode's clock. */
export type OpenBook = {
  db: Transaction;
  /** In the mode of the book. */
  site: Site;
  actor: Actor;
  at: Instant;
  /** As it is after what has happened in this transaction. */
  stored: StoredBook;
};
