import type { Book } from '@/core/billing/book';
import type { NoticeKind } from '@/core/billing/book';
import { groupsByJoining, groupsByTiers, listOutOfGroups } from '@/billing/store/group-sources';
import { comeIntoGroups, leaveWithSubscription, removeFromGroup, type Coming } from '@/people/store/groups';
import { WORKER, type Actor } from '@/platform/actor';
import { siteNow } from '@/platform/clock';
import { record } from '@/platform/record';
import { transaction, type Transaction } from '@/platform/store/db';
import type { Site } from '@/platform/store/site';
import type { OpenBook } from './opened';
import type { Instant } from '@/core/instants';

/** Puts members into groups, with a line in the audit for each who was not there. */
export async function putInGroups(
  { db, actor, at }: { db: Transaction; actor: Actor; at: Instant },
  coming: Coming[],
): Promise<void> {
  if (coming.length === 0) return;
  for (const { groupId, memberId } of await comeIntoGroups(db, coming, at))
    await record(db, actor, at, 'came into a group', `member:${memberId}`, { group: groupId });
}

/** A member has got tiers by what happened in their book. Members whom staff removed are not added again while they hold the tier. */
export async function comeByTiers(open: OpenBook, before: Book): Promise<void> {
  const { book, memberId } = open.stored;
  if (book.holdings === before.holdings) return;
  const known = new Set(before.holdings.map(({ id }) => id));
  const tiers = book.holdings.flatMap(({ id, kind, tier }) =>
    kind === 'tier' && !known.has(id) ? [tier] : [],
  );
  if (tiers.length > 0) await putInGroups(open, await groupsByTiers(open.db, memberId, [...new Set(tiers)]));
}

const ENDS: readonly NoticeKind[] = ['ended', 'ended-unpaid', 'dispute-lost'];

/** A subscription brings its member into groups as it begins, and takes them out as it ends. */
export async function followSubscription(open: OpenBook, kind: NoticeKind, id: string | null): Promise<void> {
  const { db, actor, at, stored } = open;
  const s = stored.book.subscriptions.find((one) => one.id === id);
  if (!s) return;
  if (kind === 'switched' && s.replaces) await leaveWithSubscription(db, s.replaces, s.id);
  if (kind === 'joined' || kind === 'switched')
    await putInGroups(open, await groupsByJoining(db, stored.memberId, s.id));
  if (!ENDS.includes(kind)) return;
  for (const group of await leaveWithSubscription(db, s.id, null))
    await record(db, actor, at, 'left a group', `member:${stored.memberId}`, { group });
}

const AT_ONCE = 500;

/** Takes out of groups who no longer hold the tier that brought them in. The answer is how many. */
export async function leaveGroups(site: Site): Promise<number> {
  const at = siteNow(site);
  return transaction(async (db) => {
    const out = await listOutOfGroups(db, site.mode, at, AT_ONCE);
    for (const { groupId, memberId } of out)
      if (await removeFromGroup(db, groupId, memberId))
        await record(db, WORKER, at, 'left a group', `member:${memberId}`, { group: groupId });
    return out.length;
  });
}
