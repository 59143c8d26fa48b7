import type { Metadata } from 'next';
import { Link } from '@/kit/link';
import { searchOf, type Search } from '@/app/search';
import { currentActor, requireStaff, shown } from '@/app/session';
import { metersPlace, type StoredMeter } from '@/access/services/meters';
import { AccessTabs } from '@/access/ui/access-tabs';
import { whoWords, type Names } from '@/access/ui/rule-words';
import { buttonClass } from '@/kit/button';
import { Empty } from '@/kit/empty';
import { Said } from '@/kit/toasts';
import { desk } from '@/words/desk';

export const metadata: Metadata = { title: desk('desk-access.free-reads') };

export default async function MetersPage({ searchParams }: { searchParams: Search }) {
  const staff = await requireStaff();
  const { saved } = await searchOf(searchParams);
  const { meters, names, days } = await shown(metersPlace(await currentActor()));
  const mayChange = staff.may('set access');
  return (
    <>
      {saved && <Said words={desk('desk-access.meter-saved')} />}
      <div className="flex flex-wrap items-center gap-x-8 gap-y-2" id="desk-main">
        <h1 className="text-3xl">{desk('desk-access.free-reads')}</h1>
        <AccessTabs here="meters" />
        {mayChange && (
          <Link data-new href="/desk/access/meters/new" className={buttonClass('main', 'ml-auto')}>
            {desk('desk-access.make-a-meter')}
          </Link>
        )}
      </div>
      <p className="mt-3 max-w-prose text-muted">{desk('desk-access.meters-intro')}</p>
      {meters.length === 0 ? (
        <div className="mt-5 max-w-3xl">
          <Empty title={desk('desk-access.no-meter-yet')}>{desk('desk-access.no-meter-hint')}</Empty>
        </div>
      ) : (
        <ul className="mt-5 grid max-w-4xl gap-3">
          {meters.map((meter) => (
            <li
              key={meter.id}
              className="grid gap-x-8 gap-y-2 rounded-card border border-line bg-surface p-4 sm:grid-cols-[1fr_auto]"
            >
              <div>
                <h2 className="text-lg">
                  {mayChange ? (
                    <Link href={`/desk/access/meters/${meter.id}`} className="hover:underline">
                      {meter.name}
                    </Link>
                  ) : (
                    meter.name
                  )}
                </h2>
                <p className="mt-1">{meterWords(meter, names)}</p>
                <p className="mt-1 text-muted">
                  {meter.rules.length === 0
                    ? desk('desk-access.meter-unused')
                    : desk('desk-access.meter-used-by', {
                        rules: meter.rules.map(({ name }) => `“${name}”`).join(', '),
                      })}
                </p>
              </div>
              <dl className="figures grid grid-cols-2 content-start gap-x-6 sm:text-right">
                <div>
                  <dt className="text-[0.9375rem] text-muted">{desk('desk-access.met-the-end', { days })}</dt>
                  <dd className="text-2xl">{meter.met}</dd>
                </div>
                <div>
                  <dt className="text-[0.9375rem] text-muted">{desk('desk-access.then-joined')}</dt>
                  <dd className="text-2xl">{meter.joined}</dd>
                </div>
              </dl>
            </li>
          ))}
        </ul>
      )}
    </>
  );
}

/** A meter as a sentence: "3 in 30 days for everyone, 6 for Gazer". */
function meterWords({ window, days, allowances }: StoredMeter, names: Names): string {
  const who = allowances.map((one) =>
    desk('desk-access.reads-for', { reads: one.reads, who: whoWords({ who: one.who }, names) }),
  );
  return `${who.join(', ')}, ${
    window === 'rolling'
      ? desk('desk-access.in-days', { days: days ?? 0 })
      : desk('desk-access.in-a-calendar-month')
  }.`;
}
