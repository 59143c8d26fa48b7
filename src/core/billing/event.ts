import type { Instant } from '../calendar';
import type { Book, Discount, Method, Track } from './book';
import type { Buying } from './buying';
import type { Answer } from './charging';
import type { Submitted } from './checkout';
import type { Given } from './giving';

/** The subscription that a person or the clock means. Not named: the one that runs, in a book of one ladder. */
type Of = { subscription?: string };

/** What a person, the clock or a gateway does. Ids are those of the book. */
export type Event =
  | ({ do: 'join'; offer: string; discount?: Discount | null; method?: Method | null } & Partial<Track>)
  | ({ do: 'submit' } & Submitted)
  /** At the wallet's page; with its first bill, where something was due. */
  | { do: 'approved'; checkout: string; bill: { ref: string; code?: string } | null }
  | { do: 'not-approved'; checkout: string }
  /** A checkout, or a first payment that was never made. */
  | { do: 'expire'; checkout?: string }
  /** What has fallen due is done. */
  | ({ do: 'due' } & Of)
  /** The answer to an ask. */
  | ({ do: 'paid'; charge: string } & Answer)
  | ({ do: 'declined'; charge: string } & Answer)
  /** After it was declined. Not named: what was declined last. */
  | ({ do: 'late-success'; charge?: string } & Answer)
  /** Money for what can begin no more. */
  | ({ do: 'unusable'; charge: string } & Answer)
  /** A wallet has billed by itself. */
  | { do: 'billed'; subscription: string; ref: string; code?: string }
  | ({ do: 'pay-now' } & Of)
  | { do: 'method'; subscription: string; method: Method }
  | ({ do: 'cancel' } & Of)
  | ({ do: 'cancel-now' } & Of)
  /** By staff: also what is kept for good. */
  | { do: 'take-away'; subscription: string }
  | ({ do: 'undo' } & Of)
  | ({ do: 'pause' } & Of)
  | ({ do: 'resume' } & Of)
  | ({ do: 'renew'; method?: Method | null } & Of)
  | ({ do: 'quote'; to: string } & Of)
  /** `quote`: as it was quoted; `method` false: no payment method is given. */
  | ({ do: 'switch'; to: string; quote?: boolean; method?: Method | null | false } & Of)
  | ({ do: 'take-back' } & Of)
  | ({ do: 'move'; to: string } & Of)
  | {
      do: 'refund';
      payment?: string;
      amount: number | 'all';
      access: 'take' | 'keep';
      id?: string;
      reason?: string;
    }
  | { do: 'refunded'; refund: string; ref?: string | null }
  | { do: 'refund-refused'; refund: string }
  | { do: 'refunded-there'; payment: string; amount: number; ref: string }
  | { do: 'dispute'; payment?: string }
  | { do: 'dispute-won'; payment?: string }
  | { do: 'dispute-lost'; payment?: string }
  | ({ do: 'buy' } & Buying)
  | ({ do: 'give' | 'import' } & Given)
  | { do: 'extend'; holding: string; to: Instant | null }
  | { do: 'take'; holding: string }
  | { do: 'merge'; book: Book }
  | { do: 'erase' };
export type EventName = Event['do'];
