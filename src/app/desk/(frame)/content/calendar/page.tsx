import type { Metadata } from 'next';
import clsx from 'clsx';
import { Link } from '@/kit/link';
import { WRITES } from '@/core/staff';
import { localDate, localTime } from '@/core/calendar';
import { daysOfMonth, isLocalMonth, monthAfter } from '@/core/instants';
import { searchOf, type Search } from '@/app/search';
import { currentActor, currentSite, deskWords, requireStaff, shown } from '@/app/session';
import { contentCalendar } from '@/access/services/content-place';
import { ContentHead } from '@/content/ui/content-head';
import { desk } from '@/words/desk';

export const metadata: Metadata = { title: desk('desk-content.calendar-title') };

const DAYS = ['mon', 'tue', 'wed', 'thu', 'fri', 'sat', 'sun'] as const;

/** A month with what came out in it and what is scheduled. */
export default async function CalendarPage({ searchParams }: { searchParams: Search }) {
  const staff = await requireStaff();
  const mayWrite = WRITES.some(staff.may);
  const asked = (await searchOf(searchParams)).month ?? '';
  const [t, { zone }] = [await deskWords(), await currentSite()];
  const calendar = await shown(
    contentCalendar(await currentActor(), { month: isLocalMonth(asked) ? asked : '' }),
  );
  const { month, items, drafts } = calendar;
  const today = localDate(calendar.now, zone);
  const days = daysOfMonth(month);
  return (
    <>
      <ContentHead here="calendar" />
      <div className="mt-5 flex items-center gap-4">
        <h2 className="text-2xl">{t.month(month)}</h2>
        <Link
          className="text-spruce underline"
          href={`/desk/content/calendar?month=${monthAfter(month, -1)}`}
        >
          {desk('desk-content.month-before')}
        </Link>
        <Link className="text-spruce underline" href={`/desk/content/calendar?month=${monthAfter(month, 1)}`}>
          {desk('desk-content.month-after')}
        </Link>
      </div>
      <div className="relative mt-3 overflow-x-auto">
        <div className="grid min-w-[52rem] grid-cols-7 border-t border-l border-line">
          {DAYS.map((day) => (
            <p key={day} className="border-r border-b border-line px-2 py-1 font-semibold text-muted">
              {desk(`desk-content.day-${day}`)}
            </p>
          ))}
          {days.map((day, index) => (
            <div
              key={day}
              style={index === 0 ? { gridColumnStart: weekday(day) } : undefined}
              className={clsx('min-h-28 border-r border-b border-line p-2', day === today && 'bg-surface')}
            >
              <p className={clsx('figures text-sm', day === today ? 'font-bold text-brass' : 'text-muted')}>
                {Number(day.slice(8))}
              </p>
              <ul className="mt-1 grid gap-1">
                {items
                  .filter(({ publishedAt }) => publishedAt && localDate(publishedAt, zone) === day)
                  .map((item) => (
                    <li
                      key={item.id}
                      className={clsx(
                        'rounded px-1.5 py-0.5 text-sm',
                        item.state === 'scheduled' ? 'bg-later-wash text-later' : 'bg-sunken',
                      )}
                    >
                      <span className="figures mr-1">
                        {item.publishedAt && localTime(item.publishedAt, zone).slice(11)}
                      </span>
                      {mayWrite ? (
                        <Link href={`/desk/content/items/${item.id}`} className="hover:underline">
                          {item.title}
                        </Link>
                      ) : (
                        item.title
                      )}
                    </li>
                  ))}
              </ul>
            </div>
          ))}
        </div>
      </div>
      {drafts.length > 0 && (
        <section className="mt-6">
          <h2 className="text-xl">{desk('desk-content.not-scheduled')}</h2>
          <ul className="mt-2 flex flex-wrap gap-x-5 gap-y-1">
            {drafts.map(({ id, title }) => (
              <li key={id}>
                {mayWrite ? (
                  <Link href={`/desk/content/items/${id}`} className="text-spruce underline">
                    {title}
                  </Link>
                ) : (
                  title
                )}
              </li>
            ))}
          </ul>
        </section>
      )}
    </>
  );
}

/** The column of a day, 1 for Monday. */
const weekday = (day: string): number => ((new Date(`${day}T12:00:00Z`).getUTCDay() + 6) % 7) + 1;
