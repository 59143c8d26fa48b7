import type { Metadata } from 'next';
import Link from 'next/link';
import { requireStaff } from '@/app/session';
import { formatDate } from '@/core/calendar';
import { offerPrice } from '@/core/offers/sentence';
import { subscriptionList } from '@/services/money-lists';
import { MoneyTabs } from '@/ui/desk/money-tabs';
import { NextCharge } from '@/ui/desk/next-charge';
import { Empty } from '@/ui/kit/empty';
import { LifeMark } from '@/ui/kit/state-mark';
import { Table } from '@/ui/kit/table';

export const metadata: Metadata = { title: 'Money' };

const STATES = ['trial', 'active', 'overdue', 'cancelling', 'ended'] as const;

export default async function SubscriptionsPage({
  searchParams,
}: {
  searchParams: Promise<{ state?: string }>;
}) {
  await requireStaff();
  const wanted = (await searchParams).state;
  const state = STATES.find((known) => known === wanted) ?? '';
  const { rows, counts, zone } = await subscriptionList(state);
  return (
    <>
      <MoneyTabs here="subscriptions" />
      <ul className="mt-5 flex flex-wrap gap-2" aria-label="State">
        {['', ...STATES].map((option) => {
          const count =
            option === ''
              ? [...counts.values()].reduce((sum, n) => sum + n, 0)
              : (counts.get(option as (typeof STATES)[number]) ?? 0);
          return (
            <li key={option}>
              <Link
                href={option ? `/desk/money?state=${option}` : '/desk/money'}
                aria-current={state === option ? 'true' : undefined}
                className="flex items-center gap-2 rounded-full border border-line px-3 py-1 aria-[current]:border-ink aria-[current]:bg-surface"
              >
                {option === '' ? 'All' : <LifeMark state={option} />}{' '}
                <span className="figures text-muted">{count}</span>
              </Link>
            </li>
          );
        })}
      </ul>
      {rows.length === 0 ? (
        <div className="mt-5">
          <Empty title="No subscriptions here">
            {state ? 'None is in this state.' : 'They stand here once somebody joins.'}
          </Empty>
        </div>
      ) : (
        <Table heads={['Member', 'Offer', 'State', 'Next charge', 'Paid until', 'Card']}>
          {rows.map((row) => (
            <tr key={row.id} className="border-t border-line">
              <td className="py-2 pr-5">
                <Link href={`/desk/members/${row.memberId}`} className="font-semibold hover:underline">
                  {row.memberName}
                </Link>
              </td>
              <td className="py-2 pr-5">
                {row.tierName}, {row.offer && offerPrice(row.offer.definition)}
              </td>
              <td className="py-2 pr-5">
                <LifeMark state={row.state} />
              </td>
              <td className="py-2 pr-5">
                <NextCharge next={row.next} zone={zone} />
              </td>
              <td className="py-2 pr-5 whitespace-nowrap">
                {row.state === 'ended' ? (
                  <span className="text-muted">ended</span>
                ) : row.paidThrough ? (
                  formatDate(row.paidThrough, zone)
                ) : (
                  'for good'
                )}
              </td>
              <td className="py-2 text-[0.9375rem] text-muted">{row.methodLabel}</td>
            </tr>
          ))}
        </Table>
      )}
    </>
  );
}
