import type { Metadata } from 'next';
import { Link } from '@/kit/link';
import { searchOf, type Search } from '@/app/search';
import { currentActor, deskWords, requireStaff, shown } from '@/app/session';
import { BEGUN } from '@/core/billing/states';
import { offerPrice } from '@/words/offers';
import { subscriptionList } from '@/desk/services/money-lists';
import { ListBar, Pager, StateChips } from '@/kit/list-bar';
import { MoneyTabs } from '@/desk/ui/money-tabs';
import { NextCharge } from '@/billing/ui/next-charge';
import { Empty } from '@/kit/empty';
import { methodWords } from '@/words/methods';
import { LifeMark } from '@/kit/state-mark';
import { Table } from '@/kit/table';
import { listPath, readListSearch } from './query';
import { ModeNote } from './mode-note';
import { SubscriptionDrawer } from './subscription-drawer';
import { desk } from '@/words/desk';

export const metadata: Metadata = { title: desk('desk-money.subscriptions-money') };

const SORTS = [
  { id: 'due', words: desk('desk-money.what-is-due-first') },
  { id: 'member', words: desk('desk-money.by-name') },
  { id: 'started', words: desk('desk-money.newest-first') },
  { id: 'paid-until', words: desk('desk-money.what-ends-first') },
];

export default async function SubscriptionsPage({ searchParams }: { searchParams: Search }) {
  const t = await deskWords();
  const staff = await requireStaff('see money');
  const asked = readListSearch(await searchOf(searchParams));
  const { rows, total, counts, disputed, query, perPage } = await shown(
    subscriptionList(await currentActor(), asked),
  );
  const { state, search, sort, page } = query;
  const { open, mode } = asked;
  const at = (changed: Record<string, string | number>): string =>
    listPath('/desk/money', { state, q: search, sort, page, mode, ...changed });
  const all = [...counts.values()].reduce((sum, n) => sum + n, 0);
  return (
    <>
      <MoneyTabs here="subscriptions" />
      <ModeNote mode={mode} at={(shown) => at({ mode: shown, page: 1 })} />
      <StateChips
        label={desk('desk.state')}
        chips={[
          '' as const,
          ...BEGUN,
          ...(disputed > 0 || state === 'disputed' ? (['disputed'] as const) : []),
          ...(state === 'expiring' ? (['expiring'] as const) : []),
        ].map((option) => ({
          href: at({ state: option, page: 1 }),
          isHere: state === option,
          mark: option === '' ? desk('desk.all') : <LifeMark t={t} state={option} />,
          count:
            option === ''
              ? all
              : option === 'disputed'
                ? disputed
                : option === 'expiring'
                  ? total
                  : (counts.get(option) ?? 0),
        }))}
      />
      <ListBar
        search={search}
        searchLabel={desk('desk.name-or-email')}
        sort={sort}
        sorts={SORTS}
        keep={{ state, mode }}
        exports={[
          {
            href: listPath('/desk/money/export', { list: 'subscriptions', state, q: search, sort, mode }),
            words: desk('desk-money.export-as-csv'),
          },
        ]}
      />
      <div className={open ? 'grid items-start gap-x-8 xl:grid-cols-[1fr_28rem]' : undefined}>
        <div className="min-w-0">
          {rows.length === 0 ? (
            <div className="mt-5">
              <Empty title={desk('desk-money.no-subscriptions-here')}>
                {state || search
                  ? desk('desk.nothing-matches-this-filter')
                  : desk('desk-money.subscriptions-appear-here-when-members-join')}
              </Empty>
            </div>
          ) : (
            <Table
              heads={
                open
                  ? [desk('desk.member'), desk('desk.offer'), desk('desk.state'), desk('desk.next-charge')]
                  : [
                      desk('desk.member'),
                      desk('desk.offer'),
                      desk('desk.state'),
                      desk('desk.next-charge'),
                      desk('desk-money.paid-until'),
                      desk('desk-money.paid-by'),
                    ]
              }
            >
              {rows.map((row) => (
                <tr
                  key={row.id}
                  className="border-t border-line aria-[current]:bg-sunken"
                  aria-current={row.id === open ? 'true' : undefined}
                >
                  <td className="py-2 pr-5">
                    <Link
                      href={at({ open: row.id })}
                      scroll={false}
                      className="font-semibold hover:underline"
                    >
                      {row.memberName}
                    </Link>
                  </td>
                  <td className="py-2 pr-5">
                    {row.tierName}, {row.offer && offerPrice(row.offer.definition, t)}
                  </td>
                  <td className="py-2 pr-5">
                    <span className="flex flex-wrap gap-1">
                      <LifeMark t={t} state={row.state} />
                      {row.isDisputed && <LifeMark t={t} state="disputed" />}
                      {row.pauses && <LifeMark t={t} state="pauses" />}
                    </span>
                  </td>
                  <td className="py-2 pr-5">
                    <NextCharge t={t} next={row.next} />
                  </td>
                  {!open && (
                    <>
                      <td className="py-2 pr-5 whitespace-nowrap">
                        {row.state === 'ended' ? (
                          <span className="text-muted">{desk('desk-money.ended-inline')}</span>
                        ) : row.paidThrough ? (
                          t.until(row.paidThrough)
                        ) : (
                          desk('desk.for-good')
                        )}
                      </td>
                      <td className="py-2 text-[0.9375rem] text-muted">
                        {row.methodLabel ? methodWords(row.methodLabel, t) : row.through}
                      </td>
                    </>
                  )}
                </tr>
              ))}
            </Table>
          )}
          <Pager page={page} total={total} rows={perPage} at={(n) => at({ page: n })} />
        </div>
        {open && (
          <div className="mt-4">
            <SubscriptionDrawer id={open} closeHref={at({})} may={staff.may} />
          </div>
        )}
      </div>
    </>
  );
}
