import type { Metadata } from 'next';
import Link from 'next/link';
import type { Words } from '@/words/words';
import { currentActor, deskWords, requireStaff, shown } from '@/app/session';
import { contentList } from '@/access/services/access-map';
import type { ItemHead, Openers } from '@/access/services/access-map';
import { buttonClass } from '@/kit/button';
import { Empty } from '@/kit/empty';
import { AccessNote } from '@/access/ui/access-note';
import { desk } from '@/words/desk';

export const metadata: Metadata = { title: desk('desk.content') };

/** Pages with those below them, depth first. */
function tree(
  items: ItemHead[],
  parent: string | null = null,
  depth = 0,
): { item: ItemHead; depth: number }[] {
  return items
    .filter((item) => item.type === 'page' && item.parentId === parent)
    .flatMap((item) => [{ item, depth }, ...tree(items, item.id, depth + 1)]);
}

export default async function ContentPage() {
  const t = await deskWords();
  await requireStaff();
  const { items: listed, categories } = await shown(contentList(await currentActor()));
  const items = listed.map(({ item }) => item);
  const posts = items.filter((item) => item.type === 'post');
  const names = new Map(categories.map((category) => [category.id, category.name]));
  const openers = new Map(listed.map((each) => [each.item.id, each.openers]));
  return (
    <>
      <div className="flex flex-wrap items-center gap-3" id="desk-main">
        <h1 className="mr-auto text-3xl">{desk('desk.content')}</h1>
        <Link data-new href="/desk/content/new?type=page" className={buttonClass('main')}>
          {desk('desk-content.write-a-page')}
        </Link>
        <Link href="/desk/content/new?type=post" className={buttonClass('quiet')}>
          {desk('desk-content.write-a-post')}
        </Link>
      </div>
      {items.length === 0 ? (
        <div className="mt-6">
          <Empty title={desk('desk-content.nothing-is-written-yet')}>
            {desk('desk-content.write-a-page-publish-it')}
          </Empty>
        </div>
      ) : (
        <div className="mt-5 grid items-start gap-8 xl:grid-cols-2">
          <List title={desk('desk.pages')} rows={tree(items)} openers={openers} t={t} names={names} />
          <List
            title={desk('desk.posts')}
            rows={posts.map((item) => ({ item, depth: 0 }))}
            openers={openers}
            t={t}
            names={names}
          />
        </div>
      )}
    </>
  );
}

function List({
  title,
  rows,
  openers,
  t,
  names,
}: {
  title: string;
  rows: { item: ItemHead; depth: number }[];
  openers: Map<string, Openers | null>;
  t: Words;
  names: Map<string, string>;
}) {
  if (rows.length === 0) return null;
  return (
    <section>
      <h2 className="text-xl">{title}</h2>
      <ul className="mt-2 divide-y divide-line border-y border-line">
        {rows.map(({ item, depth }) => (
          <li
            key={item.id}
            className="grid grid-cols-1 items-baseline gap-x-4 py-2 sm:grid-cols-[minmax(12rem,1fr)_auto]"
            style={{ paddingLeft: `${depth * 1.5}rem` }}
          >
            <div>
              <Link href={`/desk/content/${item.id}`} className="font-semibold hover:underline">
                {item.title}
              </Link>
              <p className="text-[0.9375rem] text-muted">
                {[
                  item.path,
                  ...item.ownCategories.map((id) => names.get(id)),
                  item.publishedAt
                    ? item.type === 'post' && t.date(item.publishedAt)
                    : desk('desk-content.draft'),
                ]
                  .filter(Boolean)
                  .join(' · ')}
              </p>
            </div>
            <AccessNote openers={openers.get(item.id) ?? null} />
          </li>
        ))}
      </ul>
    </section>
  );
}
