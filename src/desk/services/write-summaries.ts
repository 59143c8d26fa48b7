import { addLength, localDate, startOfDate } from '@/core/calendar';
import { toMs } from '@/core/instants';
import { staffMailKey, writeStaffMail } from '@/mail/services/lib/write-staff-mail';
import { isMailKnown } from '@/mail/store/mails';
import { listStaffReaders, type StaffReader } from '@/people/store/staff-mails';
import { siteNow } from '@/platform/clock';
import { nothing } from '@/platform/inputs';
import { done } from '@/platform/result';
import { currentSite } from '@/platform/site';
import { pool, transaction } from '@/platform/store/db';
import { systemUse } from '@/platform/use';
import { deskWordsOf } from '@/words/desk';
import { happenedBetween } from './lib/happened';

/** Mails the week that ended last night to those of the staff who asked for it, on the first day of the next. */
async function writeAll(): Promise<number> {
  const readers = (await listStaffReaders(pool())).filter(({ kinds }) => kinds.includes('weekly'));
  if (readers.length === 0) return 0;
  const site = await currentSite();
  const now = siteNow(site);
  const today = localDate(now, site.zone);
  // 1970-01-01 was a Thursday.
  const weekday = (Math.floor(toMs(`${today}T00:00:00Z`) / 86_400_000) + 4) % 7;
  const to = addLength(startOfDate(today, site.zone), { n: -((weekday + 6) % 7), unit: 'day' }, site.zone);
  const key = `weekly:${localDate(to, site.zone)}`;
  const untold: StaffReader[] = [];
  for (const reader of readers)
    if (!(await isMailKnown(pool(), staffMailKey(key, reader.id)))) untold.push(reader);
  if (untold.length === 0) return 0;
  const from = addLength(to, { n: -7, unit: 'day' }, site.zone);
  const t = deskWordsOf(site);
  const letter = {
    subject: t('staff-mail.weekly', { from: t.date(from), site: site.name }),
    lines: await happenedBetween(pool(), site, t, { from, to, isBrief: false }),
    link: { label: t('staff-mail.open'), path: '/desk' },
    key,
    at: now,
  };
  await transaction(async (db) => {
    for (const reader of untold) await writeStaffMail(db, site, reader, letter);
  });
  return untold.length;
}

export const writeSummaries = systemUse('write-summaries', nothing, async () => done(await writeAll()));
