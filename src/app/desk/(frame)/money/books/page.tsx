import type { Metadata } from 'next';
import Link from 'next/link';
import { searchOf, type Search } from '@/app/search';
import { currentActor, deskWords, requireStaff, shown } from '@/app/session';
import { books } from '@/desk/services/money-lists';
import { ListBar, Pager, StateChips } from '@/kit/list-bar';
import { MoneyTabs } from '@/desk/ui/money-tabs';
import { Empty } from '@/kit/empty';
import { Table } from '@/kit/table';
import { ModeNote } from '../mode-note';
import { listPath, monthName, readListSearch } from '../query';
import { desk } from '@/words/desk';

export const metadata: Metadata = { title: desk('desk-money.books-money') };

const KINDS = ['invoice', 'refund', 'credit'] as const;
const PLURALS = {
  invoice: desk('desk.invoices'),
  refund: desk('desk-money.refunds'),
  credit: desk('desk-money.credits'),
};

/** What every month came to, and the numbered documents behind it. */
export default async function BooksPage({ searchParams }: { searchParams: Search }) {
  const t = await deskWords();
  await requireStaff();
  const asked = readListSearch(await searchOf(searchParams));
  const { months, rows, total, query, perPage } = await shown(books(await currentActor(), asked));
  const { state, search, page } = query;
  const { month, mode } = asked;
  const at = (changed: Record<string, string | number>): string =>
    listPath('/desk/money/books', { state, q: search, page, month, mode, ...changed });
  return (
    <>
      <MoneyTabs here="books" />
      <ModeNote mode={mode} at={(shown) => at({ mode: shown, page: 1 })} />
      {months.length === 0 ? (
        <div className="mt-5">
          <Empty title={desk('desk-money.no-payments-yet')}>
            {desk('desk-money.each-month-appears-here-from')}
          </Empty>
        </div>
      ) : (
        <>
          <section aria-label={desk('desk-money.by-month')}>
            <Table
              heads={[
                desk('desk-money.month'),
                desk('desk-money.received'),
                desk('desk-money.refunded'),
                desk('desk-money.invoiced'),
                desk('desk-money.credit-given'),
                desk('desk.tax'),
              ]}
              lastIsAmount
              areAmounts
            >
              {months.map((sums) => {
                const money = (amount: number): string => t.money(amount, sums.currency);
                return (
                  <tr
                    key={sums.month + sums.currency}
                    className="border-t border-line aria-[current]:bg-sunken"
                    aria-current={sums.month === month ? 'true' : undefined}
                  >
                    <td className="py-2 pr-5 font-semibold whitespace-nowrap">
                      <Link
                        href={at({ month: sums.month, page: 1 })}
                        className="hover:underline"
                        scroll={false}
                      >
                        {monthName(sums.month)}
                      </Link>
                    </td>
                    <td className="py-2 pr-5 text-right">
                      <Link
                        href={listPath('/desk/money/payments', {
                          state: 'succeeded',
                          month: sums.month,
                          mode,
                        })}
                        className="text-spruce underline"
                        aria-label={desk('desk-money.payments-of', {
                          month: monthName(sums.month),
                          amount: money(sums.received),
                        })}
                      >
                        {money(sums.received)}
                      </Link>
                    </td>
                    <td className="py-2 pr-5 text-right">
                      {sums.givenBack ? `−${money(sums.givenBack)}` : '–'}
                    </td>
                    <td className="py-2 pr-5 text-right">{money(sums.invoiced)}</td>
                    <td className="py-2 pr-5 text-right">
                      {sums.credited ? `−${money(sums.credited)}` : '–'}
                    </td>
                    <td className="py-2 text-right">{money(sums.tax)}</td>
                  </tr>
                );
              })}
            </Table>
            <p className="mt-2 max-w-prose text-[0.9375rem] text-muted">
              {desk('desk-money.amounts-invoiced-but-not-received')}
            </p>
          </section>
          <h2 className="mt-8 text-2xl">
            {month
              ? desk('desk-money.documents-of', { month: monthName(month) })
              : desk('desk-money.documents')}
          </h2>
          <StateChips
            label={desk('desk-money.kind')}
            chips={['' as const, ...KINDS].map((kind) => ({
              href: at({ state: kind, page: 1 }),
              isHere: state === kind,
              mark: kind === '' ? desk('desk.all') : PLURALS[kind],
            }))}
          />
          <ListBar
            search={search}
            searchLabel={desk('desk-money.name-email-or-number')}
            sort="newest"
            sorts={[]}
            keep={{ state, month, mode }}
            exports={[
              {
                href: listPath('/desk/money/export', { list: 'documents', state, q: search, month, mode }),
                words: desk('desk-money.documents-as-csv'),
              },
              {
                href: listPath('/desk/money/export', { list: 'ledger', mode }),
                words: desk('desk-money.ledger-as-csv'),
              },
            ]}
          />
          {month && (
            <p className="mt-3">
              <Link href={at({ month: '', page: 1 })} className="text-spruce underline">
                {desk('desk-money.show-every-month')}
              </Link>
            </p>
          )}
          {rows.length === 0 ? (
            <p className="mt-4 text-muted">{desk('desk-money.none-fits-this-filter')}</p>
          ) : (
            <Table
              heads={[
                desk('desk-money.number'),
                desk('desk-money.date'),
                desk('desk.member'),
                desk('desk.for'),
                desk('desk-money.tax-in-it'),
                desk('desk.amount'),
              ]}
              lastIsAmount
            >
              {rows.map((row) => (
                <tr key={row.id} className="border-t border-line align-top">
                  <td className="py-2 pr-5 whitespace-nowrap">
                    <Link
                      href={`/account/receipts/${row.id}`}
                      className="font-semibold text-spruce underline"
                    >
                      {row.label}
                    </Link>
                  </td>
                  <td className="py-2 pr-5 whitespace-nowrap">{t.date(row.at)}</td>
                  <td className="py-2 pr-5 whitespace-nowrap">
                    {row.memberId ? (
                      <Link href={`/desk/members/${row.memberId}`} className="hover:underline">
                        {row.buyer}
                      </Link>
                    ) : (
                      row.buyer
                    )}
                  </td>
                  <td className="py-2 pr-5">
                    {row.content.lines[0]?.words ?? t(`document.${row.kind}`)}
                    {row.content.about && (
                      <span className="block text-[0.9375rem] text-muted">
                        {desk('desk-money.of', { about: row.content.about })}
                      </span>
                    )}
                  </td>
                  <td className="py-2 pr-5 whitespace-nowrap">
                    {row.content.tax ? t.money(row.tax, row.currency) : '–'}
                  </td>
                  <td className="py-2 text-right font-semibold whitespace-nowrap">
                    {row.kind !== 'invoice' && '−'}
                    {t.money(row.total, row.currency)}
                  </td>
                </tr>
              ))}
            </Table>
          )}
          <Pager page={page} total={total} rows={perPage} at={(n) => at({ page: n })} />
        </>
      )}
    </>
  );
}
