import type { Instant } from '../instants';
import type { Book, Discount, Method, Track } from './book';
import type { Buying } from './buying';
import type { Answer } from './charging';
import type { Submitted } from './checkout';
import type { Given } from './giving';
import type {
  ChargeId,
  CheckoutId,
  HoldingId,
  OfferKey,
  PaymentId,
  PurchaseId,
  RefundId,
  SubscriptionId,
} from '../ids';

/** The subscription that a person or the clock means. Not named: the one that runs, in a book of one ladder. */
type Of = { subscription?: SubscriptionId };

/** What a person, the clock or a gateway does. Ids are those of the book. */
export type Event =
  | ({ do: 'join'; offer: OfferKey; discount?: Discount | null; method?: Method | null } & Partial<Track>)
  | ({ do: 'submit' } & Submitted)
  /** At the wallet's page; with its first bill, where something was due. */
  | { do: 'approved'; checkout: CheckoutId; bill: { ref: string; code?: string } | null }
  | { do: 'not-approved'; checkout: CheckoutId }
  /** A checkout, or a first payment that was never made. */
  | { do: 'expire'; checkout?: CheckoutId }
  /** What has fallen due is done. */
  | ({ do: 'due' } & Of)
  /** The answer to an ask. */
  | ({ do: 'paid'; charge: ChargeId } & Answer)
  | ({ do: 'declined'; charge: ChargeId } & Answer)
  /** After it was declined. Not named: what was declined last. */
  | ({ do: 'late-success'; charge?: ChargeId } & Answer)
  /** Money for what can begin no more. */
  | ({ do: 'unusable'; charge: ChargeId } & Answer)
  /** A wallet has billed by itself. */
  | { do: 'billed'; subscription: SubscriptionId; ref: string; code?: string }
  | ({ do: 'pay-now' } & Of)
  | { do: 'method'; subscription: SubscriptionId; method: Method }
  | ({ do: 'cancel' } & Of)
  | ({ do: 'cancel-now' } & Of)
  /** By staff: also what is kept for good. */
  | { do: 'take-away'; subscription: SubscriptionId }
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
      payment?: PaymentId;
      amount: number | 'all';
      access: 'take' | 'keep';
      id?: string;
      reason?: string;
    }
  | { do: 'refunded'; refund: RefundId; ref?: string | null }
  | { do: 'refund-refused'; refund: RefundId }
  | { do: 'refunded-there'; payment: PaymentId; amount: number; ref: string }
  | { do: 'dispute'; payment?: PaymentId }
  | { do: 'dispute-won'; payment?: PaymentId }
  | { do: 'dispute-lost'; payment?: PaymentId }
  | ({ do: 'buy' } & Buying)
  | { do: 'abandon'; purchase: PurchaseId }
  | ({ do: 'give' | 'import' } & Given)
  | { do: 'extend'; holding: HoldingId; to: Instant | null }
  | { do: 'take'; holding: HoldingId }
  | { do: 'merge'; book: Book }
  | { do: 'erase' };
export type EventName = Event['do'];
