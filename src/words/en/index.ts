import { account } from './account';
import { desk } from './desk';
import { deskProblems } from './desk-problems';
import { comments } from './comments';
import { documents } from './documents';
import { join } from './join';
import { mails } from './mails';
import { offers } from './offers';
import { problems } from './problems';
import { site } from './site';

/** What members and visitors read, in parts as an owner finds them. */
export const PARTS = { site, comments, join, account, offers, documents, mails, problems };

/** Everything that members and visitors read, in English. */
export const members = {
  ...site,
  ...join,
  ...account,
  ...offers,
  ...comments,
  ...documents,
  ...mails,
  ...problems,
} as const;

/** All sentences there are, in English; those of the Desk are in no other language yet. */
export const en = { ...members, ...desk, ...deskProblems } as const;
