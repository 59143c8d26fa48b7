import type { Instant } from '@/core/instants';
import { sumIncome } from '@/billing/store/payment-lists';
import { countWeek } from '@/desk/store/week';
import { countJoined } from '@/members/store/member-lists';
import { countMails } from '@/mail/store/mails';
import type { Db } from '@/platform/store/db';
import type { Site } from '@/platform/store/site';
import type { Words } from '@/words/speak';

/** What happened from one instant of the site's clock to another, a sentence each; `isBrief` leaves out what did not. */
export async function happenedBetween(
  db: Db,
  site: Site,
  t: Words,
  { from, to, isBrief }: { from: Instant; to: Instant; isBrief: boolean },
): Promise<string[]> {
  const joined = await countJoined(db, site.mode, from, to);
  const income = await sumIncome(db, site.mode, from, to);
  const { left, failed, disputed } = await countWeek(db, site.mode, from, to);
  const received = income.map(({ amount, currency }) => t.money(amount, currency));
  const mails = isBrief ? await countMails(db, from, to) : 0;
  return [
    (joined > 0 || !isBrief) && t('staff-mail.weekly-joined', { count: joined }),
    (left > 0 || !isBrief) && t('staff-mail.weekly-left', { count: left }),
    (received.length > 0 || !isBrief) &&
      t('staff-mail.weekly-received', {
        amount: received.length > 0 ? t.list(received) : t('checkout.none'),
      }),
    (failed > 0 || !isBrief) && t('staff-mail.weekly-failed', { count: failed }),
    (disputed > 0 || !isBrief) && t('staff-mail.weekly-disputed', { count: disputed }),
    mails > 0 && t('desk-frame.mails-written', { count: mails }),
  ].filter((line) => typeof line === 'string');
}
