import type { Metadata } from 'next';
import { Link } from '@/kit/link';
import { currentActor, deskWords, requireStaff, shown } from '@/app/session';
import { declineWords } from '@/billing/gateways/contract';
import { failedList } from '@/desk/services/money-lists';
import { MoneyTabs } from '@/desk/ui/money-tabs';
import { NextCharge } from '@/billing/ui/next-charge';
import { CutOff } from '@/kit/cut-off';
import { Empty } from '@/kit/empty';
import { Table } from '@/kit/table';
import { desk } from '@/words/desk';

export const metadata: Metadata = { title: desk('desk-money.failed-payments-money') };

export default async function FailedPage() {
  const t = await deskWords();
  await requireStaff('see money');
  const { rows, total } = await shown(failedList(await currentActor()));
  return (
    <>
      <MoneyTabs here="failed" />
      {rows.length === 0 ? (
        <div className="mt-5">
          <Empty title={desk('desk-money.no-failed-payments')}>
            {desk('desk-money.members-whose-payment-failed-appear')}
          </Empty>
        </div>
      ) : (
        <Table
          heads={[
            desk('desk.member'),
            desk('desk.for'),
            desk('desk-money.failed-since'),
            desk('desk-money.reason'),
            desk('desk-money.next-retry'),
            desk('desk-money.access-until'),
          ]}
        >
          {rows.map((row) => (
            <tr key={row.id} className="border-t border-line">
              <td className="py-2 pr-5">
                <Link
                  href={`/desk/money?state=overdue&open=${row.id}`}
                  className="font-semibold hover:underline"
                >
                  {row.memberName}
                </Link>
              </td>
              <td className="py-2 pr-5">{row.tierName}</td>
              <td className="py-2 pr-5 whitespace-nowrap">
                {row.since && t.date(row.since)}
                <span className="text-muted">, {desk('desk-money.attempts', { count: row.failures })}</span>
              </td>
              <td className="py-2 pr-5">{row.code ? declineWords(row.code) : ''}</td>
              <td className="py-2 pr-5">
                <NextCharge t={t} next={row.next} />
              </td>
              <td className="py-2 whitespace-nowrap">{row.graceEnd && t.date(row.graceEnd)}</td>
            </tr>
          ))}
        </Table>
      )}
      <CutOff t={t} shown={rows.length} total={total} which="first" />
    </>
  );
}
