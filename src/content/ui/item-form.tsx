'use client';

import { useState, type ReactNode } from 'react';
import type { Prose } from '@/core/content/prose';
import { ActionForm, Draft, FormMessage, SubmitButton, type FormAction } from '@/kit/action-form';
import { CheckField, SelectField, TextArea, TextField } from '@/kit/field';
import { RichTextEditor, type Joinables } from './rich-text-editor';

type Props = {
  action: FormAction;
  item: {
    id: string;
    type: 'page' | 'post';
    version: number | null;
    title: string;
    slug: string;
    parentId: string;
    summary: string;
    body: Prose;
    author: string;
    categories: string[];
    inMenu: boolean;
    isFront: boolean;
    isPublished: boolean;
  };
  parents: { id: string; title: string }[];
  categories: { id: string; name: string }[];
  access: ReactNode;
  joinables: Joinables;
};

/** Writing: the text in the middle, everything about it in the margin. */
export function ItemForm({ action, item, parents, categories, access, joinables }: Props) {
  const [body, setBody] = useState(item.body);
  const [isFront, setFront] = useState(item.isFront);
  return (
    <ActionForm
      action={action}
      label={item.type === 'post' ? 'Post' : 'Page'}
      className="mt-5 grid items-start gap-8 lg:grid-cols-[1fr_20rem]"
    >
      <input type="hidden" name="id" value={item.id} />
      <input type="hidden" name="type" value={item.type} />
      <input type="hidden" name="version" value={item.version ?? ''} />
      <Draft name="body" value={body} />
      <div className="grid gap-5">
        <FormMessage />
        <TextField name="title" label="Title" defaultValue={item.title} required />
        <TextArea
          name="summary"
          label="Summary"
          defaultValue={item.summary}
          rows={2}
          hint="Shown in lists and, where you choose, at the doorstep. Everyone can read it."
        />
        <RichTextEditor label="Text" initial={item.body} onChange={setBody} joinables={joinables} />
      </div>
      <div className="grid gap-5">
        <div className="flex flex-wrap gap-3">
          <SubmitButton name="publish" value="publish" busy="Saving…" className="flex-1">
            {item.isPublished ? 'Save' : 'Publish'}
          </SubmitButton>
          <SubmitButton name="publish" value="draft" busy="Saving…" look="quiet" className="flex-1">
            {item.isPublished ? 'Unpublish' : 'Save draft'}
          </SubmitButton>
        </div>
        {access}
        {item.type === 'page' && (
          <CheckField
            name="isFront"
            label="Front page"
            checked={isFront}
            onChange={(event) => setFront(event.target.checked)}
            hint="The page people see first, at /."
          />
        )}
        {!isFront && (
          <TextField
            name="slug"
            label="Address"
            defaultValue={item.slug}
            hint={
              item.type === 'post'
                ? 'Comes after /posts/. Leave it empty to use the title.'
                : 'The last part of the address. Leave it empty to use the title.'
            }
          />
        )}
        {item.type === 'page' && !isFront && (
          <SelectField name="parentId" label="Parent page" defaultValue={item.parentId}>
            <option value="">none</option>
            {parents.map((parent) => (
              <option key={parent.id} value={parent.id}>
                {parent.title}
              </option>
            ))}
          </SelectField>
        )}
        <fieldset>
          <legend className="mb-1 font-semibold">Categories</legend>
          <div className="grid gap-1.5">
            {categories.map((category) => (
              <CheckField
                key={category.id}
                name="categories"
                value={category.id}
                label={category.name}
                defaultChecked={item.categories.includes(category.id)}
              />
            ))}
          </div>
          <TextField
            name="newCategory"
            label="New category"
            hideLabel
            placeholder="A new category"
            className="mt-2"
          />
        </fieldset>
        <TextField name="author" label="Author" defaultValue={item.author} />
        {item.type === 'page' && (
          <CheckField name="inMenu" label="Show in the menu" defaultChecked={item.inMenu} />
        )}
      </div>
    </ActionForm>
  );
}
