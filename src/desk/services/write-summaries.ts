import { addLength, localDate, startOfDate } from '@/core/calendar';
import { toMs } from '@/core/instants';
import { sumIncome } from '@/billing/store/payment-lists';
import { countWeek } from '@/desk/store/week';
import { staffMailKey, writeStaffMail } from '@/mail/services/lib/write-staff-mail';
import { countJoined } from '@/members/store/member-lists';
import { isMailKnown } from '@/mail/store/mails';
import { listStaffReaders, type StaffReader } from '@/people/store/staff-mails';
import { siteNow } from '@/platform/clock';
import { nothing } from '@/platform/inputs';
import { done } from '@/platform/result';
import { currentSite } from '@/platform/site';
import { pool, transaction } from '@/platform/store/db';
import { systemUse } from '@/platform/use';
import { deskWordsOf } from '@/words/desk';

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
  const [joined, income, week] = [
    await countJoined(pool(), from, to),
    await sumIncome(pool(), site.mode, from, to),
    await countWeek(pool(), site.mode, from, to),
  ];
  const t = deskWordsOf(site);
  const received = income.map(({ amount, currency }) => t.money(amount, currency));
  const letter = {
    subject: t('staff-mail.weekly', { from: t.date(from), site: site.name }),
    lines: [
      t('staff-mail.weekly-joined', { count: joined }),
      t('staff-mail.weekly-left', { count: week.left }),
      t('staff-mail.weekly-received', {
        amount: received.length > 0 ? t.list(received) : t('checkout.none'),
      }),
      t('staff-mail.weekly-failed', { count: week.failed }),
      t('staff-mail.weekly-disputed', { count: week.disputed }),
    ],
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
