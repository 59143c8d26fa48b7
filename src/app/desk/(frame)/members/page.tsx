import type { Metadata } from 'next';
import { Link } from '@/kit/link';
import { Suspense } from 'react';
import { searchOf, type Search } from '@/app/search';
import { currentActor, deskWords, requireStaff, shown } from '@/app/session';
import { localDate } from '@/core/calendar';
import { STATES, type State } from '@/core/billing/states';
import {
  findMembers,
  memberFacets,
  type Count,
  type FoundMember,
  type Tier,
} from '@/members/services/find-members';
import { myMemberViews } from '@/members/services/member-views';
import { MemberFacets } from '@/members/ui/member-facets';
import {
  FIRST_COLUMNS,
  MEMBER_COLUMN_CHOICES,
  MemberFilter,
  type ShownColumn,
} from '@/members/ui/member-filter';
import { MemberSelection } from '@/members/ui/member-selection';
import { MembersTabs } from '@/members/ui/members-tabs';
import { MemberViews } from '@/members/ui/member-views';
import { NextCharge } from '@/billing/ui/next-charge';
import { Email } from '@/kit/email';
import { Empty } from '@/kit/empty';
import { TierName } from '@/kit/key-cut';
import { LifeMark } from '@/kit/state-mark';
import { Table } from '@/kit/table';
import { desk } from '@/words/desk';
import type { Words } from '@/words/words';
import { changeMembersAction, countForChangeAction, deleteViewAction, saveViewAction } from './list-actions';

export const metadata: Metadata = { title: desk('desk.members') };

type Asked = Record<string, string | undefined>;
type Named = { id: string; name: string };

const isState = (name: string): name is State => (STATES as readonly string[]).includes(name);
const isColumn = (name: string): name is ShownColumn =>
  (MEMBER_COLUMN_CHOICES as readonly string[]).includes(name);

/** The address of the list with something in it changed, from its first page on. */
function at(asked: Asked, columns: string[], change: Asked): string {
  const query = new URLSearchParams();
  const all: Asked = { ...asked, cols: undefined, after: undefined, before: undefined, ...change };
  for (const [name, value] of Object.entries(all)) if (value) query.set(name, value);
  if (asked.cols) for (const column of columns) query.append('cols', column);
  return query.toString();
}

export default async function MembersPage({ searchParams }: { searchParams: Search }) {
  const t = await deskWords();
  const staff = await requireStaff('see members');
  const mayManage = staff.may('manage members');
  const asked = await searchOf(searchParams);
  const chosen = [(await searchParams).cols ?? []].flat().filter(isColumn);
  const columns = chosen.length > 0 ? chosen : FIRST_COLUMNS;
  const actor = await currentActor();
  const found = await shown(findMembers(actor, asked));
  const { rows, tiers, groups, gateways, fields, previous, following } = found;
  const here = at(asked, columns, {});
  const views = await shown(myMemberViews(actor));
  const isFiltered = here !== '';
  const all = countWords(found, isFiltered);
  const list = <MembersTable {...{ t, rows, columns, tiers, groups, gateways, canTick: mayManage }} />;
  return (
    <>
      <div className="flex flex-wrap items-baseline gap-x-3 gap-y-2" id="desk-main">
        <h1 className="text-3xl">{desk('desk.members')}</h1>
        <p className="text-muted">{all}</p>
        <MembersTabs here="members" />
        {mayManage && (
          <p className="ml-auto flex flex-wrap gap-x-5 gap-y-1">
            <Link href="/desk/members/new" className="text-spruce underline">
              {desk('desk-members.add-member')}
            </Link>
            <Link href="/desk/members/invite" className="text-spruce underline">
              {desk('desk-members.invite')}
            </Link>
            <Link href="/desk/members/import" className="text-spruce underline">
              {desk('desk-members.import-link')}
            </Link>
            <Link href={`/desk/members/letters/new?${here}`} className="text-spruce underline">
              {desk('desk-letters.write-to-list')}
            </Link>
            <a href={`/desk/members/export?${here}`} download className="text-spruce underline">
              {desk('desk-members.export-csv')}
            </a>
            <a href={`/desk/members/export?form=json&${here}`} download className="text-spruce underline">
              {desk('desk-members.export-json')}
            </a>
          </p>
        )}
      </div>
      <MemberViews views={views} here={here} save={saveViewAction} remove={deleteViewAction} />
      <MemberFilter key={here} {...{ t, asked, columns, tiers, groups, gateways, fields }} />
      <Suspense fallback={<p className="mt-4 min-h-7 text-muted max-sm:hidden">{desk('desk.one-moment')}</p>}>
        <Facets {...{ t, asked, columns, tiers, groups, gateways }} />
      </Suspense>
      {rows.length === 0 ? (
        <div className="mt-5">
          {isFiltered ? (
            <Empty title={desk('desk-members.nobody-matches')}>
              {desk('desk-members.take-something-out-of-the-filter')}
            </Empty>
          ) : (
            <Empty title={desk('desk-members.no-members-yet')}>
              {desk('desk-members.put-the-join-page-into')}
            </Empty>
          )}
        </div>
      ) : mayManage ? (
        <MemberSelection
          key={here}
          filter={asked}
          all={all}
          groups={groups}
          tiers={tiers.filter(({ retiredAt }) => retiredAt === null).map(({ id, name }) => ({ id, name }))}
          today={localDate(found.now, t.zone)}
          count={countForChangeAction}
          change={changeMembersAction}
        >
          {list}
        </MemberSelection>
      ) : (
        list
      )}
      {(previous ?? following) && (
        <nav aria-label={desk('desk.pages')} className="mt-4 flex items-center gap-5">
          {previous && (
            <Link
              href={`/desk/members?${at(asked, columns, { before: previous })}`}
              className="text-spruce underline"
            >
              {desk('desk-members.previous-page')}
            </Link>
          )}
          {following && (
            <Link
              href={`/desk/members?${at(asked, columns, { after: following })}`}
              className="text-spruce underline"
            >
              {desk('desk-members.next-page')}
            </Link>
          )}
        </nav>
      )}
    </>
  );
}

function countWords({ count, isNear }: Count, isFiltered: boolean): string {
  if (isNear) return desk(isFiltered ? 'desk-members.about-filtered' : 'desk-members.about', { count });
  return desk(isFiltered ? 'desk-members.count-filtered' : 'desk.count-members', { count });
}

type FacetsProps = {
  t: Words;
  asked: Asked;
  columns: string[];
  tiers: Named[];
  groups: Named[];
  gateways: Named[];
};

async function Facets({ t, asked, columns, tiers, groups, gateways }: FacetsProps) {
  const facets = await shown(memberFacets(await currentActor(), asked));
  const nameOf = (named: Named[]) => (id: string) => named.find((one) => one.id === id)?.name ?? id;
  const kinds = [
    ['tier', nameOf(tiers)],
    ['state', (id: string) => (isState(id) ? t(`state.${id}`) : id)],
    ['group', nameOf(groups)],
    ['gateway', nameOf(gateways)],
  ] as const;
  return (
    <MemberFacets
      facets={kinds.map(([name, called]) => ({
        name,
        label: desk(`desk-members.facet-${name}`),
        parts: facets[name].map(({ id, count }) => {
          const isHere = asked[name] === id;
          return {
            id,
            name: called(id),
            count: t.count(count),
            isHere,
            href: `/desk/members?${at(asked, columns, { [name]: isHere ? undefined : id })}`,
          };
        }),
      }))}
    />
  );
}

type TableProps = {
  t: Words;
  rows: FoundMember[];
  columns: ShownColumn[];
  tiers: Tier[];
  groups: Named[];
  gateways: Named[];
  canTick: boolean;
};

function MembersTable({ t, rows, columns, tiers, groups, gateways, canTick }: TableProps) {
  const tierById = new Map(tiers.map((tier) => [tier.id, tier]));
  const groupNames = new Map(groups.map(({ id, name }) => [id, name]));
  const gatewayNames = new Map(gateways.map(({ id, name }) => [id, name]));
  const cell = (row: FoundMember, column: ShownColumn) => {
    switch (column) {
      case 'holds':
        return row.tiers.length > 0 ? (
          <span className="flex flex-wrap gap-x-4">
            {row.tiers.map((id) => {
              const held = tierById.get(id);
              return held && <TierName key={id} cut={held.keyCut} name={held.name} />;
            })}
          </span>
        ) : (
          <span className="text-muted">{desk('desk-members.nothing-inline')}</span>
        );
      case 'state':
        return row.state ? (
          <span className="flex flex-wrap gap-2">
            <LifeMark t={t} state={row.state} />
            {row.isDisputed && <LifeMark t={t} state="disputed" />}
          </span>
        ) : (
          <span className="text-muted">{desk('desk.none')}</span>
        );
      case 'next':
        return <NextCharge t={t} next={row.next} />;
      case 'joined':
        return <span className="whitespace-nowrap">{t.date(row.joinedAt)}</span>;
      case 'seen':
        return row.seenAt ? (
          <span className="whitespace-nowrap">{t.date(row.seenAt)}</span>
        ) : (
          <span className="text-muted">{desk('desk-members.never-seen')}</span>
        );
      case 'groups':
        return row.groups.map((id) => groupNames.get(id) ?? id).join(', ');
      case 'gateway':
        return row.gateway && (gatewayNames.get(row.gateway) ?? row.gateway);
    }
  };
  return (
    <Table heads={[desk('desk.name'), ...columns.map((column) => desk(`desk-members.shows-${column}`))]}>
      {rows.map((row) => (
        <tr key={row.id} className="border-t border-line">
          <td className="py-2 pr-5">
            <span className="flex items-start gap-3">
              {canTick && (
                <input
                  type="checkbox"
                  name="member"
                  value={row.id}
                  aria-label={desk('desk-members.tick', { name: row.name || row.email })}
                  className="mt-1 size-4 flex-none"
                />
              )}
              <span>
                <Link href={`/desk/members/${row.id}`} className="font-semibold hover:underline">
                  {row.name || row.email}
                </Link>
                {row.blockedAt && (
                  <span className="ml-2 rounded-full bg-closed-wash px-2 py-0.5 text-sm font-semibold text-closed">
                    {desk('desk-members.blocked')}
                  </span>
                )}
                <span className="block [overflow-wrap:anywhere] text-[0.9375rem] text-muted">
                  <Email address={row.email} />
                </span>
              </span>
            </span>
          </td>
          {columns.map((column) => (
            <td key={column} className="py-2 pr-5">
              {cell(row, column)}
            </td>
          ))}
        </tr>
      ))}
    </Table>
  );
}
