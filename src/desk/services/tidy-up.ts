import { READS_KEPT } from '@/access/services/lib/free-reads';
import { deleteOldLeakChecks } from '@/access/store/leak-checks';
import { deleteOldReads } from '@/access/store/meters';
import { deleteOldEmbeds } from '@/access/store/embeds';
import { deleteOldOutside } from '@/access/store/outside-sites';
import { deleteOldPassLinks } from '@/access/store/pass-links';
import { addLength } from '@/core/calendar';
import { siteNow } from '@/platform/clock';
import { currentSite } from '@/platform/site';
import { nothing } from '@/platform/inputs';
import { done } from '@/platform/result';
import { pool } from '@/platform/store/db';
import { deleteSpentLimits } from '@/platform/store/rate-limits';
import { systemUse } from '@/platform/use';
import { deleteOldUploads } from '@/content/store/files';
import { deleteTrashed } from '@/content/store/save-items';
import { leaveGroups } from '@/billing/services/lib/come-into-groups';
import { deleteOldMessages } from '@/billing/store/webhooks';
import { deleteOldMailLinks } from '@/mail/store/mail-addresses';
import { deleteOldQuotes } from '@/billing/store/quotes';
import { deleteOldCodes } from '@/people/store/email-codes';
import { deleteOldChallenges } from '@/people/store/passkeys';
import { deleteExpiredSessions, deleteOldDevices } from '@/people/store/sessions';
import { deleteOldInvites } from '@/people/store/staff';
import { deleteOldLinks } from '@/people/store/sign-in-links';

/** For how many days what is in the trash can be restored. */
const TRASH_DAYS = 30;

/** Deletes what has run out: quotes, sessions, mailed links, rate limits, uploads, leak checks, what has been in the trash for long, and free reads that no meter counts by now. The answer is how many rows went. */
export const tidyUp = systemUse('tidy-up', nothing, async () => {
  let gone = 0;
  for (const each of [
    deleteOldQuotes,
    deleteExpiredSessions,
    deleteOldDevices,
    deleteOldCodes,
    deleteOldChallenges,
    deleteOldLinks,
    deleteOldInvites,
    deleteOldPassLinks,
    deleteOldMailLinks,
    deleteOldOutside,
    deleteOldEmbeds,
    deleteSpentLimits,
    deleteOldUploads,
    deleteOldLeakChecks,
    deleteOldMessages,
  ])
    gone += await each(pool());
  const site = await currentSite();
  const before = addLength(siteNow(site), { n: -TRASH_DAYS, unit: 'day' }, site.zone);
  gone += await leaveGroups(site);
  gone += await deleteTrashed(pool(), { before });
  gone += await deleteOldReads(pool(), addLength(siteNow(site), READS_KEPT, site.zone));
  return done(gone);
});
