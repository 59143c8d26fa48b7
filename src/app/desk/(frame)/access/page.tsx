import type { Metadata } from 'next';
import Link from 'next/link';
import { requireStaff } from '@/app/session';
import { accessMap, type AccessMap } from '@/services/access-map';
import { AccessTable } from '@/ui/desk/access-table';
import { RuleSentence } from '@/ui/desk/rule-sentence';
import { buttonClass } from '@/ui/kit/button';
import { Empty } from '@/ui/kit/empty';
import { ruleNames } from './names';

export const metadata: Metadata = { title: 'Access' };

export default async function AccessPage() {
  await requireStaff();
  const map = await accessMap();
  const names = ruleNames(map);
  return (
    <>
      <div className="flex flex-wrap items-center gap-3" id="desk-main">
        <h1 className="mr-auto text-3xl">Who sees what</h1>
        <Link data-new href="/desk/access/new" className={buttonClass('main')}>Make a rule</Link>
      </div>
      <div className="mt-5 grid items-start gap-8 xl:grid-cols-[1fr_24rem]">
        {map.rows.length === 0 ? (
          <Empty title="Nothing is published yet">Write and publish a page under Content; then it stands here, with who sees it.</Empty>
        ) : (
          <AccessTable viewpoints={map.viewpoints.map(({ id, name, tier }) => ({ id, name, keyCut: tier?.keyCut ?? null }))} groups={groups(map)} zone={map.zone} />
        )}
        <section aria-labelledby="rulebook">
          <h2 id="rulebook" className="text-xl">Rulebook</h2>
          <p className="mt-1 text-muted">What no rule covers is open to {map.rules.length === 0 ? 'everyone: nothing is closed yet.' : 'everyone.'}</p>
          <ul className="mt-3 grid gap-3">
            {map.rules.map((rule) => <RuleSentence key={rule.id} rule={rule} names={names} tiers={map.tiers} />)}
          </ul>
        </section>
      </div>
    </>
  );
}

/** Rows as people think of them: pages first, then posts by their first category. */
function groups(map: AccessMap) {
  const rows = map.rows.map(({ item, decisions }) => ({
    id: item.id,
    title: item.title,
    depth: item.ancestors.length,
    decisions,
    type: item.type,
    category: item.ownCategories[0] ?? '',
  }));
  const pages = { name: 'Pages', rows: rows.filter((row) => row.type === 'page') };
  const byCategory = [...map.categories, { id: '', name: 'Other posts' }].map((category) => ({ name: category.name, rows: rows.filter((row) => row.type === 'post' && row.category === category.id) }));
  return [pages, ...byCategory].filter((group) => group.rows.length > 0);
}
