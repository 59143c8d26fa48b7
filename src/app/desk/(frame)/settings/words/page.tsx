import type { Metadata } from 'next';
import { searchOf, type Search } from '@/app/search';
import { currentActor, currentSite, requireStaff, shown } from '@/app/session';
import { listWording, type Wording } from '@/desk/services/wording';
import { SettingsHead } from '@/desk/ui/settings-head';
import { WordingForm } from '@/desk/ui/wording-form';
import { Empty } from '@/kit/empty';
import { ListBar, Pager, StateChips } from '@/kit/list-bar';
import { LANGUAGES } from '@/words/languages';
import { listPath } from '../../money/query';
import { rewordAction } from '../actions';

export const metadata: Metadata = { title: 'Wording · Settings' };

const PARTS: Record<Wording['part'], string> = {
  site: 'Site and sign-in',
  join: 'Joining',
  account: 'Account',
  offers: 'Offers',
  documents: 'Invoices',
  mails: 'Mail',
  problems: 'Errors',
};

/** Every sentence of the members' side, to be put into the owner's own words. */
export default async function WordingPage({ searchParams }: { searchParams: Search }) {
  await requireStaff('set up the site');
  const { q = '', part = '', page = '1' } = await searchOf(searchParams);
  const [site, list] = [
    await currentSite(),
    await shown(listWording(await currentActor(), { search: q.slice(0, 200), part, page })),
  ];
  const { rows, total, changed, query, perPage } = list;
  const at = (to: Record<string, string | number>): string =>
    listPath('/desk/settings/words', { q: query.search, part: query.part, page: query.page, ...to });
  return (
    <>
      <SettingsHead here="words" />
      <p className="mt-4 max-w-prose text-muted">
        Everything members and visitors read, in {LANGUAGES[site.language]}. Change any sentence; what is in
        braces is filled in for each reader.
      </p>
      <StateChips
        label="Part of the site"
        chips={[['', 'All'], ['changed', 'Changed'], ...Object.entries(PARTS)].map(([id = '', name]) => ({
          href: at({ part: id, page: 1 }),
          isHere: query.part === id,
          mark: name,
          count: id === 'changed' ? changed : undefined,
        }))}
      />
      <ListBar
        search={query.search}
        searchLabel="Search sentences"
        sort=""
        sorts={[]}
        keep={{ part: query.part }}
        exports={[]}
      />
      {rows.length === 0 ? (
        <div className="mt-5">
          <Empty title="No sentence found">
            {query.part === 'changed' && !query.search
              ? 'Sentences you change appear here.'
              : 'Try fewer words, or another part of the site.'}
          </Empty>
        </div>
      ) : (
        <ul className="mt-4 max-w-4xl divide-y divide-line border-y border-line">
          {rows.map((row) => (
            <WordingForm
              key={`${row.key}:${row.own}`}
              action={rewordAction}
              wording={row}
              part={PARTS[row.part]}
            />
          ))}
        </ul>
      )}
      <Pager page={query.page} total={total} rows={perPage} at={(to) => at({ page: to })} />
    </>
  );
}
