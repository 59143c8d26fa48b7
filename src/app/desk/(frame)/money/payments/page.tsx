import type { Metadata } from 'next';
import { Link } from '@/kit/link';
import { searchOf, type Search } from '@/app/search';
import { currentActor, deskWords, requireStaff, shown } from '@/app/session';
import { declineWords } from '@/billing/gateways/contract';
import { paymentList } from '@/desk/services/money-lists';
import { subscriptionOfPayment } from '@/members/services/subscription-file';
import { ListBar, Pager, StateChips } from '@/kit/list-bar';
import { MoneyTabs } from '@/desk/ui/money-tabs';
import { Empty } from '@/kit/empty';
import { LifeMark } from '@/kit/state-mark';
import { Table } from '@/kit/table';
import { listPath, readListSearch } from '../query';
import { ModeNote } from '../mode-note';
import { PurchaseDrawer } from '../purchase-drawer';
import { SubscriptionDrawer } from '../subscription-drawer';
import { desk } from '@/words/desk';

export const metadata: Metadata = { title: desk('desk-money.payments-money') };

const STATES = ['succeeded', 'declined', 'intent', 'refunded', 'disputed'] as const;
const SORTS = [
  { id: 'newest', words: desk('desk-money.newest-first') },
  { id: 'oldest', words: desk('desk-money.oldest-first') },
  { id: 'amount', words: desk('desk-money.largest-first') },
  { id: 'member', words: desk('desk-money.by-name') },
];

export default async function PaymentsPage({ searchParams }: { searchParams: Search }) {
  const t = await deskWords();
  const staff = await requireStaff('see money');
  const actor = await currentActor();
  const asked = readListSearch(await searchOf(searchParams));
  const { rows, total, query, perPage } = await shown(paymentList(actor, asked));
  const { state, search, sort, page } = query;
  const { open, month, since, mode } = asked;
  const at = (changed: Record<string, string | number>): string =>
    listPath('/desk/money/payments', { state, q: search, sort, page, month, since, mode, ...changed });
  const paid = open ? await subscriptionOfPayment(actor, open) : null;
  const opened = paid?.ok ? paid.value : null;
  return (
    <>
      <MoneyTabs here="payments" />
      <ModeNote mode={mode} at={(shown) => at({ mode: shown, page: 1 })} />
      <StateChips
        label={desk('desk-money.outcome')}
        chips={['' as const, ...STATES].map((option) => ({
          href: at({ state: option, page: 1 }),
          isHere: state === option,
          mark: option === '' ? desk('desk.all') : <LifeMark t={t} state={option} />,
        }))}
      />
      <ListBar
        search={search}
        searchLabel={desk('desk-money.name-email-or-reference')}
        sort={sort}
        sorts={SORTS}
        keep={{ state, month, since, mode }}
        exports={[
          {
            href: listPath('/desk/money/export', {
              list: 'payments',
              state,
              q: search,
              sort,
              month,
              since,
              mode,
            }),
            words: desk('desk-money.export-as-csv'),
          },
          {
            href: listPath('/desk/money/export', { list: 'ledger', mode }),
            words: desk('desk-money.ledger-as-csv'),
          },
        ]}
      />
      {(month || since) && (
        <p className="mt-3">
          {month
            ? desk('desk-money.only', { month: t.month(month) })
            : since && desk('desk-money.received-since', { date: t.day(since) })}{' '}
          <Link href={at({ month: '', since: '', page: 1 })} className="text-spruce underline">
            {desk('desk-money.show-all')}
          </Link>
        </p>
      )}
      <div className={open ? 'grid items-start gap-x-8 xl:grid-cols-[1fr_28rem]' : undefined}>
        <div className="min-w-0">
          {rows.length === 0 ? (
            <div className="mt-5">
              <Empty title={desk('desk-money.no-payments-here')}>
                {state || search
                  ? desk('desk.nothing-matches-this-filter')
                  : desk('desk-money.every-payment-appears-here-received')}
              </Empty>
            </div>
          ) : (
            <Table
              heads={
                open
                  ? [desk('desk.when'), desk('desk.member'), desk('desk-money.outcome'), desk('desk.amount')]
                  : [
                      desk('desk.when'),
                      desk('desk.member'),
                      desk('desk.for'),
                      desk('desk-money.outcome'),
                      desk('desk-money.through'),
                      desk('desk.amount'),
                    ]
              }
              lastIsAmount
            >
              {rows.map((row) => (
                <tr
                  key={row.id}
                  className="border-t border-line align-top aria-[current]:bg-sunken"
                  aria-current={row.id === open ? 'true' : undefined}
                >
                  <td className="py-2 pr-5 whitespace-nowrap">{t.dateTime(row.settledAt ?? row.at)}</td>
                  <td className="py-2 pr-5 whitespace-nowrap">
                    <Link
                      href={at({ open: row.id })}
                      scroll={false}
                      className="font-semibold hover:underline"
                    >
                      {row.memberName}
                    </Link>
                  </td>
                  {!open && (
                    <td className="py-2 pr-5">
                      {row.tierName}
                      {row.joiningFee > 0n && (
                        <span className="block text-[0.9375rem] text-muted">
                          {desk('desk-money.with-joining-fee', {
                            amount: t.money(Number(row.joiningFee), row.currency),
                          })}
                        </span>
                      )}
                    </td>
                  )}
                  <td className="py-2 pr-5">
                    <LifeMark t={t} state={row.isAwaited && row.state === 'intent' ? 'awaited' : row.state} />
                    {row.dispute && (
                      <span className="ml-2">
                        <LifeMark t={t} state={`dispute-${row.dispute}`} />
                      </span>
                    )}
                    {row.attempt > 1 && (
                      <span className="ml-2 text-muted">
                        {desk('desk-money.try', { attempt: row.attempt })}
                      </span>
                    )}
                    {row.declineCode && row.state === 'declined' && (
                      <span className="ml-2 text-muted">{declineWords(row.declineCode)}</span>
                    )}
                    {row.refunded > 0 && (
                      <span className="block text-[0.9375rem] text-muted">
                        {desk('desk-money.refunded-inline', { amount: t.money(row.refunded, row.currency) })}
                      </span>
                    )}
                  </td>
                  {!open && (
                    <td className="py-2 pr-5 text-[0.9375rem]">
                      {row.through}
                      <span className="block text-muted">{row.reference ?? row.gatewayRef}</span>
                    </td>
                  )}
                  <td className="py-2 text-right font-semibold whitespace-nowrap">
                    {t.money(row.amount, row.currency)}
                  </td>
                </tr>
              ))}
            </Table>
          )}
          <Pager page={page} total={total} rows={perPage} at={(n) => at({ page: n })} />
        </div>
        {open && (
          <div className="mt-4">
            {opened ? (
              <SubscriptionDrawer id={opened} closeHref={at({})} may={staff.may} />
            ) : (
              <PurchaseDrawer paymentId={open} closeHref={at({})} may={staff.may} />
            )}
          </div>
        )}
      </div>
    </>
  );
}
