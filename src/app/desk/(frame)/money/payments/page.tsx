import type { Metadata } from 'next';
import Link from 'next/link';
import { requireStaff } from '@/app/session';
import { formatDateTime } from '@/core/calendar';
import { formatMoney } from '@/core/money';
import { declineWords } from '@/gateways/contract';
import { paymentList } from '@/services/money-lists';
import { MoneyTabs } from '@/ui/desk/money-tabs';
import { Empty } from '@/ui/kit/empty';
import { LifeMark } from '@/ui/kit/state-mark';
import { Table } from '@/ui/kit/table';

export const metadata: Metadata = { title: 'Payments' };

export default async function PaymentsPage() {
  await requireStaff();
  const { rows, zone } = await paymentList();
  return (
    <>
      <MoneyTabs here="payments" />
      {rows.length === 0 ? (
        <div className="mt-5">
          <Empty title="No payments yet">
            Every try to collect money stands here, whether or not it went through.
          </Empty>
        </div>
      ) : (
        <Table heads={['When', 'Member', 'For', 'Outcome', 'Gateway’s reference', 'Amount']} lastIsAmount>
          {rows.map((row) => (
            <tr key={row.id} className="border-t border-line align-top">
              <td className="py-2 pr-5 whitespace-nowrap">{formatDateTime(row.at, zone)}</td>
              <td className="py-2 pr-5 whitespace-nowrap">
                <Link href={`/desk/members/${row.memberId}`} className="font-semibold hover:underline">
                  {row.memberName}
                </Link>
              </td>
              <td className="py-2 pr-5">
                {row.tierName}
                {row.joiningFee > 0n && (
                  <span className="block text-[0.9375rem] text-muted">
                    with {formatMoney(Number(row.joiningFee), row.currency)} joining fee
                  </span>
                )}
              </td>
              <td className="py-2 pr-5">
                <LifeMark state={row.state} />
                {row.attempt > 1 && <span className="ml-2 text-muted">try {row.attempt}</span>}
                {row.declineCode && <span className="ml-2 text-muted">{declineWords(row.declineCode)}</span>}
              </td>
              <td className="py-2 pr-5 text-[0.9375rem] text-muted">{row.gatewayRef}</td>
              <td className="py-2 text-right font-semibold">{formatMoney(row.amount, row.currency)}</td>
            </tr>
          ))}
        </Table>
      )}
    </>
  );
}
