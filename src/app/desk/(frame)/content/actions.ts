'use server';

import { revalidatePath } from 'next/cache';
import { redirect } from 'next/navigation';
import {
  differences,
  draftsOf,
  forForm,
  formProblem,
  given,
  text,
  texts,
  ticked,
  versionOf,
  type FormState,
} from '@/app/form-state';
import { readLocalTime } from '@/core/calendar';
import type { Instant } from '@/core/instants';
import type { Opener } from '@/core/access/rule';
import type { CommentSettings } from '@/core/content/comments';
import { plainText, articleSchema } from '@/core/content/prose';
import { itemEditor } from '@/access/services/content-place';
import { moderateComments } from '@/access/services/moderate-comments';
import { deleteTerm, removeKind } from '@/access/services/delete-term';
import { saveKind } from '@/access/services/save-kind';
import { currentActor, currentSite, deskWords } from '@/app/session';
import { arrangePages } from '@/content/services/arrange-pages';
import { arrangeCategories, saveCategory } from '@/content/services/categories';
import { changeItems } from '@/content/services/change-items';
import { discardDraft, saveDraft } from '@/content/services/drafts';
import { duplicateItem } from '@/content/services/duplicate-item';
import { arrangeMenu, removeMenuEntry, saveMenuEntry } from '@/content/services/menu';
import { savePageRole } from '@/content/services/page-roles';
import { restoreRevision } from '@/content/services/revisions';
import { saveItem } from '@/content/services/save-item';
import { addTag, arrangeTags, renameTag } from '@/content/services/tags';
import { deleteItems, restoreItem, trashItems } from '@/content/services/trash-items';
import { mailPost } from '@/members/services/mail-post';
import type { DraftInput } from '@/content/ui/autosave';
import type { BulkChange } from '@/content/ui/item-rows';
import type { Place } from '@/core/content/tree';
import type { Result } from '@/platform/result';
import { desk } from '@/words/desk';

const PLACE = '/desk/content';
/** Done; what is on the screen is read anew. */
const said = (message: string, more: Partial<FormState> = {}): FormState => {
  revalidatePath(PLACE, 'layout');
  return { problems: {}, message, ...more };
};
/** What is wrong, as one sentence; null where it is done. */
async function wrong(answer: Promise<Result<unknown>>): Promise<string | null> {
  const result = await answer;
  if (!result.ok) return Object.values((await deskWords()).problems(result.problems))[0] ?? '';
  revalidatePath(PLACE, 'layout');
  return null;
}

export async function saveItemAction(_: FormState, form: FormData, sent?: unknown): Promise<FormState> {
  const actor = await currentActor();
  const categories = texts(form, 'categories');
  const newCategory = text(form, 'newCategory').trim();
  // A form shows minutes: what was not changed stays as it is, to the second.
  const typed = text(form, 'publishAt');
  const publishAt = typed === text(form, 'publishAtWas') ? '' : typed;
  const at = publishAt ? readLocalTime(publishAt, (await currentSite()).zone) : null;
  if (publishAt && !at) return formProblem('publishAt', 'date.unreal');
  if (newCategory) {
    const made = await saveCategory(actor, { name: newCategory });
    if (!made.ok)
      return {
        problems: { newCategory: Object.values((await deskWords()).problems(made.problems))[0] ?? '' },
      };
    categories.push(made.value.id);
  }
  const drafts = draftsOf(sent);
  const input = {
    id: text(form, 'id'),
    version: versionOf(form),
    type: text(form, 'type'),
    title: text(form, 'title'),
    slug: given(form, 'slug'),
    parentId: given(form, 'parentId'),
    summary: given(form, 'summary'),
    target: given(form, 'target'),
    author: given(form, 'author'),
    body: drafts.body,
    tags: drafts.tags,
    // A picture is sent only where another was chosen, or this one was taken away.
    pictureId: text(form, 'pictureGone') === 'on' ? null : text(form, 'pictureId') || undefined,
    pictureAlt: given(form, 'pictureAlt'),
    categories: form.has('has:categories') || newCategory ? categories : undefined,
    isFront: ticked(form, 'isFront'),
    commentsOn: form.has('comments') ? ({ on: true, off: false }[text(form, 'comments')] ?? null) : undefined,
    publish: text(form, 'publish') === 'draft' ? 'draft' : at ? { at } : 'publish',
  };
  const closedGet = text(form, 'closedGet');
  return forForm(
    saveItem(actor, input),
    async ({ id }) => {
      const isMailed = ticked(form, 'byMail') === true && input.publish !== 'draft';
      const mailed = isMailed ? await mailPost(actor, { itemId: id, closedGet }) : null;
      redirect(`${PLACE}/items/${id}?saved=${mailed?.ok === false ? 'not-mailed' : '1'}`);
    },
    async () => {
      const found = await itemEditor(actor, { id: input.id });
      const theirs = found.ok ? found.value.item : null;
      const body = articleSchema.safeParse(input.body);
      return differences(theirs?.version, [
        { label: desk('desk-content.title'), theirs: theirs?.title ?? '', yours: input.title },
        { label: desk('desk-content.summary'), theirs: theirs?.summary ?? '', yours: input.summary ?? '' },
        {
          label: desk('desk-content.text'),
          theirs: theirs ? plainText(theirs.body) : '',
          yours: body.success ? plainText(body.data) : '',
        },
        { label: desk('desk-content.author'), theirs: theirs?.author ?? '', yours: input.author ?? '' },
      ]);
    },
  );
}

export async function saveDraftAction(draft: DraftInput): Promise<Instant | null> {
  const saved = await saveDraft(await currentActor(), draft);
  return saved.ok ? saved.value.savedAt : null;
}

export async function discardDraftAction(key: string): Promise<void> {
  await discardDraft(await currentActor(), key);
}

export async function duplicateItemAction(_: FormState, form: FormData): Promise<FormState> {
  return forForm(duplicateItem(await currentActor(), text(form, 'id')), ({ id }) =>
    redirect(`${PLACE}/items/${id}?saved=copy`),
  );
}

export async function trashItemAction(_: FormState, form: FormData): Promise<FormState> {
  return forForm(trashItems(await currentActor(), [text(form, 'id')]), () =>
    redirect(`${PLACE}?kind=${encodeURIComponent(text(form, 'kind'))}&saved=trash`),
  );
}

export async function restoreItemAction(_: FormState, form: FormData): Promise<FormState> {
  return forForm(restoreItem(await currentActor(), text(form, 'id')), ({ path }) =>
    said(desk('desk-content.restored-to', { path })),
  );
}

export async function deleteItemsAction(_: FormState, form: FormData): Promise<FormState> {
  return forForm(deleteItems(await currentActor(), texts(form, 'id')), ({ count }) =>
    said(desk('desk-content.deleted-count', { count })),
  );
}

/** Changes all that are ticked; the trash is one of the changes, for it is asked for in the same place. */
export async function changeItemsAction(
  ids: string[],
  change: BulkChange | undefined,
): Promise<{ problem?: string; message?: string }> {
  const actor = await currentActor();
  const isTrash = change?.kind === 'trash';
  const result = await (isTrash ? trashItems(actor, ids) : changeItems(actor, { ids, change }));
  if (!result.ok) return { problem: Object.values((await deskWords()).problems(result.problems))[0] ?? '' };
  revalidatePath(PLACE, 'layout');
  const { count } = result.value;
  return {
    message: desk(isTrash ? 'desk-content.trashed-count' : 'desk-content.changed-count', {
      count,
    }),
  };
}

export async function arrangePagesAction(id: string, place: Place): Promise<string | null> {
  return wrong(arrangePages(await currentActor(), { id, ...place }));
}

export async function restoreRevisionAction(_: FormState, form: FormData): Promise<FormState> {
  const input = { id: text(form, 'id'), version: text(form, 'version') };
  return forForm(restoreRevision(await currentActor(), input), ({ id }) =>
    redirect(`${PLACE}/items/${id}?saved=1`),
  );
}

export async function saveCategoryAction(_: FormState, form: FormData): Promise<FormState> {
  const input = { id: text(form, 'id'), name: text(form, 'name'), parentId: given(form, 'parentId') };
  return forForm(saveCategory(await currentActor(), input), () => said(desk('desk.saved')));
}

/** Puts a category in a place: the order of all, and for it its parent. */
export async function placeCategoryAction(
  category: { id: string; name: string } | undefined,
  place: Place | undefined,
  ids: string[],
): Promise<string | null> {
  const actor = await currentActor();
  const input = { id: category?.id, name: category?.name, parentId: place?.parentId };
  const problem = await wrong(saveCategory(actor, input));
  return problem ?? wrong(arrangeCategories(actor, ids));
}

export async function deleteTermAction(_: FormState, form: FormData): Promise<FormState> {
  const input = { of: text(form, 'of'), id: text(form, 'id'), into: text(form, 'into') };
  return forForm(deleteTerm(await currentActor(), input), () => said(desk('desk-content.term-deleted')));
}

export async function addTagAction(_: FormState, form: FormData): Promise<FormState> {
  return forForm(addTag(await currentActor(), { name: text(form, 'name') }), () => said(desk('desk.saved')));
}

export async function renameTagAction(_: FormState, form: FormData): Promise<FormState> {
  const input = { id: text(form, 'id'), name: text(form, 'name') };
  return forForm(renameTag(await currentActor(), input), () => said(desk('desk.saved')));
}

export async function placeTagAction(_: unknown, __: Place, ids: string[]): Promise<string | null> {
  return wrong(arrangeTags(await currentActor(), ids));
}

export async function moderateCommentsAction(_: FormState, form: FormData): Promise<FormState> {
  const state = text(form, 'state');
  return forForm(moderateComments(await currentActor(), { ids: texts(form, 'id'), state }), ({ count }) =>
    said(
      desk(state === 'shown' ? 'desk-content.comments-approved' : 'desk-content.comments-removed-now', {
        count,
      }),
    ),
  );
}

export async function saveKindAction(_: FormState, form: FormData): Promise<FormState> {
  const who = given(form, 'who');
  const input = {
    id: text(form, 'id'),
    name: text(form, 'name'),
    plural: text(form, 'plural'),
    path: text(form, 'path'),
    ...(who && { openTo: { who, tiers: texts(form, 'tiers') } }),
    comments: commentsOf(form),
  };
  return forForm(saveKind(await currentActor(), input), ({ ruleId }) =>
    said(ruleId ? desk('desk-content.kind-made-with-rule') : desk('desk.saved')),
  );
}

/** The comments of a kind; nothing where the form does not ask. */
function commentsOf(form: FormData): CommentSettings | undefined {
  const isOn = ticked(form, 'commentsOn');
  if (isOn === undefined) return undefined;
  const openers = (name: string): Opener[] | null => {
    const who = text(form, name);
    if (who === 'tiers') return texts(form, `${name}.tiers`).map((id) => ({ who: { kind: 'tier', id } }));
    return who === 'signed-in' || who === 'paying' ? [{ who: { kind: who } }] : null;
  };
  return {
    isOn,
    readers: openers('commentReaders'),
    writers: openers('commentWriters'),
    isHeld: form.has('commentsHeld'),
  };
}

export async function removeKindAction(_: FormState, form: FormData): Promise<FormState> {
  return forForm(removeKind(await currentActor(), text(form, 'id')), () =>
    said(desk('desk-content.term-deleted')),
  );
}

export async function saveMenuEntryAction(_: FormState, form: FormData): Promise<FormState> {
  const kind = text(form, 'kind');
  const input = {
    id: text(form, 'id'),
    kind,
    target: text(form, kind === 'outside' ? 'address' : `target-${kind}`),
    label: text(form, 'label'),
    audience: text(form, 'audience') || undefined,
    look: text(form, 'look') || undefined,
  };
  return forForm(saveMenuEntry(await currentActor(), input), () => said(desk('desk.saved')));
}

export async function removeMenuEntryAction(_: FormState, form: FormData): Promise<FormState> {
  return forForm(removeMenuEntry(await currentActor(), text(form, 'id')), () =>
    said(desk('desk-content.entry-removed')),
  );
}

export async function savePageRoleAction(_: FormState, form: FormData): Promise<FormState> {
  const input = { role: text(form, 'role'), itemId: text(form, 'itemId') };
  return forForm(savePageRole(await currentActor(), input), () => said(desk('desk.saved')));
}

export async function arrangeMenuAction(
  places: { id: string; parentId: string | null }[],
): Promise<string | null> {
  return wrong(arrangeMenu(await currentActor(), places));
}
