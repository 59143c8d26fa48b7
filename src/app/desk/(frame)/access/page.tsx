import clsx from 'clsx';
import type { Metadata } from 'next';
import Link from 'next/link';
import { searchOf, type Search } from '@/app/search';
import { currentActor, deskWords, requireStaff, shown } from '@/app/session';
import { accessMap } from '@/access/services/access-map';
import type { AccessMap } from '@/access/services/access-map';
import { why } from '@/access/services/why';
import { startOfDate } from '@/core/calendar';
import { isLocalDate, type LocalDate } from '@/core/instants';
import { may } from '@/core/staff';
import type { Words } from '@/words/speak';
import { deletedRules } from '@/access/services/rule-history';
import { ActionForm, FormMessage, SubmitButton } from '@/kit/action-form';
import { siteAccess } from '@/access/services/site-access';
import { OpenWeekForm, SiteDefaultForm } from '@/access/ui/site-access-form';
import { endOpenWeekAction, restoreRuleAction, saveAccessDefaultAction, saveOpenWeekAction } from './actions';
import { AccessTabs } from '@/access/ui/access-tabs';
import { AccessTable } from '@/access/ui/access-table';
import { RuleSentence } from '@/access/ui/rule-sentence';
import { WhyPanel } from '@/access/ui/why-panel';
import { Button, buttonClass } from '@/kit/button';
import { Drawer } from '@/kit/drawer';
import { inputClass } from '@/kit/input-class';
import { Empty } from '@/kit/empty';
import { Said } from '@/kit/toasts';
import { desk } from '@/words/desk';

export const metadata: Metadata = { title: desk('desk.access') };

export default async function AccessPage({ searchParams }: { searchParams: Search }) {
  const t = await deskWords();
  const staff = await requireStaff();
  const { view: asked, saved, why: item = '', as = '', on: day = '' } = await searchOf(searchParams);
  const view = asked === 'rulebook' ? 'rulebook' : 'map';
  const actor = await currentActor();
  const on = isLocalDate(day) ? day : '';
  const map = await shown(accessMap(actor, { on }));
  const asking = view === 'map' && item !== '' && as !== '';
  const answer = asking ? await why(actor, { item, as, on }) : null;
  const explained = answer?.ok ? answer.value : null;
  const mayChange = may(staff.staffRole, 'set access');
  const gone = mayChange && view === 'rulebook' ? await shown(deletedRules(actor)) : [];
  return (
    <>
      {saved && <Said words={desk('desk-access.rule-saved')} />}
      <div className="flex flex-wrap items-center gap-x-8 gap-y-2" id="desk-main">
        <h1 className="text-3xl">{desk('desk-access.who-sees-what')}</h1>
        <AccessTabs here={view} />
        {mayChange && (
          <Link data-new href="/desk/access/new" className={buttonClass('main', 'ml-auto')}>
            {desk('desk-access.make-a-rule')}
          </Link>
        )}
      </div>
      <div className={clsx('mt-5', explained && 'grid items-start gap-6 xl:grid-cols-[1fr_25rem]')}>
        {view === 'rulebook' ? (
          <>
            <p className="text-muted">
              {map.rules.length === 0
                ? desk('desk-access.there-is-no-rule-yet')
                : desk('desk-access.the-most-specific-rule-decides')}
            </p>
            {mayChange && <SiteWide />}
            <ul className="mt-4 grid gap-3 lg:grid-cols-2">
              {map.rules.map((rule) => (
                <RuleSentence
                  key={rule.id}
                  rule={rule}
                  names={map.names}
                  tiers={map.tiers}
                  meters={map.meters}
                />
              ))}
            </ul>
            {gone.length > 0 && (
              <details className="mt-6">
                <summary className="w-fit cursor-pointer font-semibold">
                  {desk('desk-access.deleted-rules', { count: gone.length })}
                </summary>
                <ul className="mt-2 max-w-2xl divide-y divide-line rounded-card border border-line bg-surface">
                  {gone.map((rule) => (
                    <li
                      key={rule.id}
                      className="flex flex-wrap items-center justify-between gap-3 px-4 py-2.5"
                    >
                      <span>
                        {rule.name}{' '}
                        <span className="text-muted">
                          {desk('desk-access.deleted-on', { date: t.date(rule.at) })}
                        </span>
                      </span>
                      <ActionForm action={restoreRuleAction}>
                        <input type="hidden" name="id" value={rule.id} />
                        <input type="hidden" name="entry" value={rule.entry} />
                        <SubmitButton busy={desk('desk.saving')} look="quiet" className="min-h-8 py-1">
                          {desk('desk-access.make-again')}
                        </SubmitButton>
                        <FormMessage />
                      </ActionForm>
                    </li>
                  ))}
                </ul>
              </details>
            )}
          </>
        ) : map.rows.length === 0 ? (
          <Empty title={desk('desk-access.nothing-is-published-yet')}>
            {desk('desk-access.publish-a-page-under-content')}
          </Empty>
        ) : (
          <div className="min-w-0">
            <MapDay on={on} t={t} />
            {map.openWeek && (
              <p className="mb-3 w-fit rounded-md bg-open-wash px-3 py-1 font-semibold text-open">
                {desk('desk-access.open-week-now', {
                  tier: map.names[`tier:${map.openWeek.tier}`] ?? map.openWeek.tier,
                  date: t.until(map.openWeek.to),
                })}
              </p>
            )}
            <AccessTable
              whyHref={(id, viewpoint) => mapHref({ why: id, as: viewpoint, on })}
              open={explained && { item, as }}
              viewpoints={map.viewpoints.map(({ id, name, tier }) => ({
                id,
                name,
                keyCut: tier?.keyCut ?? null,
              }))}
              groups={groups(map)}
              t={t}
            />
          </div>
        )}
        {explained && (
          // Where there is no room beside the map, it comes first.
          <div className="max-xl:order-first xl:contents">
            <Drawer
              title={explained.item.title}
              label={desk('desk-access.why-of', { title: explained.item.title })}
              closeHref={mapHref({ on })}
            >
              <WhyPanel why={explained} t={t} mayChange={mayChange} />
            </Drawer>
          </div>
        )}
      </div>
    </>
  );
}

/** What holds where no rule speaks, and for a time. */
async function SiteWide() {
  const { accessDefault, decidesAbout, openWeek, tiers, pages } = await shown(
    siteAccess(await currentActor()),
  );
  return (
    <div className="mt-4 grid items-start gap-3 lg:grid-cols-2">
      <SiteDefaultForm
        key={accessDefault}
        action={saveAccessDefaultAction}
        {...{ accessDefault, decidesAbout, pages }}
      />
      <OpenWeekForm
        key={JSON.stringify(openWeek)}
        action={saveOpenWeekAction}
        end={endOpenWeekAction}
        {...{ openWeek, tiers }}
      />
    </div>
  );
}

const mapHref = (parts: Record<string, string>): string => {
  const given = Object.entries(parts).filter(([, value]) => value !== '');
  return `/desk/access${given.length > 0 ? `?${new URLSearchParams(given).toString()}` : ''}`;
};

/** The day that the map shows. */
function MapDay({ on, t }: { on: LocalDate | ''; t: Words }) {
  return (
    <form action="/desk/access" className="mb-3 flex flex-wrap items-center gap-3">
      <label className="flex items-center gap-2">
        <span className="text-muted">{desk('desk-access.map-on-day')}</span>
        <input type="date" name="on" defaultValue={on} className={`${inputClass} !w-44 py-1`} />
      </label>
      <Button type="submit" look="quiet" className="min-h-9 py-1">
        {desk('desk-access.map-show')}
      </Button>
      {on && (
        <p className="rounded-md bg-later-wash px-3 py-1 font-semibold text-later">
          {desk('desk-access.map-of-day', { date: t.date(startOfDate(on, t.zone)) })}{' '}
          <Link href="/desk/access" className="font-normal underline">
            {desk('desk-access.map-today')}
          </Link>
        </p>
      )}
    </form>
  );
}

/** Rows as people think of them: pages first, then posts by their first category. */
function groups(map: AccessMap) {
  const rows = map.rows.map(({ item, decisions }) => ({
    id: item.id,
    path: item.path,
    title: item.title,
    depth: item.ancestors.length,
    decisions,
    type: item.type,
    category: item.ownCategories[0] ?? '',
  }));
  // By address, so that child pages follow their parent.
  const pages = {
    name: desk('desk.pages'),
    rows: rows.filter((row) => row.type === 'page').sort((a, b) => (a.path < b.path ? -1 : 1)),
  };
  const byCategory = [...map.categories, { id: '', name: desk('desk-access.other-posts') }].map(
    (category) => ({
      name: category.name,
      rows: rows.filter((row) => row.type === 'post' && row.category === category.id),
    }),
  );
  return [pages, ...byCategory].filter((group) => group.rows.length > 0);
}
