import { config } from '@/platform/config';
import { askedOf } from '@/core/billing/work';
import { isBefore } from '@/core/instants';
import { claimDue, type DueSubscription } from '@/billing/store/subscription-work';
import { WORKER } from '@/platform/actor';
import { siteNow } from '@/platform/clock';
import { nothing } from '@/platform/inputs';
import { done } from '@/platform/result';
import { currentSite } from '@/platform/site';
import { pool, transaction } from '@/platform/store/db';
import { systemUse } from '@/platform/use';
import { collect } from './lib/collect';
import { doAsks } from './lib/in-book';
import { happen, openBook, type Happened } from './lib/open-book';
import type { OpenBook } from './lib/opened';
import { remindBefore } from './lib/remind';

/**
 * Does the one thing that has been due longest: a charge, a retry, an end, an attempt that a crash or silence left open. False
 * where nothing is due. Any number of workers may call this at once; each takes another subscription.
 */
async function runOne(): Promise<boolean> {
  const site = await currentSite();
  // Once the site is live, nothing happens to what was made in test mode.
  const testNow = site.mode === 'test' ? siteNow(site, 'test') : null;
  const due = await claimDue(pool(), testNow, siteNow(site, 'live'), config().LEASE_SECONDS);
  if (!due) return false;
  // Rehearsed time passes as if the worker had been there at each moment; in live mode the moment is now.
  const at = due.mode === 'test' ? due.nextAt : siteNow(site, 'live');
  const { open, left, happened } = await transaction(async (db) => {
    const book = await openBook(db, site, WORKER, due, {}, at);
    return { open: book, ...(await takeUp(book, due)) };
  });
  if (left) await collect(WORKER, site, open.stored, left, false);
  else if (happened?.ok) await doAsks(WORKER, site, open.stored, happened.asks);
  else if (happened) throw new Error(`subscription ${due.id}: ${happened.why}`);
  return true;
}

/** What is to be done with a subscription that was claimed: `left` is an attempt whose end nobody knows. */
async function takeUp(
  open: OpenBook,
  { id, nextAt }: DueSubscription,
): Promise<{ left?: string; happened?: Happened }> {
  const { book } = open.stored;
  const one = book.charges.find((charge) => charge.subscription === id && askedOf(charge));
  const asked = one && askedOf(one);
  if (one && asked?.until === null) return { left: asked.id };
  if (one && asked?.until) {
    // A transfer has the days that the owner gives it; then the charge counts as not paid.
    if (isBefore(open.at, asked.until)) return {};
    return {
      happened: await happen(open, { do: 'declined', charge: one.id, attempt: asked.id, code: 'not-paid' }),
    };
  }
  const s = book.subscriptions.find((each) => each.id === id);
  if (!s?.dueAt || isBefore(open.at, s.dueAt)) return {};
  await remindBefore(open, s, nextAt);
  return { happened: await happen(open, { do: 'due', subscription: id }) };
}

export const runOneDue = systemUse('run-one-due', nothing, async () => done(await runOne()));
