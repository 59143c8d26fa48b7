'use server';

import { redirect } from 'next/navigation';
import { draftsOf, forForm, given, text, texts, ticked, type FormState } from '@/app/form-state';
import { currentActor, deskWords } from '@/app/session';
import { addCategory, saveItem } from '@/content/services/save-item';

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
    version: text(form, 'version'),
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
  return forForm(saveItem(actor, input), ({ id }) => redirect(`/desk/content/${id}?saved=1`));
}
