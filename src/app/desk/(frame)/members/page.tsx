import type { Metadata } from 'next';
import Link from 'next/link';
import { searchOf, type Search } from '@/app/search';
import { currentActor, deskWords, requireStaff, shown } from '@/app/session';
import { findMembers } from '@/members/services/find-members';
import { MembersTabs } from '@/members/ui/members-tabs';
import { MemberFilter } from '@/members/ui/member-filter';
import { TierName } from '@/kit/key-cut';
import { Email } from '@/kit/email';
import { Empty } from '@/kit/empty';
import { LifeMark } from '@/kit/state-mark';
import { Table } from '@/kit/table';
import { NextCharge } from '@/billing/ui/next-charge';
import { desk } from '@/words/desk';

export const metadata: Metadata = { title: desk('desk.members') };

export default async function MembersPage({ searchParams }: { searchParams: Search }) {
  const t = await deskWords();
  await requireStaff();
  const { q = '', tier = '', state = '', page = '1' } = await searchOf(searchParams);
  const pageNumber = Math.min(1_000_000, Math.max(1, Number.parseInt(page, 10) || 1));
  const { rows, count, tiers, perPage } = await shown(
    findMembers(await currentActor(), { search: q, tier, state, page: pageNumber }),
  );
  const pages = Math.ceil(count / perPage);
  const at = (n: number): string =>
    `/desk/members?${new URLSearchParams({ q, tier, state, page: String(n) })}`;
  const names = new Map(tiers.map((t) => [t.id, t]));
  return (
    <>
      <div className="flex flex-wrap items-baseline gap-3" id="desk-main">
        <h1 className="text-3xl">{desk('desk.members')}</h1>
        <p className="text-muted">
          {q || tier || state
            ? desk('desk-members.count-filtered', { count })
            : desk('desk.count-members', { count })}
        </p>
        <MembersTabs here="members" />
      </div>
      <MemberFilter
        t={t}
        q={q}
        tier={tier}
        state={state}
        tiers={tiers.map(({ id, name }) => ({ id, name }))}
      />
      {rows.length === 0 ? (
        <div className="mt-5">
          {q || tier || state ? (
            <Empty title={desk('desk-members.nobody-matches')}>
              {desk('desk-members.take-something-out-of-the-filter')}
            </Empty>
          ) : (
            <Empty title={desk('desk-members.no-members-yet')}>
              {desk('desk-members.put-the-join-page-into')}
            </Empty>
          )}
        </div>
      ) : (
        <Table
          heads={[
            desk('desk.name'),
            desk('desk-members.holds'),
            desk('desk.state'),
            desk('desk.next-charge'),
            desk('desk-members.joined'),
          ]}
        >
          {rows.map((row) => (
            <tr key={row.id} className="border-t border-line">
              <td className="py-2 pr-5">
                <Link href={`/desk/members/${row.id}`} className="font-semibold hover:underline">
                  {row.name || row.email}
                </Link>
                <span className="block [overflow-wrap:anywhere] text-[0.9375rem] text-muted">
                  <Email address={row.email} />
                </span>
              </td>
              <td className="py-2 pr-5">
                <span className="flex flex-wrap gap-x-4">
                  {row.tiers.map((id) => {
                    const held = names.get(id);
                    return held && <TierName key={id} cut={held.keyCut} name={held.name} />;
                  })}
                  {row.tiers.length === 0 && (
                    <span className="text-muted">{desk('desk-members.nothing-inline')}</span>
                  )}
                </span>
              </td>
              <td className="py-2 pr-5">
                {row.state ? (
                  <span className="flex flex-wrap gap-2">
                    <LifeMark t={t} state={row.state} />
                    {row.isDisputed && <LifeMark t={t} state="disputed" />}
                  </span>
                ) : (
                  <span className="text-muted">{desk('desk.none')}</span>
                )}
              </td>
              <td className="py-2 pr-5">
                <NextCharge t={t} next={row.next} />
              </td>
              <td className="py-2 whitespace-nowrap">{t.date(row.joinedAt)}</td>
            </tr>
          ))}
        </Table>
      )}
      {pages > 1 && (
        <nav aria-label={desk('desk.pages')} className="mt-4 flex items-center gap-4">
          {pageNumber > 1 && (
            <Link href={at(pageNumber - 1)} className="text-spruce underline">
              {desk('desk-members.newer')}
            </Link>
          )}
          <span className="text-muted">{desk('desk-members.page-of', { pageNumber, pages })}</span>
          {pageNumber < pages && (
            <Link href={at(pageNumber + 1)} className="text-spruce underline">
              {desk('desk-members.older')}
            </Link>
          )}
        </nav>
      )}
    </>
  );
}
