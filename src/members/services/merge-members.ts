import { z } from 'zod';
import { step } from '@/core/billing/step';
import { earliest } from '@/core/instants';
import { contextOf, openBook } from '@/billing/services/lib/open-book';
import { moveReading } from '@/access/store/merge-readers';
import { moveBook, saveMergedSummaries } from '@/billing/store/merge-books';
import { moveComments } from '@/content/store/comments';
import { moveItemReads } from '@/content/store/item-reads';
import { moveReadingPlaces } from '@/content/store/reading-places';
import { moveDocuments } from '@/documents/store/documents';
import { copyChoices } from '@/mail/store/mail-choices';
import { moveMails } from '@/mail/store/mails';
import { moveNotes } from '@/members/store/member-notes';
import { copyGroups } from '@/people/store/groups';
import { confirmStaff } from '@/people/services/lib/confirm-password';
import { findMemberByEmail, forgetMember, lockMember, noteMerged, type Member } from '@/people/store/members';
import { siteNow } from '@/platform/clock';
import { emailAddress, passwordAgain, uuid } from '@/platform/inputs';
import { record } from '@/platform/record';
import { done, missing, refusedField, refusedWith, type Result } from '@/platform/result';
import { currentSite } from '@/platform/site';
import { transactionUnlessRefused } from '@/platform/store/db';
import { staffUse } from '@/platform/use';
import { refusal } from '@/words/problems';

const mergeSchema = z.object({
  /** The account that stays. */
  memberId: uuid,
  /** The address of the other, which goes into it. */
  email: emailAddress,
  password: passwordAgain,
});

/**
 * Makes two accounts of one person one: what the other has, paid and wrote becomes that of the account that stays, and
 * nobody signs in to the other again. Refused where both have a subscription on one ladder, or a payment is under way.
 */
export const mergeMembers = staffUse('set up the site')(
  'merge-members',
  mergeSchema,
  async (actor, { memberId, email, password }): Promise<Result<null>> => {
    const confirmed = await confirmStaff(actor, password);
    if (!confirmed.ok) return confirmed;
    const site = await currentSite();
    const at = siteNow(site);
    return transactionUnlessRefused(async (db): Promise<Result<null>> => {
      const named = await findMemberByEmail(db, email);
      if (!named) return refusedField('email', 'merge.nobody');
      if (named.id === memberId) return refusedField('email', 'merge.same');
      // Both are locked in one order, whichever of them is to stay.
      const locked = new Map<string, Member>();
      for (const id of [memberId, named.id].sort()) {
        const member = await lockMember(db, id);
        if (!member || member.deletedAt) return missing();
        locked.set(id, member);
      }
      const [kept, other] = [locked.get(memberId), locked.get(named.id)];
      if (!kept || !other) return missing();
      if (kept.staffRole || other.staffRole) return refusedField('email', 'merge.staff');
      const of = { from: other.id, to: kept.id };
      for (const mode of ['test', 'live'] as const) {
        const books = new Map<string, Awaited<ReturnType<typeof openBook>>>();
        for (const id of [kept.id, other.id].sort())
          books.set(id, await openBook(db, site, actor, { memberId: id, mode }));
        const [ours, theirs] = [books.get(kept.id), books.get(other.id)];
        if (!ours || !theirs) return missing();
        const merged = step(
          ours.stored.book,
          { do: 'merge', book: theirs.stored.book },
          contextOf(site, {
            offers: { ...theirs.stored.offers, ...ours.stored.offers },
            ladders: { ...theirs.stored.ladders, ...ours.stored.ladders },
          }),
          ours.at,
        );
        if (!merged.ok) return refusedWith(refusal(merged.why), 'email');
        await saveMergedSummaries(db, { ...of, mode }, merged.book.summaries);
      }
      for (const move of [
        moveBook,
        moveDocuments,
        moveReading,
        moveReadingPlaces,
        moveItemReads,
        moveComments,
        moveNotes,
        moveMails,
        copyChoices,
        copyGroups,
      ])
        await move(db, other.id, kept.id);
      await forgetMember(db, other.id, other.email, at);
      await noteMerged(db, { ...of, joinedAt: earliest(kept.joinedAt, other.joinedAt) });
      await record(db, actor, at, 'merged with another account', `member:${kept.id}`, { other: other.id });
      return done(null);
    });
  },
);
