import type { Metadata } from 'next';
import { Link } from '@/kit/link';
import { Fragment } from 'react';
import { searchOf, type Search } from '@/app/search';
import { currentActor, deskWords, requireStaff, shown } from '@/app/session';
import { books } from '@/desk/services/money-lists';
import { ListBar, Pager, StateChips } from '@/kit/list-bar';
import { MoneyTabs } from '@/desk/ui/money-tabs';
import { Empty } from '@/kit/empty';
import { Table } from '@/kit/table';
import { ModeNote } from '../mode-note';
import { listPath, readListSearch } from '../query';
import { desk } from '@/words/desk';
import { sumYears } from '@/core/income';
import { IncomeChart } from '@/desk/ui/income-chart';
import type { Words } from '@/words/speak';

export const metadata: Metadata = { title: desk('desk-money.books-money') };

const read = async (asked: ReturnType<typeof readListSearch>) => shown(books(await currentActor(), asked));
type Shown = Awaited<ReturnType<typeof read>>;

const KINDS = ['invoice', 'refund', 'credit'] as const;
const PLURALS = {
  invoice: desk('desk.invoices'),
  refund: desk('desk-money.refunds'),
  credit: desk('desk-money.credits'),
};

/** What every month came to, and the numbered documents behind it. */
export default async function BooksPage({ searchParams }: { searchParams: Search }) {
  const t = await deskWords();
  await requireStaff('see money');
  const asked = readListSearch(await searchOf(searchParams));
  const { months, income, rows, total, query, perPage } = await read(asked);
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
          <Income shown={income} t={t} />
          <Months months={months} t={t} month={month} mode={mode} at={at} />
          <h2 className="mt-8 text-2xl">
            {month
              ? desk('desk-money.documents-of', { month: t.month(month) })
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

/** What was received by month and tier, drawn and in figures. */
function Income({ shown: { months, currencies }, t }: { shown: Shown['income']; t: Words }) {
  return currencies.map(({ currency, tiers }) => (
    <section key={currency} className="mt-6">
      <h2 className="text-xl">
        {currencies.length > 1
          ? desk('desk-money.received-by-month-in', { currency })
          : desk('desk-money.received-by-month')}
      </h2>
      <div className="mt-3 max-w-5xl">
        <IncomeChart
          label={desk('desk-money.received-by-month')}
          times={months.map((month) => t.shortMonth(month))}
          currency={currency}
          tiers={tiers}
        />
      </div>
      <details className="mt-2">
        <summary className="w-fit text-spruce underline">{desk('desk-money.as-a-table')}</summary>
        <Table
          heads={[desk('desk.tier'), ...months.map((month) => t.shortMonth(month)), desk('desk-money.total')]}
          lastIsAmount
          areAmounts
        >
          {[
            ...tiers,
            {
              name: desk('desk-money.total'),
              amounts: months.map((_, at) => tiers.reduce((sum, { amounts }) => sum + (amounts[at] ?? 0), 0)),
            },
          ].map(({ name, amounts }, index) => (
            <tr
              key={name}
              className={
                index === tiers.length ? 'border-t-2 border-ink font-semibold' : 'border-t border-line'
              }
            >
              <th scope="row" className="py-2 pr-5 text-left font-semibold whitespace-nowrap">
                {name}
              </th>
              {amounts.map((amount, at) => (
                <td key={at} className="py-2 pr-5 text-right whitespace-nowrap">
                  {amount > 0 ? t.money(amount, currency, true) : '–'}
                </td>
              ))}
              <td className="py-2 text-right font-semibold whitespace-nowrap">
                {t.money(
                  amounts.reduce((sum, amount) => sum + amount, 0),
                  currency,
                  true,
                )}
              </td>
            </tr>
          ))}
        </Table>
      </details>
    </section>
  ));
}

type MonthsProps = {
  months: Shown['months'];
  t: Words;
  month: string;
  mode: 'test' | undefined;
  at: (changed: Record<string, string | number>) => string;
};
const SUMMED = ['received', 'givenBack', 'invoiced', 'credited', 'tax'] as const;

/** What every year and month came to. */
function Months({ months, t, month, mode, at }: MonthsProps) {
  const years = sumYears(months, SUMMED);
  const isNew = (index: number): boolean =>
    months[index]?.month.slice(0, 4) !== months[index - 1]?.month.slice(0, 4);
  return (
    <section aria-label={desk('desk-money.by-month')} className="mt-8">
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
        {months.map((sums, index) => (
          <Fragment key={sums.month + sums.currency}>
            {isNew(index) &&
              years
                .filter(({ year }) => sums.month.startsWith(year))
                .map((year) => (
                  <tr key={year.currency} className="border-t-2 border-ink font-semibold">
                    <th scope="row" className="py-2 pr-5 text-left">
                      {desk('desk-money.year-total', { year: year.year })}
                    </th>
                    <td className="py-2 pr-5 text-right">{t.money(year.received, year.currency)}</td>
                    <Rest sums={year} t={t} />
                  </tr>
                ))}
            <tr
              className="border-t border-line aria-[current]:bg-sunken"
              aria-current={sums.month === month ? 'true' : undefined}
            >
              <td className="py-2 pr-5 whitespace-nowrap">
                <Link href={at({ month: sums.month, page: 1 })} className="hover:underline" scroll={false}>
                  {t.month(sums.month)}
                </Link>
              </td>
              <td className="py-2 pr-5 text-right">
                <Link
                  href={listPath('/desk/money/payments', { state: 'succeeded', month: sums.month, mode })}
                  className="text-spruce underline"
                  aria-label={desk('desk-money.payments-of', {
                    month: t.month(sums.month),
                    amount: t.money(sums.received, sums.currency),
                  })}
                >
                  {t.money(sums.received, sums.currency)}
                </Link>
              </td>
              <Rest sums={sums} t={t} />
            </tr>
          </Fragment>
        ))}
      </Table>
      <p className="mt-2 max-w-prose text-[0.9375rem] text-muted">
        {desk('desk-money.amounts-invoiced-but-not-received')}
      </p>
    </section>
  );
}

type Summed = Pick<Shown['months'][number], 'currency' | (typeof SUMMED)[number]>;

function Rest({ sums, t }: { sums: Summed; t: Words }) {
  const money = (amount: number): string => t.money(amount, sums.currency);
  return (
    <>
      <td className="py-2 pr-5 text-right">{sums.givenBack ? `−${money(sums.givenBack)}` : '–'}</td>
      <td className="py-2 pr-5 text-right">{money(sums.invoiced)}</td>
      <td className="py-2 pr-5 text-right">{sums.credited ? `−${money(sums.credited)}` : '–'}</td>
      <td className="py-2 text-right">{money(sums.tax)}</td>
    </>
  );
}
