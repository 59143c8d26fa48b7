import {
  commentRights,
  hasComments,
  type CommentRights,
  type CommentSettings,
} from '@/core/content/comments';
import { findHead, type ItemHead } from '@/content/store/items';
import { pool } from '@/platform/store/db';
import { isLetIn, isOut, judge, questionOf, type Reader } from './reader';
import { keptKinds } from '@/content/services/lib/kept';

/** An item whose comments someone may read, and what else they may do with them. */
export type Commented = { item: ItemHead; settings: CommentSettings; rights: CommentRights };

/** Null where there is no such item, it has no comments, or the reader may not read them. */
export async function commentedItem(reader: Reader, itemId: string): Promise<Commented | null> {
  const item = await findHead(pool(), itemId);
  const kind = item && (await keptKinds()).find(({ id }) => id === item.type);
  if (!item || item.trashedAt || !kind || !isOut(reader, item) || !hasComments(item, kind.comments))
    return null;
  const isIn = isLetIn((await judge(reader, [item]))(item.id));
  const rights = commentRights(kind.comments, questionOf(reader, item), isIn);
  return rights.reads ? { item, settings: kind.comments, rights } : null;
}
