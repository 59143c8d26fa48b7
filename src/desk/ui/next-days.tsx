import clsx from 'clsx';
import { Link } from '@/kit/link';
import type { DaySum } from '@/core/days';
import type { Words } from '@/words/speak';
import { desk } from '@/words/desk';

/** What is charged on each of the next days; each leads to its list. */
export function NextDays({ days, t }: { days: DaySum[] | null; t: Words }) {
  const most = Math.max(0, ...(days ?? []).map(({ count }) => count));
  return (
    <section aria-labelledby="ahead">
      <h2 id="ahead" className="text-xl">
        {desk('desk-frame.next-fourteen-days')}
      </h2>
      {days === null || most === 0 ? (
        <p className="mt-2 text-muted">
          {days === null ? (
            <Link href="/desk/money/due" className="text-spruce underline">
              {desk('desk-frame.too-many-charges')}
            </Link>
          ) : (
            desk('desk-frame.no-charges-ahead')
          )}
        </p>
      ) : (
        <ol className="mt-2 grid grid-cols-[repeat(auto-fill,minmax(5.25rem,1fr))] sm:grid-cols-7 gap-2">
          {days.map(({ date, count, sums }) => (
            <li key={date}>
              <Link
                href={`/desk/money/due?day=${date}`}
                className={clsx(
                  'figures grid h-full justify-items-center gap-0.5 rounded-md border px-1 py-2 text-center text-sm hover:border-spruce',
                  count > 0 && count * 3 >= most * 2 ? 'border-open bg-open-wash' : 'border-line bg-surface',
                )}
              >
                <span className="text-muted">{t.weekday(date)}</span>
                <b className="font-display text-lg leading-tight">{Number(date.slice(8))}</b>
                <span>
                  {count === 0
                    ? desk('desk-frame.no-charge')
                    : `${t.count(count)} · ${sums.map(({ amount, currency }) => t.money(amount, currency, true)).join(' + ')}`}
                </span>
              </Link>
            </li>
          ))}
        </ol>
      )}
    </section>
  );
}
