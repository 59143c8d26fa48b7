import type { Metadata } from 'next';
import { searchOf, type Search } from '@/app/search';
import { currentActor, currentSite, requireStaff, shown } from '@/app/session';
import { listWording, type Wording } from '@/desk/services/wording';
import { WordingForm } from '@/desk/ui/wording-form';
import { Empty } from '@/kit/empty';
import { ListBar, Pager, StateChips } from '@/kit/list-bar';
import { LANGUAGES } from '@/words/languages';
import { listPath } from '../../money/query';
import { rewordAction } from '../actions';
import { desk } from '@/words/desk';

export const metadata: Metadata = { title: desk('desk-settings.wording-settings') };

const PARTS: Record<Wording['part'], string> = {
  site: desk('desk-settings.site-and-sign-in'),
  comments: desk('desk-content.comments'),
  join: desk('desk.joining'),
  account: desk('desk.account'),
  offers: desk('desk.offers'),
  documents: desk('desk.invoices'),
  mails: desk('desk-settings.mail'),
  problems: desk('desk-settings.errors'),
};

/** Every sentence of the members' side, to be put into the owner's own words. */
export default async function WordingPage({ searchParams }: { searchParams: Search }) {
  await requireStaff('change settings');
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
      <p className="mt-4 max-w-prose text-muted">
        {desk('desk-settings.everything-members-and-visitors-read', { language: LANGUAGES[site.language] })}
      </p>
      <StateChips
        label={desk('desk-settings.part-of-the-site')}
        chips={[
          ['', desk('desk.all')],
          ['changed', desk('desk-settings.changed')],
          ...Object.entries(PARTS),
        ].map(([id = '', name]) => ({
          href: at({ part: id, page: 1 }),
          isHere: query.part === id,
          mark: name,
          count: id === 'changed' ? changed : undefined,
        }))}
      />
      <ListBar
        search={query.search}
        searchLabel={desk('desk-settings.search-sentences')}
        sort=""
        sorts={[]}
        keep={{ part: query.part }}
        exports={[]}
      />
      {rows.length === 0 ? (
        <div className="mt-5">
          <Empty title={desk('desk-settings.no-sentence-found')}>
            {query.part === 'changed' && !query.search
              ? desk('desk-settings.sentences-you-change-appear-here')
              : desk('desk-settings.try-fewer-words-or-another')}
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
