import clsx from 'clsx';
import type { Metadata } from 'next';
import { Link } from '@/kit/link';
import { searchOf, type Search } from '@/app/search';
import { currentActor, deskWords, requireStaff, shown } from '@/app/session';
import { findSomeMembers } from '@/app/find-members-action';
import { rulebook } from '@/access/services/access-map';
import { mapScreen } from '@/access/services/map';
import { why } from '@/access/services/why';
import { startOfDate } from '@/core/calendar';
import { isLocalDate, type LocalDate } from '@/core/instants';
import type { Words } from '@/words/speak';
import { deletedRules } from '@/access/services/rule-history';
import { ActionForm, FormMessage, SubmitButton } from '@/kit/action-form';
import { siteAccess } from '@/access/services/site-access';
import { OpenWeekForm, SiteDefaultForm } from '@/access/ui/site-access-form';
import {
  applyDraftAction,
  draftMembersAction,
  endOpenWeekAction,
  previewDraftAction,
  undoDraftAction,
  restoreRuleAction,
  saveAccessDefaultAction,
  saveOpenWeekAction,
} from './actions';
import { accessWarnings } from '@/access/services/warnings';
import { WarningList } from '@/access/ui/warning-list';
import { AccessTabs } from '@/access/ui/access-tabs';
import { AccessMap } from '@/access/ui/access-map';
import { RuleSentence } from '@/access/ui/rule-sentence';
import { WhyPanel } from '@/access/ui/why-panel';
import { Button, buttonClass } from '@/kit/button';
import { Drawer } from '@/kit/drawer';
import { inputClass } from '@/kit/input-class';
import { Empty } from '@/kit/empty';
import { Said } from '@/kit/toasts';
import { desk } from '@/words/desk';

export const metadata: Metadata = { title: desk('desk.access') };

type Asked = {
  on: LocalDate | '';
  also: string;
  q: string;
  open: string[] | undefined;
  item: string;
  as: string;
};

export default async function AccessPage({ searchParams }: { searchParams: Search }) {
  const staff = await requireStaff();
  const {
    view,
    saved,
    why: item = '',
    as = '',
    on = '',
    also = '',
    q = '',
    open,
  } = await searchOf(searchParams);
  const mayChange = staff.may('set access');
  const asked: Asked = {
    on: isLocalDate(on) ? on : '',
    also: also.slice(0, 200),
    q: q.slice(0, 200),
    open: open?.split(',').filter(Boolean).slice(0, 50),
    item,
    as,
  };
  return (
    <>
      {saved && <Said words={desk('desk-access.rule-saved')} />}
      <div className="flex flex-wrap items-center gap-x-8 gap-y-2" id="desk-main">
        <h1 className="text-3xl">{desk('desk-access.who-sees-what')}</h1>
        <AccessTabs here={view === 'rulebook' ? 'rulebook' : 'map'} />
        {mayChange && (
          <Link data-new href="/desk/access/new" className={buttonClass('main', 'ml-auto')}>
            {desk('desk-access.make-a-rule')}
          </Link>
        )}
      </div>
      {view === 'rulebook' ? (
        <Rulebook mayChange={mayChange} />
      ) : (
        <MapView asked={asked} mayChange={mayChange} />
      )}
    </>
  );
}

/** The rules as sentences, with what holds where none of them speaks. */
async function Rulebook({ mayChange }: { mayChange: boolean }) {
  const [t, actor] = [await deskWords(), await currentActor()];
  const { rules, names, tiers, meters } = await shown(rulebook(actor));
  const { warnings, names: warned } = await shown(accessWarnings(actor));
  const gone = mayChange ? await shown(deletedRules(actor)) : [];
  return (
    <div className="mt-5">
      <WarningList warnings={warnings} names={warned} mayChange={mayChange} />
      <p className="text-muted">
        {rules.length === 0
          ? desk('desk-access.there-is-no-rule-yet')
          : desk('desk-access.the-most-specific-rule-decides')}
      </p>
      {mayChange && <SiteWide />}
      <ul className="mt-4 grid gap-3 lg:grid-cols-2">
        {rules.map((rule) => (
          <RuleSentence key={rule.id} rule={rule} names={names} tiers={tiers} meters={meters} />
        ))}
      </ul>
      {gone.length > 0 && (
        <details className="mt-6">
          <summary className="w-fit cursor-pointer font-semibold">
            {desk('desk-access.deleted-rules', { count: gone.length })}
          </summary>
          <ul className="mt-2 max-w-2xl divide-y divide-line rounded-card border border-line bg-surface">
            {gone.map((rule) => (
              <li key={rule.id} className="flex flex-wrap items-center justify-between gap-3 px-4 py-2.5">
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
    </div>
  );
}

/** The map, and beside it why something is as it is. */
async function MapView({ asked, mayChange }: { asked: Asked; mayChange: boolean }) {
  const [t, actor] = [await deskWords(), await currentActor()];
  const { on, also, q, item, as } = asked;
  const screen = await shown(mapScreen(actor, { on, also, search: q, open: asked.open }));
  const open = asked.open ?? Object.keys(screen.rows);
  const answer = item !== '' && as !== '' ? await why(actor, { item, as, on }) : null;
  const explained = answer?.ok ? answer.value : null;
  if (screen.groups.length === 0 && q === '')
    return (
      <div className="mt-5">
        <Empty title={desk('desk-access.nothing-is-published-yet')}>
          {desk('desk-access.publish-a-page-under-content')}
        </Empty>
      </div>
    );
  return (
    <div className={clsx('mt-5', explained && 'grid items-start gap-6 xl:grid-cols-[1fr_25rem]')}>
      <div className="min-w-0">
        <MapDay on={on} also={also} q={q} t={t} />
        {screen.openWeek && (
          <p className="mb-3 w-fit rounded-md bg-open-wash px-3 py-1 font-semibold text-open">
            {desk('desk-access.open-week-now', {
              tier: screen.viewpoints.find(({ id }) => id === `tier:${screen.openWeek?.tier}`)?.name ?? '',
              date: t.until(screen.openWeek.to),
            })}
          </p>
        )}
        <AccessMap
          key={JSON.stringify([on, also, q, screen.stamp])}
          columns={screen.viewpoints}
          screen={{ groups: screen.groups, rows: screen.rows }}
          open={open}
          {...{ on, also, mayChange }}
          search={q}
          asked={explained && { item, as }}
          findMembers={findSomeMembers}
          preview={previewDraftAction}
          members={draftMembersAction}
          apply={applyDraftAction}
          undo={undoDraftAction}
        />
      </div>
      {explained && (
        // Where there is no room beside the map, it comes first.
        <div className="max-xl:order-first xl:contents">
          <Drawer
            title={explained.item.title}
            label={desk('desk-access.why-of', { title: explained.item.title })}
            closeHref={mapHref({ on, also, q, open: open.join(',') })}
          >
            <WhyPanel why={explained} t={t} mayChange={mayChange} />
          </Drawer>
        </div>
      )}
    </div>
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
function MapDay({ on, also, q, t }: { on: LocalDate | ''; also: string; q: string; t: Words }) {
  return (
    <form action="/desk/access" className="mb-3 flex flex-wrap items-center gap-3">
      {also && <input type="hidden" name="also" value={also} />}
      {q && <input type="hidden" name="q" value={q} />}
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
          <Link href={mapHref({ also, q })} className="font-normal underline">
            {desk('desk-access.map-today')}
          </Link>
        </p>
      )}
    </form>
  );
}
