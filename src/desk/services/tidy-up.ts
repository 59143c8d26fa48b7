import { nothing } from '@/platform/inputs';
import { done } from '@/platform/result';
import { pool } from '@/platform/store/db';
import { deleteSpentLimits } from '@/platform/store/rate-limits';
import { systemUse } from '@/platform/use';
import { deleteOldQuotes } from '@/billing/store/quotes';
import { deleteOldCodes } from '@/people/store/email-codes';
import { deleteExpiredSessions, deleteOldDevices } from '@/people/store/sessions';
import { deleteOldLinks } from '@/people/store/sign-in-links';

/** Deletes what has run out: quotes, sessions, mailed links, rate limits. The answer is how many rows went. */
export const tidyUp = systemUse('tidy-up', nothing, async () => {
  let gone = 0;
  for (const each of [
    deleteOldQuotes,
    deleteExpiredSessions,
    deleteOldDevices,
    deleteOldCodes,
    deleteOldLinks,
    deleteSpentLimits,
  ])
    gone += await each(pool());
  return done(gone);
});
