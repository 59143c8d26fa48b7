import { deleteReadsOf } from '@/access/store/meters';
import { happen, openBook } from '@/billing/services/lib/open-book';
import { forgetCheckouts } from '@/billing/store/checkouts';
import { deletePassesOf } from '@/billing/store/held-passes';
import { deleteComments } from '@/content/store/comments';
import { forgetMails } from '@/mail/store/mails';
import { deleteItemReads } from '@/content/store/item-reads';
import { deleteOpens } from '@/members/store/letter-opens';
import { deleteNotesOn } from '@/members/store/member-notes';
import { forgetMember, type Member } from '@/people/store/members';
import type { Actor } from '@/platform/actor';
import { siteNow } from '@/platform/clock';
import { record } from '@/platform/record';
import { done, refusedField, type Result } from '@/platform/result';
import type { Transaction } from '@/platform/store/db';
import type { Site } from '@/platform/store/site';
import { refusal } from '@/words/problems';

/**
 * Ends what a member holds, and forgets who they were. What the books must keep (charges, payments, refunds) stays, without
 * a name. Refused while a payment is under way; then nothing of it may be committed.
 */
export async function eraseMember(
  db: Transaction,
  site: Site,
  actor: Actor,
  member: Member,
): Promise<Result<null>> {
  for (const mode of ['test', 'live'] as const) {
    const open = await openBook(db, site, actor, { memberId: member.id, mode });
    const happened = await happen(open, { do: 'erase' });
    if (!happened.ok) return refusedField('', 'account.not-deleted', { why: refusal(happened.why) });
  }
  const at = siteNow(site);
  await record(db, actor, at, 'account deleted', `member:${member.id}`);
  await forgetMember(db, member.id, member.email, at);
  await deleteNotesOn(db, member.id);
  await deleteReadsOf(db, member.id);
  await deletePassesOf(db, member.id);
  await deleteComments(db, { memberId: member.id });
  await forgetMails(db, member.id, member.email);
  await deleteOpens(db, member.id);
  await deleteItemReads(db, member.id);
  await forgetCheckouts(db, member.id, member.email);
  return done(null);
}
