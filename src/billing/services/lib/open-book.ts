import { randomUUID } from 'node:crypto';
import { config } from '@/platform/config';
import type { Ask, BillingContext } from '@/core/billing/book';
import type { Event } from '@/core/billing/event';
import { step } from '@/core/billing/step';
import { reminderOf } from '@/core/billing/upcoming';
import type { Refusal } from '@/core/billing/work';
import type { Instant } from '@/core/instants';
import { loadBook, lockBook, type BookOf, type StoredBook, type Wanted } from '@/billing/store/book';
import { type Account } from '@/billing/store/book-rows';
import { saveBook } from '@/billing/store/save-book';
import type { Actor } from '@/platform/actor';
import { siteNow } from '@/platform/clock';
import { inMode } from '@/platform/site';
import { together, type Db, type Transaction } from '@/platform/store/db';
import type { Site } from '@/platform/store/site';
import type { OpenBook } from './opened';
import { comeByTiers } from './come-into-groups';
import { endWalletsThatMustNot } from './wallets-to-end';
import { readersOf, tellOf } from './tell';
import { followGiftCards } from './gift-cards';
import { newPurchaseCode } from './purchase-code';
import { newReference } from './transfer-reference';

/** Locks a member's book and reads it, as far as it is open, or wanted. */
export async function openBook(
  db: Transaction,
  site: Site,
  actor: Actor,
  of: BookOf,
  wanted: Wanted = {},
  at: Instant = siteNow(site, of.mode),
): Promise<OpenBook> {
  // Read once it is locked: what is sent together is done in this order.
  const [{ version, isNew }, read] = await together([
    lockBook(db, of),
    loadBook(db, of, at, site.graceDays, wanted),
  ]);
  const stored = { ...(isNew ? await loadBook(db, of, at, site.graceDays, wanted) : read), version };
  return { db, site: inMode(site, of.mode), actor, at, stored };
}

/** The same for a caller that has read it before; where nothing has happened in it since, it is not read again. */
export async function openAgain(
  db: Transaction,
  site: Site,
  actor: Actor,
  before: StoredBook,
  wanted: Wanted,
  at: Instant,
): Promise<OpenBook> {
  const { version } = await lockBook(db, before);
  const isSame = version === before.version;
  const stored = isSame ? before : { ...(await loadBook(db, before, at, site.graceDays, wanted)), version };
  return { db, site: inMode(site, before.mode), actor, at, stored };
}

/** A member's book as it is, to look at: nothing is locked, and nothing can be stored. */
export async function readBook(
  db: Db,
  site: Site,
  of: BookOf,
  wanted: Wanted = {},
): Promise<{ stored: StoredBook; context: BillingContext; at: Instant }> {
  const at = siteNow(site, of.mode);
  const stored = { ...(await loadBook(db, of, at, site.graceDays, wanted)), version: 0 };
  return { stored, context: contextOf(site, stored), at };
}

export const contextOf = (
  { zone, retryDays, graceDays }: Site,
  { offers, ladders }: Pick<StoredBook, 'offers' | 'ladders'>,
): BillingContext => ({ zone, retryDays, graceDays, offers, ladders, newId: randomUUID });

/** What has happened; `asks` is what gateways are to be asked once the transaction has committed. */
export type Happened = { ok: true; asks: Ask[] } | { ok: false; why: Refusal };

/** Something happens in an open book: what follows from it is stored, and told to whom it concerns. */
export async function happen(
  open: OpenBook,
  event: Event,
  accounts?: (made: string) => Account,
): Promise<Happened> {
  const { db, site, stored: before, at } = open;
  const context = contextOf(site, before);
  const result = step(before.book, event, context, at);
  if (!result.ok) return result;
  const made = [...result.book.subscriptions, ...result.book.purchases].filter(
    ({ id }) => !before.accounts.has(id),
  );
  const { notices, asks } = result;
  const [stored, readers] = await together([
    saveBook(db, before, result.book, {
      at,
      leaseSeconds: config().LEASE_SECONDS,
      remindAt: (s) => reminderOf(s, context)?.remindAt ?? null,
      newReference,
      newCode: newPurchaseCode,
      accounts: accounts && new Map(made.map(({ id }) => [id, accounts(id)])),
    }),
    notices.length > 0 ? readersOf(db, before.memberId, site.mode) : null,
  ]);
  open.stored = stored;
  await endWalletsThatMustNot(open, before);
  await comeByTiers(open, before.book);
  await followGiftCards(open, before.book);
  if (readers) await tellOf(open, context, notices, readers);
  return { ok: true, asks };
}
