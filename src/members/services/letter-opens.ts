import { z } from 'zod';
import { findHead } from '@/content/store/items';
import { listOpensOf, noteLetterOpened } from '@/members/store/letter-opens';
import { findLetter } from '@/members/store/letters';
import { uuid } from '@/platform/inputs';
import { done } from '@/platform/result';
import { pool } from '@/platform/store/db';
import { currentSite } from '@/platform/site';
import { publicUse, staffUse } from '@/platform/use';
import { readLetterToken } from './lib/letter-token';

const token = z.string().max(400);

/** Notes that a letter was opened, where the owner has it counted. The answer is the same for any token. */
export const letterSeen = publicUse('letter-seen', token, async (_, given) => {
  const read = readLetterToken(given);
  if (read) await noteLetterOpened(pool(), read.letterId, read.memberId, false);
  return done(null);
});

/** Where the link in a letter leads: to the post that was mailed, else to the front page. That it was followed is noted where the owner has it counted. */
export const letterRead = publicUse('letter-read', token, async (_, given) => {
  const read = readLetterToken(given);
  if (!read) return done({ path: '/' });
  await noteLetterOpened(pool(), read.letterId, read.memberId, true);
  const itemId = (await findLetter(pool(), read.letterId))?.itemId;
  const item = itemId ? await findHead(pool(), itemId) : undefined;
  return done({ path: item && !item.trashedAt ? item.path : '/' });
});

const LISTED = 20;

/** The letters that a member opened last; null where that is not counted. */
export const lettersOpenedBy = staffUse('see members')('letters-opened-by', uuid, async (_, memberId) => {
  const { countsOpens } = await currentSite();
  return done(countsOpens ? await listOpensOf(pool(), memberId, LISTED) : null);
});
