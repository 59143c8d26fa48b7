import type { Metadata } from 'next';
import Link from 'next/link';
import { searchOf, type Search } from '@/app/search';
import { currentActor, deskWords, requireStaff, shown } from '@/app/session';
import { accessMap } from '@/access/services/access-map';
import type { AccessMap } from '@/access/services/access-map';
import { AccessTable } from '@/access/ui/access-table';
import { RuleSentence } from '@/access/ui/rule-sentence';
import { buttonClass } from '@/kit/button';
import { Empty } from '@/kit/empty';
import { Tabs } from '@/kit/tabs';
import { Said } from '@/kit/toasts';
import { ruleNames } from './names';
import { desk } from '@/words/desk';

export const metadata: Metadata = { title: desk('desk.access') };

export default async function AccessPage({ searchParams }: { searchParams: Search }) {
  const t = await deskWords();
  await requireStaff();
  const { view: asked, saved } = await searchOf(searchParams);
  const view = asked === 'rulebook' ? 'rulebook' : 'map';
  const map = await shown(accessMap(await currentActor()));
  const names = ruleNames(map);
  return (
    <>
      {saved && <Said words={desk('desk-access.rule-saved')} />}
      <div className="flex flex-wrap items-center gap-x-8 gap-y-2" id="desk-main">
        <h1 className="text-3xl">{desk('desk-access.who-sees-what')}</h1>
        <Tabs
          label={desk('desk.view')}
          here={view}
          tabs={[
            { id: 'map', name: desk('desk-access.map'), path: '/desk/access' },
            { id: 'rulebook', name: desk('desk-access.rulebook'), path: '/desk/access?view=rulebook' },
          ]}
        />
        <Link data-new href="/desk/access/new" className={buttonClass('main', 'ml-auto')}>
          {desk('desk-access.make-a-rule')}
        </Link>
      </div>
      <div className="mt-5">
        {view === 'rulebook' ? (
          <>
            <p className="text-muted">
              {map.rules.length === 0
                ? desk('desk-access.there-is-no-rule-yet')
                : desk('desk-access.the-most-specific-rule-decides')}
            </p>
            <ul className="mt-4 grid gap-3 lg:grid-cols-2">
              {map.rules.map((rule) => (
                <RuleSentence key={rule.id} rule={rule} names={names} tiers={map.tiers} />
              ))}
            </ul>
          </>
        ) : map.rows.length === 0 ? (
          <Empty title={desk('desk-access.nothing-is-published-yet')}>
            {desk('desk-access.publish-a-page-under-content')}
          </Empty>
        ) : (
          <AccessTable
            viewpoints={map.viewpoints.map(({ id, name, tier }) => ({
              id,
              name,
              keyCut: tier?.keyCut ?? null,
            }))}
            groups={groups(map)}
            t={t}
          />
        )}
      </div>
    </>
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
