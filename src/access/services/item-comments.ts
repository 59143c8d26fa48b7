import { z } from 'zod';
import {
  countShown,
  hasCommented,
  listReplies,
  listThreads,
  type NamedComment,
} from '@/content/store/comments';
import type { ShownComment } from '@/core/content/comments';
import { isPersonal } from '@/core/access/alike';
import { mayWrite } from '@/core/staff';
import { slug } from '@/platform/inputs';
import { done } from '@/platform/result';
import { powersOf } from '@/platform/site';
import { pool } from '@/platform/store/db';
import { keepForNonWriters, shareNot } from '@/platform/request';
import { alikeUse, memberUse } from '@/platform/use';
import { commentedItem } from './lib/comment-rights';
import { withReads } from './lib/free-reads';
import { readerOf } from './lib/reader';

/** How many conversations a page has. */
const THREADS = 30;

const asked = z.object({ itemId: slug, page: z.number().int().min(1).max(10_000).default(1) });

/** The comments of an item as far as the caller may read them; null where they may not, or there are none to be had. */
export const itemComments = alikeUse('item-comments', asked, async (actor, { itemId, page }) => {
  const reader = await withReads(await readerOf(actor), actor);
  const commented = await commentedItem(reader, itemId);
  if (!commented) return done(null);
  // Staff who look as someone else see what that person would: nothing of their own.
  const powers = await powersOf(actor);
  const readerId = actor.look ? null : actor.memberId;
  const slice = { limit: THREADS, offset: (page - 1) * THREADS };
  const { rows, total } = await listThreads(pool(), { itemId, readerId, ...slice });
  const replies = await listReplies(
    pool(),
    rows.map(({ id }) => id),
    readerId,
  );
  const isMine = ({ memberId }: NamedComment): boolean => readerId !== null && memberId === readerId;
  const { readers, writers } = commented.settings;
  const rights = { openTo: [...(readers ?? []), ...(writers ?? [])] };
  keepForNonWriters(itemId);
  if (
    readerId !== null &&
    (isPersonal(rights, reader.person) || (await hasCommented(pool(), readerId, itemId)))
  )
    shareNot();
  const shown = (comment: NamedComment): ShownComment => ({
    id: comment.id,
    name: comment.words === '' ? '' : comment.name,
    isStaff: comment.words !== '' && comment.isStaff,
    isMine: isMine(comment),
    isWaiting: comment.state === 'waiting',
    isGone: comment.words === '',
    words: comment.words,
    at: comment.at,
    replies: replies.filter(({ threadId }) => threadId === comment.id).map(shown),
  });
  return done({
    comments: rows.map(shown),
    count: await countShown(pool(), itemId),
    pages: Math.ceil(total / THREADS),
    page,
    mayWrite: commented.rights.writes && readerId !== null,
    isHeld: commented.settings.isHeld && !mayWrite(powers, commented.item),
    mayModerate: readerId !== null && mayWrite(powers, commented.item),
  });
});

/** Whether the caller has written a comment on an item: then its page is theirs alone. */
export const hasMyComments = memberUse('has-my-comments', slug, async ({ memberId }, itemId) =>
  done(await hasCommented(pool(), memberId, itemId)),
);
