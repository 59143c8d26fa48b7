import type { Metadata } from 'next';
import { cache } from 'react';
import Link from 'next/link';
import { currentActor, requireStaff, shown } from '@/app/session';
import { EMPTY_PROSE } from '@/core/content/prose';
import { itemEditor } from '@/access/services/access-map';
import { AccessNote } from '@/access/ui/access-note';
import { ItemForm } from '@/content/ui/item-form';
import { Said } from '@/kit/toasts';
import { LinkButton } from '@/kit/button';
import { saveItemAction } from '../actions';
import { desk } from '@/words/desk';

type Props = { params: Promise<{ id: string }>; searchParams: Promise<{ type?: string; saved?: string }> };

/** Read once a request: for the head and for the page. */
const editorOf = cache(async (id: string) => itemEditor(await currentActor(), id));

export async function generateMetadata({ params }: Pick<Props, 'params'>): Promise<Metadata> {
  const found = await editorOf((await params).id);
  return {
    title: desk('desk-content.item-title', {
      name: (found.ok && found.value.item?.title) || desk('desk-content.new'),
    }),
  };
}

export default async function ItemPage({ params, searchParams }: Props) {
  await requireStaff('write content');
  const [{ id }, { type, saved }] = [await params, await searchParams];
  const editor = await shown(editorOf(id));
  const { item, items, openers } = editor;
  const kind = item?.type ?? (type === 'post' ? 'post' : 'page');
  return (
    <>
      <p>
        <Link href="/desk/content" className="text-spruce underline">
          {desk('desk.content')}
        </Link>
      </p>
      <h1 className="mt-1 text-3xl" id="desk-main">
        {item ? item.title : kind === 'post' ? desk('desk-content.new-post') : desk('desk-content.new-page')}
      </h1>
      {saved && (
        <Said
          words={item?.publishedAt ? desk('desk.saved') : desk('desk-content.draft-saved-only-staff-can')}
          link={item ? { href: item.path, words: desk('desk.view') } : undefined}
        />
      )}
      <ItemForm
        // Saved, it is another version to change.
        key={`${item?.id ?? 'new'}:${item?.version ?? 0}`}
        action={saveItemAction}
        item={{
          id: item?.id ?? '',
          type: kind,
          version: item?.version ?? null,
          title: item?.title ?? '',
          slug: item?.path.split('/').at(-1) ?? '',
          isFront: item?.path === '/',
          parentId: item?.parentId ?? '',
          summary: item?.summary ?? '',
          body: item?.body ?? EMPTY_PROSE,
          author: item?.author ?? '',
          categories: item?.ownCategories ?? [],
          inMenu: item?.inMenu ?? false,
          isPublished: item?.publishedAt != null,
        }}
        parents={items
          .filter(
            (other) =>
              other.type === 'page' &&
              other.id !== item?.id &&
              !other.ancestors.includes(item?.id ?? '') &&
              other.path !== '/',
          )
          .map(({ id: parent, title }) => ({ id: parent, title }))}
        categories={editor.categories}
        joinables={editor.joinables}
        gates={editor.gates}
        access={
          item?.publishedAt ? (
            <section className="rounded-card border border-line bg-surface p-4">
              <h2 className="text-lg">{desk('desk-content.who-sees-it')}</h2>
              <div className="mt-1">
                <AccessNote openers={openers} />
              </div>
              <LinkButton look="quiet" className="mt-3 w-full" href={`/desk/access/new?item=${item.id}`}>
                {desk('desk-content.add-a-rule-for-it')}
              </LinkButton>
            </section>
          ) : null
        }
      />
    </>
  );
}
