'use server';

import { redirect } from 'next/navigation';
import { forForm, parseJson, text, type FormState } from '@/app/form-state';
import { currentActor } from '@/app/session';
import { addCategory, saveItem, type ItemInput } from '@/services/save-item';

export async function saveItemAction(_: FormState, form: FormData): Promise<FormState> {
  const actor = await currentActor();
  const body = parseJson(text(form, 'body'));
  return forForm(
    async () => {
      const categories = form.getAll('categories').map(String);
      const newCategory = text(form, 'newCategory').trim();
      if (newCategory) {
        const made = await addCategory(actor, { name: newCategory });
        if (!made.ok) return { ok: false, problems: { newCategory: Object.values(made.problems)[0] ?? '' } };
        categories.push(made.value.id);
      }
      return saveItem(actor, {
        id: text(form, 'id') || undefined,
        version: text(form, 'version') ? Number(text(form, 'version')) : undefined,
        type: text(form, 'type') as ItemInput['type'],
        title: text(form, 'title'),
        slug: text(form, 'slug'),
        parentId: text(form, 'parentId') || null,
        summary: text(form, 'summary'),
        author: text(form, 'author'),
        body: body as ItemInput['body'],
        categories,
        inMenu: text(form, 'inMenu') === 'on',
        publish: text(form, 'publish') === 'publish' ? 'publish' : 'draft',
      });
    },
    ({ id }) => redirect(`/desk/content/${id}?saved=1`),
  );
}
