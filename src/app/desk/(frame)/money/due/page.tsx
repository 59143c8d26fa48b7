import type { Metadata } from 'next';
import { Link } from '@/kit/link';
import { searchOf, type Search } from '@/app/search';
import { isLocalDate } from '@/core/instants';
import { currentActor, deskWords, requireStaff, shown } from '@/app/session';
import { upcomingCharges } from '@/desk/services/money-lists';
import { MoneyTabs } from '@/desk/ui/money-tabs';
import { CutOff } from '@/kit/cut-off';
import { Empty } from '@/kit/empty';
import { methodWords } from '@/words/methods';
import { LifeMark } from '@/kit/state-mark';
import { Table } from '@/kit/table';
import { desk } from '@/words/desk';

export const metadata: Metadata = { title: desk('desk-money.upcoming-charges-money') };

export default async function DuePage({ searchParams }: { searchParams: Search }) {
  const t = await deskWords();
  await requireStaff('see money');
  const { day = '' } = await searchOf(searchParams);
  const { rows, total, sums } = await shown(upcomingCharges(await currentActor(), { day }));
  return (
    <>
      <MoneyTabs here="due" />
      {isLocalDate(day) && (
        <p className="mt-4">
          {desk('desk-money.only', { month: t.day(day) })}{' '}
          <Link href="/desk/money/due" className="text-spruce underline">
            {desk('desk-money.show-all')}
          </Link>
        </p>
      )}
      {rows.length === 0 ? (
        <div className="mt-5">
          <Empty title={desk('desk-money.no-charges-in-the-next')}>
            {desk('desk-money.charges-due-within-days-appear')}
          </Empty>
        </div>
      ) : (
        <>
          <p className="figures mt-5 text-lg">
            {desk('desk-money.in-the-next-days')}{' '}
            {sums.map(({ currency, amount, count }) => (
              <span key={currency} className="mr-4">
                <b className="font-display text-2xl">{t.money(amount, currency)}</b>{' '}
                <span className="text-muted">{desk('desk-money.in-charges', { count })}</span>
              </span>
            ))}
          </p>
          <Table
            heads={[
              desk('desk-money.date'),
              desk('desk.member'),
              desk('desk.tier'),
              desk('desk.state'),
              desk('desk-money.payment-method'),
              desk('desk.amount'),
            ]}
            lastIsAmount
          >
            {rows.map((row) => (
              <tr key={row.id} className="border-t border-line">
                <td className="py-2 pr-5 whitespace-nowrap">{row.next && t.date(row.next.at)}</td>
                <td className="py-2 pr-5">
                  <Link href={`/desk/money?open=${row.id}`} className="font-semibold hover:underline">
                    {row.memberName}
                  </Link>
                </td>
                <td className="py-2 pr-5">{row.tierName}</td>
                <td className="py-2 pr-5">
                  <LifeMark t={t} state={row.state} />
                </td>
                <td className="py-2 pr-5 text-[0.9375rem] text-muted">
                  {row.methodLabel ? methodWords(row.methodLabel, t) : row.through}
                </td>
                <td className="py-2 text-right font-semibold">
                  {row.next && t.money(row.next.amount, row.next.currency)}
                </td>
              </tr>
            ))}
          </Table>
          <CutOff t={t} shown={rows.length} total={total} which="next" />
        </>
      )}
    </>
  );
}
