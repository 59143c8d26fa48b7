import type { Metadata } from 'next';
import clsx from 'clsx';
import { Link } from '@/kit/link';
import { notFound } from 'next/navigation';
import { WRITES } from '@/core/staff';
import { ITEM_STATES } from '@/core/content/item';
import { searchOf, type Search } from '@/app/search';
import { currentActor, deskWords, requireStaff, shown } from '@/app/session';
import { contentPlace } from '@/access/services/content-place';
import { AccessNote, SetByNote } from '@/access/ui/access-note';
import { ContentHead } from '@/content/ui/content-head';
import { FileUpload } from '@/content/ui/file-upload';
import { ItemRows } from '@/content/ui/item-rows';
import { Button, buttonClass } from '@/kit/button';
import { Empty } from '@/kit/empty';
import { inputClass } from '@/kit/input-class';
import { Pager, StateChips } from '@/kit/list-bar';
import { arrangePagesAction, changeItemsAction } from './actions';
import { desk } from '@/words/desk';

export const metadata: Metadata = { title: desk('desk.content') };

const ACCESS = {
  everyone: desk('desk.open-to-everyone'),
  members: desk('desk-access.open-to-everyone-signed-in'),
  tiers: desk('desk-content.open-to-tiers'),
  nobody: desk('desk-access.no-tier-opens-it-now'),
  own: desk('desk-content.own-rule'),
};

export default async function ContentPage({ searchParams }: { searchParams: Search }) {
  const t = await deskWords();
  const staff = await requireStaff();
  const mayWrite = WRITES.some(staff.may);
  const asked = await searchOf(searchParams);
  const place = await shown(contentPlace(await currentActor(), { ...asked, page: pageOf(asked.page) }));
  const { kind, rows, total, kinds, categories, tags, authors } = place;
  const here = kinds.find(({ id }) => id === kind);
  if (!here) notFound();
  const names = new Map(categories.map((category) => [category.id, category.name]));
  const filters = {
    q: asked.q,
    state: asked.state,
    category: asked.category,
    tag: asked.tag,
    author: asked.author,
    access: asked.access,
  };
  const isFiltered = Object.values(filters).some(Boolean);
  const at = (change: Record<string, string | number | undefined>): string => {
    const query = new URLSearchParams();
    for (const [name, value] of Object.entries({ kind, ...filters, ...change }))
      if (value) query.set(name, value);
    return `/desk/content?${query}`;
  };
  return (
    <>
      <ContentHead here="items">
        {mayWrite && kind !== 'file' && (
          <Link
            data-new
            href={`/desk/content/items/new?kind=${kind}`}
            className={buttonClass('main', 'ml-auto')}
          >
            {desk('desk-content.new-one', { kind: here.one.toLowerCase() })}
          </Link>
        )}
      </ContentHead>
      <StateChips
        label={desk('desk-content.kinds')}
        chips={kinds.map((one) => ({
          href: `/desk/content?kind=${one.id}`,
          isHere: one.id === kind,
          mark: one.many,
          count: one.items,
        }))}
      />
      <Filters
        kind={kind}
        asked={filters}
        isFiltered={isFiltered}
        options={{
          state: ITEM_STATES.filter((state) => state !== 'trashed').map((id) => ({
            id,
            name: desk(`desk-content.state-${id}`),
          })),
          category: categories,
          tag: tags,
          author: authors.map((author) => ({ id: author, name: author })),
          access: Object.entries(ACCESS).map(([id, name]) => ({ id, name })),
        }}
      />
      {mayWrite && kind === 'file' && <FileUpload className="mt-5" />}
      {rows.length === 0 ? (
        <div className="mt-6">
          {isFiltered ? (
            <Empty title={desk('desk-content.nothing-fits')}>{desk('desk-content.nothing-fits-hint')}</Empty>
          ) : (
            <Empty title={desk('desk-content.nothing-yet', { kinds: here.many.toLowerCase() })}>
              {desk('desk-content.write-a-page-publish-it')}
            </Empty>
          )}
        </div>
      ) : (
        <ItemRows
          key={at({ page: asked.page })}
          label={here.many}
          isTree={place.isTree}
          mayWrite={mayWrite}
          categories={categories}
          tags={tags}
          place={arrangePagesAction}
          change={changeItemsAction}
          lines={rows.map(({ item, depth, state, access, file, mayWrite: isTheirs }) => ({
            id: item.id,
            mayWrite: isTheirs,
            parentId: item.parentId,
            depth,
            name: item.title,
            facts: [
              item.path,
              file && t.size(file.size),
              ...item.ownCategories.map((id) => names.get(id)),
              kind !== 'page' && item.publishedAt && t.date(item.publishedAt),
              item.author,
            ]
              .filter(Boolean)
              .join(' · '),
            state,
            stateWords: desk(`desk-content.state-${state}`),
            access: (
              <div className="grid">
                <AccessNote openers={access.openers} />
                <SetByNote setBy={access.setBy} />
              </div>
            ),
          }))}
        />
      )}
      {!place.isTree && (
        <Pager page={pageOf(asked.page)} total={total} rows={place.rowsOnPage} at={(page) => at({ page })} />
      )}
    </>
  );
}

const pageOf = (given: string | undefined): number =>
  /^[1-9]\d{0,4}$/.test(given ?? '') ? Number(given) : 1;

type Option = { id: string; name: string };
type FilterProps = {
  kind: string;
  asked: Record<string, string | undefined>;
  isFiltered: boolean;
  options: Record<'state' | 'category' | 'tag' | 'author' | 'access', Option[]>;
};

/** A plain form, so that what is shown can be sent to a colleague. */
function Filters({ kind, asked, isFiltered, options }: FilterProps) {
  const labels = {
    state: desk('desk-content.any-state'),
    category: desk('desk-content.any-category'),
    tag: desk('desk-content.any-tag'),
    author: desk('desk-content.any-author'),
    access: desk('desk-content.any-access'),
  };
  return (
    <form role="search" className="mt-4 flex flex-wrap items-center gap-3">
      <input type="hidden" name="kind" value={kind} />
      <input
        name="q"
        defaultValue={asked.q}
        data-filter
        aria-label={desk('desk-content.title-or-address')}
        placeholder={desk('desk-content.title-or-address')}
        className={clsx(inputClass, 'max-sm:w-full sm:!w-64')}
      />
      {(Object.keys(labels) as (keyof typeof labels)[])
        .filter((name) => options[name].length > 0)
        .map((name) => (
          <select
            key={name}
            name={name}
            defaultValue={asked[name] ?? ''}
            aria-label={labels[name]}
            className={clsx(inputClass, '!w-auto max-w-52')}
          >
            <option value="">{labels[name]}</option>
            {options[name].map((one) => (
              <option key={one.id} value={one.id}>
                {one.name}
              </option>
            ))}
          </select>
        ))}
      <Button type="submit" look="quiet">
        {desk('desk-content.filter')}
      </Button>
      {isFiltered && (
        <Link href={`/desk/content?kind=${kind}`} className="text-spruce underline">
          {desk('desk-content.show-all')}
        </Link>
      )}
    </form>
  );
}
