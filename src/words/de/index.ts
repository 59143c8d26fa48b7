import type { members as en } from '../en';
import { account } from './account';
import { comments } from './comments';
import { documents } from './documents';
import { join } from './join';
import { mails } from './mails';
import { offers } from './offers';
import { problems } from './problems';
import { site } from './site';

/** Everything that members and visitors read, in German. */
export const de: Record<keyof typeof en, string> = {
  ...site,
  ...join,
  ...account,
  ...offers,
  ...comments,
  ...documents,
  ...mails,
  ...problems,
};
