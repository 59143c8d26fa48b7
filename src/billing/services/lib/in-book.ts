import type { Ask } from '@/core/billing/book';
import type { Event } from '@/core/billing/event';
import type { Refusal } from '@/core/billing/work';
import type { ChargeOutcome } from '@/billing/gateways/contract';
import type { BookOf, StoredBook, Wanted } from '@/billing/store/book';
import type { Actor } from '@/platform/actor';
import { done, type Result, refusedWith } from '@/platform/result';
import { currentSite } from '@/platform/site';
import { transactionUnlessRefused } from '@/platform/store/db';
import type { Site } from '@/platform/store/site';
import { collect } from './collect';
import { giveBack } from './give-back';
import { happen, openBook } from './open-book';
import type { OpenBook } from './opened';
import { refusal } from '@/words/problems';
import { answerOf } from './answer-words';

/** How an event ended: refused, or done with what the gateway said to what it was asked; null: it was asked nothing. */
export type Ended =
  { ok: false; why: Refusal } | { ok: true; stored: StoredBook; outcome: ChargeOutcome | null };

/**
 * Something happens in a member's book: it is locked, read, stored, and once that has committed, gateways are asked for what
 * follows, and their answers brought in. `event` may look at the book first; null: nothing is to happen.
 */
export async function inBook(
  actor: Actor,
  of: BookOf,
  wanted: Wanted,
  event: Event | ((open: OpenBook) => Promise<Event | Refusal | null>),
): Promise<Ended> {
  const site = await currentSite();
  const happened = await transactionUnlessRefused(async (db) => {
    const open = await openBook(db, site, actor, of, wanted);
    const next = typeof event === 'function' ? await event(open) : event;
    if (typeof next === 'string') return { ok: false as const, why: next };
    const result = next ? await happen(open, next) : { ok: true as const, asks: [] };
    return result.ok ? { ok: true as const, asks: result.asks, stored: open.stored } : result;
  });
  if (!happened.ok) return happened;
  const { stored, asks } = happened;
  return { ok: true, stored, outcome: await doAsks(actor, site, stored, asks) };
}

/** Asks gateways for what a step wants of them. The answer is that to the charge that was among it. */
export async function doAsks(
  actor: Actor,
  site: Site,
  stored: StoredBook,
  asks: Ask[],
): Promise<ChargeOutcome | null> {
  let outcome: ChargeOutcome | null = null;
  for (const ask of asks) {
    if (ask.do === 'collect') outcome = await collect(actor, site, stored, ask.attempt);
    else await giveBack(actor, site, stored, ask.refund);
  }
  return outcome;
}

/** The same, as a person reads it: refused, declined, or not known yet, in a sentence. */
export async function inBookForPerson(
  ...args: Parameters<typeof inBook>
): Promise<Result<Ended & { ok: true }>> {
  const ended = await inBook(...args);
  if (!ended.ok) return refusedWith(refusal(ended.why));
  const answer = ended.outcome && answerOf(ended.outcome);
  return answer ?? done(ended);
}
