import { createHash } from 'node:crypto';
import { z } from 'zod';
import { firstState, MOST_COMMENT, type CommentState } from '@/core/content/comments';
import { mayWrite } from '@/core/staff';
import { addComment, deleteComments, findComment } from '@/content/store/comments';
import { mailStaff } from '@/people/services/lib/mail-staff';
import { waitMinutes } from '@/people/services/lib/wait-minutes';
import { findMember } from '@/people/store/members';
import { siteNow } from '@/platform/clock';
import { slug, uuid } from '@/platform/inputs';
import { orNothing } from '@/platform/form-fields';
import { record } from '@/platform/record';
import { done, missing, refusedField, type Result } from '@/platform/result';
import { currentSite, powersOf } from '@/platform/site';
import { pool, transaction } from '@/platform/store/db';
import { spendPoint, type Limit } from '@/platform/store/rate-limits';
import { memberUse } from '@/platform/use';
import { deskWordsOf } from '@/words/desk';
import { say } from '@/words/problems';
import { readersOfThread, tellThread } from './lib/comment-notices';
import { commentedItem } from './lib/comment-rights';
import { readerOf } from './lib/reader';

/** Comments that one member may write in a stretch of time. */
const PER_MEMBER: Limit = { name: 'comment', points: 10, seconds: 10 * 60 };

const commentSchema = z.object({
  itemId: slug,
  /** The comment that is replied to. */
  replyTo: z.preprocess(orNothing, uuid.optional()),
  words: z.string().trim().min(1, say('comment.empty')).max(MOST_COMMENT, say('comment.too-long')),
  /** Of the form, so that one sent twice is one comment. A page that is kept gives the same to many. */
  formKey: uuid,
});

/** Writes a comment on an item, or a reply. The answer is whether it is shown, or waits for approval. */
export const writeComment = memberUse(
  'write-comment',
  commentSchema,
  async (actor, { itemId, replyTo, words, formKey }): Promise<Result<{ state: CommentState }>> => {
    if (actor.look) return refusedField('', 'comment.looking');
    const site = await currentSite();
    const commented = await commentedItem(await readerOf(actor), itemId);
    if (!commented) return missing();
    if (!commented.rights.writes) return refusedField('', 'comment.not-you');
    const wait = await spendPoint(PER_MEMBER, actor.memberId);
    if (wait > 0) return refusedField('', 'comment.too-many', { minutes: waitMinutes(wait) });
    const repliedTo = replyTo ? await findComment(pool(), replyTo) : undefined;
    if (replyTo && (repliedTo?.itemId !== itemId || repliedTo.state !== 'shown'))
      return refusedField('', 'comment.gone');
    const threadId = repliedTo ? (repliedTo.threadId ?? repliedTo.id) : null;
    const { memberId } = actor;
    const at = siteNow(site);
    const moderates = mayWrite(await powersOf(actor), commented.item);
    const state = firstState(commented.settings, moderates);
    const by = (await findMember(pool(), memberId))?.name ?? '';
    const readers = state === 'shown' ? await readersOfThread(site, { itemId, threadId, memberId }) : [];
    const { item } = commented;
    return transaction(async (db) => {
      const id = await addComment(db, {
        itemId,
        memberId,
        threadId,
        words,
        state,
        at,
        key: keyOf(formKey, replyTo, words),
      });
      if (id === undefined) return done({ state });
      await tellThread(db, site, readers, { item, comment: { id, at }, by });
      const t = deskWordsOf(site);
      const told = { name: by || t('comment.member'), title: item.title };
      if (!moderates)
        await mailStaff(db, site, 'comment', {
          subject: t(state === 'waiting' ? 'staff-mail.comment-held' : 'staff-mail.comment', told),
          lines: [t('staff-mail.comment-words', { ...told, date: t.dateTime(at) })],
          link: { label: t('staff-mail.open'), path: `/desk/content/comments?state=${state}` },
          aboutId: memberId,
          key: `comment:${id}`,
          at,
        });
      await record(db, actor, at, 'comment written', `comment:${id}`, { item: itemId, state });
      return done({ state });
    });
  },
);

/** The same for the same words sent twice from one form, and another for others. */
const keyOf = (formKey: string, replyTo: string | undefined, words: string): string =>
  createHash('sha256').update([formKey, replyTo, words].join('\n')).digest('hex').slice(0, 32);

/** Deletes a comment of one's own, for good. */
export const deleteMyComment = memberUse(
  'delete-my-comment',
  uuid,
  async (actor, id): Promise<Result<null>> => {
    const at = siteNow(await currentSite());
    return transaction(async (db) => {
      await deleteComments(db, { id });
      await record(db, actor, at, 'comment deleted', `comment:${id}`);
      return done(null);
    });
  },
  { owner: async (id) => (await findComment(pool(), id))?.memberId },
);
