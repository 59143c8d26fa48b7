import type { Instant } from '../calendar';
import { copyOf, named, type Ask, type Book, type Discount, type Terms } from './book';
import { declined, paid } from './charging';
import { loseDispute, openDispute, winDispute } from './disputing';
import { due } from './due';
import { expire, join, lateSuccess, payNow, renew } from './joining';
import { refund } from './refunding';
import { cancel, cancelNow, pause, resume, undo } from './stopping';
import { move, quote, switchTo, takeBackSwitch } from './switching';
import { paymentNamed, Refused, type Work } from './work';

/** What a person, the clock or a gateway does. Ids are those of the book. */
export type Event =
  | { do: 'join'; offer: string; discount?: Discount | null }
  /** What has fallen due is done. */
  | { do: 'due' }
  /** The answer to an ask. */
  | { do: 'paid'; charge: string }
  | { do: 'declined'; charge: string }
  | { do: 'expire' }
  | { do: 'pay-now' }
  | { do: 'late-success' }
  | { do: 'cancel' }
  | { do: 'cancel-now' }
  | { do: 'undo' }
  | { do: 'pause' }
  | { do: 'resume' }
  | { do: 'renew' }
  | { do: 'quote'; to: string }
  /** `quote`: as it was quoted; `method` false: no payment method is given. */
  | { do: 'switch'; to: string; quote?: boolean; method?: boolean }
  | { do: 'take-back' }
  | { do: 'move'; to: string }
  | { do: 'refund'; payment: string | undefined; amount: number | 'all'; access: 'take' | 'keep' }
  | { do: 'dispute'; payment: string | undefined }
  | { do: 'dispute-won'; payment: string | undefined }
  | { do: 'dispute-lost'; payment: string | undefined };

/** The book afterwards, and what the gateway is to be asked for once it is stored; or why nothing was done. */
export type Stepped = { ok: true; book: Book; asks: Ask[] } | { ok: false; why: string };

/** What an event does to a member's book at an instant. Pure: the book that is given stays as it is. */
export function step(book: Book, event: Event, terms: Terms, now: Instant): Stepped {
  const work: Work = { book: copyOf(book), terms, now, asks: [] };
  try {
    take(work, event);
  } catch (error) {
    if (error instanceof Refused) return { ok: false, why: error.message };
    throw error;
  }
  return { ok: true, book: work.book, asks: work.asks };
}

function take(work: Work, event: Event): void {
  switch (event.do) {
    case 'join':
      return join(work, event.offer, event.discount ?? null);
    case 'due':
      return due(work);
    case 'paid':
      return paid(work, named(work.book.charges, event.charge));
    case 'declined':
      return declined(work, named(work.book.charges, event.charge));
    case 'expire':
      return expire(work);
    case 'pay-now':
      return payNow(work);
    case 'late-success':
      return lateSuccess(work);
    case 'cancel':
      return cancel(work);
    case 'cancel-now':
      return cancelNow(work);
    case 'undo':
      return undo(work);
    case 'pause':
      return pause(work);
    case 'resume':
      return resume(work);
    case 'renew':
      return renew(work);
    case 'quote':
      return quote(work, event.to);
    case 'switch':
      return switchTo(work, event.to, { byQuote: event.quote, hasMethod: event.method });
    case 'take-back':
      return takeBackSwitch(work);
    case 'move':
      return move(work, event.to);
    case 'refund':
      return refund(work, paymentNamed(work, event.payment), event.amount, event.access);
    case 'dispute':
      return openDispute(work, paymentNamed(work, event.payment));
    case 'dispute-won':
      return winDispute(work, paymentNamed(work, event.payment));
    case 'dispute-lost':
      return loseDispute(work, paymentNamed(work, event.payment));
  }
}
