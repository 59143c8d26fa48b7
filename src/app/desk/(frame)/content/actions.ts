'use server';

import { redirect } from 'next/navigation';
import {
  differences,
  draftsOf,
  forForm,
  given,
  text,
  texts,
  ticked,
  versionOf,
  type FormState,
} from '@/app/form-state';
import { itemEditor } from '@/access/services/access-map';
import { plainText, articleSchema } from '@/core/content/prose';
import { currentActor, deskWords } from '@/app/session';
import { addCategory, saveItem } from '@/content/services/save-item';
import { desk } from '@/words/desk';

export async function saveItemAction(_: FormState, form: FormData, sent?: unknown): Promise<FormState> {
  const actor = await currentActor();
  const categories = texts(form, 'categories');
  const newCategory = text(form, 'newCategory').trim();
  if (newCategory) {
    const made = await addCategory(actor, { name: newCategory });
    if (!made.ok)
      return {
        problems: { newCategory: Object.values((await deskWords()).problems(made.problems))[0] ?? '' },
      };
    categories.push(made.value.id);
  }
  const input = {
    id: text(form, 'id'),
    version: versionOf(form),
    type: text(form, 'type'),
    title: text(form, 'title'),
    slug: given(form, 'slug'),
    parentId: given(form, 'parentId'),
    summary: given(form, 'summary'),
    author: given(form, 'author'),
    body: draftsOf(sent).body,
    categories: form.has('has:categories') ? categories : undefined,
    inMenu: ticked(form, 'inMenu'),
    isFront: ticked(form, 'isFront'),
    publish: text(form, 'publish') === 'publish' ? 'publish' : 'draft',
  };
  return forForm(
    saveItem(actor, input),
    ({ id }) => redirect(`/desk/content/${id}?saved=1`),
    async () => {
      const found = await itemEditor(actor, input.id);
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
