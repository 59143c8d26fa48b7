import type { Metadata } from 'next';
import { WRITES } from '@/core/staff';
import { cache } from 'react';
import { Link } from '@/kit/link';
import { currentActor, currentSite, deskWords, requireStaff, shown } from '@/app/session';
import { searchOf, type Search } from '@/app/search';
import { localTime } from '@/core/calendar';
import { flat, treeOf } from '@/core/content/menu';
import { canHaveComments } from '@/core/content/comments';
import { EMPTY_PROSE } from '@/core/content/prose';
import { itemEditor } from '@/access/services/content-place';
import { AccessNote, SetByNote } from '@/access/ui/access-note';
import { FileUpload } from '@/content/ui/file-upload';
import { ItemForm } from '@/content/ui/item-form';
import { ItemDeeds } from '@/content/ui/item-deeds';
import { postMail } from '@/members/services/mail-post';
import { PostMail } from '@/members/ui/post-mail';
import { Said } from '@/kit/toasts';
import { LinkButton } from '@/kit/button';
import {
  discardDraftAction,
  duplicateItemAction,
  saveDraftAction,
  saveItemAction,
  saveMenuEntryAction,
  trashItemAction,
} from '../../actions';
import { previewAction } from './preview-action';
import { desk } from '@/words/desk';
import { problem } from '@/words/problems';

type Props = { params: Promise<{ id: string }>; searchParams: Search };

/** Read once a request: for the head and for the page. */
const editorOf = cache(async (id: string, kind?: string) => itemEditor(await currentActor(), { id, kind }));

export async function generateMetadata({ params, searchParams }: Props): Promise<Metadata> {
  const found = await editorOf((await params).id, (await searchOf(searchParams)).kind);
  return {
    title: desk('desk-content.item-title', {
      name: (found.ok && found.value.item?.title) || desk('desk-content.new'),
    }),
  };
}

export default async function ItemPage({ params, searchParams }: Props) {
  const staff = await requireStaff(...WRITES);
  const [{ id }, { kind: asked, saved }] = [await params, await searchOf(searchParams)];
  const editor = await shown(editorOf(id, asked));
  const { item, kind, draft, state } = editor;
  const [t, site] = [await deskWords(), await currentSite()];
  const mail = editor.mayPublish
    ? await shown(postMail(await currentActor(), { itemId: item?.id ?? null, kind: kind.id }))
    : null;
  const tagNames = new Map(editor.tags.map((tag) => [tag.id, tag.name]));
  return (
    <>
      <p>
        <Link href={`/desk/content?kind=${kind.id}`} className="text-spruce underline">
          {kind.many}
        </Link>
      </p>
      <div className="mt-1 flex flex-wrap items-baseline gap-x-4 gap-y-1" id="desk-main">
        <h1 className="text-3xl">
          {item ? item.title : desk('desk-content.new-one', { kind: kind.one.toLowerCase() })}
        </h1>
        {state && <span className="text-muted">{desk(`desk-content.state-${state}`)}</span>}
        {item && state === 'published' && (
          <a href={item.path} target="_blank" rel="noopener" className="text-spruce underline">
            {item.path}
          </a>
        )}
      </div>
      {saved && (
        <Said
          words={
            saved === 'copy'
              ? desk('desk-content.copied')
              : saved === 'not-mailed'
                ? desk('desk-letters.not-mailed')
                : state === 'scheduled' && item?.publishedAt
                  ? desk('desk-content.scheduled-for', { time: t.dateTime(item.publishedAt) })
                  : item?.publishedAt
                    ? desk('desk.saved')
                    : desk('desk-content.draft-saved-only-staff-can')
          }
          link={item && state !== 'trashed' ? { href: item.path, words: desk('desk.view') } : undefined}
        />
      )}
      {editor.others.map(({ name, at }) => (
        <p
          key={name + at}
          role="status"
          className="mt-4 rounded-md border-l-4 border-later bg-later-wash px-4 py-2 text-later"
        >
          {desk('desk-content.someone-writes', { name, time: t.dateTime(at) })}
        </p>
      ))}
      {editor.file && item && (
        <section className="mt-4 grid gap-3 rounded-card border border-line bg-surface p-4">
          <p className="figures">
            <a
              href={`/downloads/${item.id}/${encodeURIComponent(editor.file.name)}`}
              className="font-semibold underline"
            >
              {editor.file.name}
            </a>{' '}
            <span className="text-muted">
              {t.size(editor.file.size)} · {editor.file.mediaType}
            </span>
          </p>
          <FileUpload itemId={item.id} />
        </section>
      )}
      <ItemForm
        // Saved, it is another version to change.
        key={`${editor.key}:${item?.version ?? 0}`}
        action={saveItemAction}
        autosave={{ key: editor.key, save: saveDraftAction, discard: discardDraftAction }}
        unsaved={
          draft && {
            at: t.dateTime(draft.savedAt),
            baseVersion: draft.baseVersion,
            title: draft.title,
            summary: draft.summary,
            body: draft.body,
          }
        }
        kindPath={kind.path}
        kindName={kind.one}
        kindComments={canHaveComments(kind.id) ? kind.comments.isOn : null}
        zone={site.zone}
        item={{
          id: item?.id ?? '',
          type: kind.id,
          version: item?.version ?? null,
          state: state ?? 'draft',
          title: item?.title ?? '',
          slug: item?.path.split('/').at(-1) ?? '',
          isFront: item?.path === '/',
          commentsOn: item?.commentsOn ?? null,
          parentId: item?.parentId ?? '',
          summary: item?.summary ?? '',
          body: item?.body ?? EMPTY_PROSE,
          target: item?.target ?? '',
          author: item?.author ?? '',
          categories: item?.ownCategories ?? [],
          tags: (item?.tags ?? []).map((tag) => tagNames.get(tag) ?? tag),
          pictureId: item?.pictureId ?? null,
          pictureAlt: item?.pictureAlt ?? '',
          publishAt: item?.publishedAt ? localTime(item.publishedAt, site.zone) : '',
        }}
        parents={editor.pages
          .filter(
            (other) =>
              other.id !== item?.id && !other.ancestors.includes(item?.id ?? '') && other.path !== '/',
          )
          .map(({ id: parent, title }) => ({ id: parent, title }))}
        categories={flat(treeOf(editor.categories)).map(({ row, depth }) => ({
          id: row.id,
          name: row.name,
          depth,
        }))}
        tags={editor.tags.map(({ name }) => name)}
        authors={editor.authors}
        joinables={editor.joinables}
        mayPublish={editor.mayPublish}
        gates={editor.gates}
        viewpoints={editor.viewpoints}
        preview={previewAction}
        names={editor.names}
        tooLarge={t.problem(problem('picture.too-large'))}
        mail={mail && <PostMail {...mail} maySee={staff.may('see members')} />}
        access={
          item && editor.access ? (
            <section className="rounded-card border border-line bg-surface p-4">
              <h2 className="text-lg">{desk('desk-content.who-sees-it')}</h2>
              <div className="mt-1">
                <AccessNote openers={editor.access.openers} />
              </div>
              <p className="mt-1 text-[0.9375rem]">
                <SetByNote setBy={editor.access.setBy} />
              </p>
              <LinkButton look="quiet" className="mt-3 w-full" href={`/desk/access/new?item=${item.id}`}>
                {desk('desk-content.add-a-rule-for-it')}
              </LinkButton>
              <p className="mt-3">
                <Link href={`/desk/access?why=${item.id}&as=visitor`} className="text-spruce underline">
                  {desk('desk-access.why')}
                </Link>
              </p>
            </section>
          ) : null
        }
        aside={
          item && (
            <p className="grid gap-1 text-[0.9375rem] text-muted">
              {editor.redirects.length > 0 && (
                <span className="[overflow-wrap:anywhere]">
                  {desk('desk-content.old-addresses', { paths: editor.redirects.join(', ') })}
                </span>
              )}
              <Link href={`/desk/content/items/${item.id}/history`} className="text-spruce underline">
                {desk('desk-content.history-of', { count: item.version })}
              </Link>
            </p>
          )
        }
      />
      {item && (
        <ItemDeeds
          id={item.id}
          kind={kind.id}
          canCopy={kind.id !== 'file'}
          duplicate={duplicateItemAction}
          trash={trashItemAction}
          toMenu={editor.isInMenu ? null : saveMenuEntryAction}
        />
      )}
    </>
  );
}
