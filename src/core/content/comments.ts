import type { Question } from '../access/decide';
import type { Opener } from '../access/rule';
import type { Instant } from '../instants';
import { FILE, LINK } from './item';
import { isOpenTo } from './sections';

/**
 * How a kind's items are commented on. `readers` null: all who can open the item. `writers` null: all members who can read
 * its comments. `isHeld`: a comment is shown once staff approve it.
 */
export type CommentSettings = {
  isOn: boolean;
  readers: Opener[] | null;
  writers: Opener[] | null;
  isHeld: boolean;
};

/** What a kind begins with. */
export const NO_COMMENTS: CommentSettings = { isOn: false, readers: null, writers: null, isHeld: true };

export const COMMENT_STATES = ['waiting', 'shown', 'removed'] as const;
export type CommentState = (typeof COMMENT_STATES)[number];

/** The longest comment, in characters. */
export const MOST_COMMENT = 4000;

/** Files and links have no page of their own to comment on. */
export const canHaveComments = (type: string): boolean => type !== FILE && type !== LINK;

/** Whether an item has comments: by its own choice, or as its kind has them. */
export const hasComments = (
  item: { type: string; commentsOn: boolean | null },
  kind: CommentSettings,
): boolean => canHaveComments(item.type) && (item.commentsOn ?? kind.isOn);

export type CommentRights = { reads: boolean; writes: boolean };

/**
 * What a person may do with the comments of an item that has them. Never more than with the item: `isIn` is whether they
 * are let in to it. Visitors never write.
 */
export function commentRights(
  { readers, writers }: CommentSettings,
  question: Question,
  isIn: boolean,
): CommentRights {
  const reads = isIn && (readers === null || isOpenTo(readers, question));
  const writes = reads && question.person.signedIn && (writers === null || isOpenTo(writers, question));
  return { reads, writes };
}

/** Where a comment begins: held where it is to be approved, unless its writer may approve it. */
export const firstState = ({ isHeld }: CommentSettings, mayApprove: boolean): CommentState =>
  isHeld && !mayApprove ? 'waiting' : 'shown';

/** A comment as one reader sees it. */
export type ShownComment = {
  id: string;
  /** '' where the writer gave none. */
  name: string;
  isStaff: boolean;
  isMine: boolean;
  /** Its writer sees it, and nobody else until staff approve it. */
  isWaiting: boolean;
  /** It was removed, and is there because of its replies. */
  isGone: boolean;
  words: string;
  at: Instant;
  replies: ShownComment[];
};
