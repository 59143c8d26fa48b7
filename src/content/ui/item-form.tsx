'use client';

import { useState, type ReactNode } from 'react';
import type { Prose } from '@/core/content/prose';
import { ActionForm, Draft, FormMessage, SubmitButton, type FormAction } from '@/kit/action-form';
import { ChoiceField } from '@/kit/choice-field';
import { CheckField, TextArea, TextField } from '@/kit/field';
import { RichTextEditor, type Joinables } from './rich-text-editor';
import type { Gates } from './section-nodes';
import { desk } from '@/words/desk';

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
  gates: Gates;
};

/** Writing: the text in the middle, everything about it in the margin. */
export function ItemForm({ action, item, parents, categories, access, joinables, gates }: Props) {
  const [body, setBody] = useState(item.body);
  const [isFront, setFront] = useState(item.isFront);
  return (
    <ActionForm
      action={action}
      label={item.type === 'post' ? desk('desk-content.post') : desk('desk-content.page')}
      className="mt-5 grid items-start gap-8 lg:grid-cols-[1fr_20rem]"
    >
      <input type="hidden" name="id" value={item.id} />
      <input type="hidden" name="type" value={item.type} />
      <input type="hidden" name="version" value={item.version ?? ''} />
      <Draft name="body" value={body} />
      <div className="grid gap-5">
        <FormMessage />
        <TextField name="title" label={desk('desk-content.title')} defaultValue={item.title} required />
        <TextArea
          name="summary"
          label={desk('desk-content.summary')}
          defaultValue={item.summary}
          rows={2}
          hint={desk('desk-content.shown-in-lists-and-where')}
        />
        <RichTextEditor
          label={desk('desk-content.text')}
          initial={item.body}
          onChange={setBody}
          joinables={joinables}
          gates={gates}
        />
      </div>
      <div className="grid gap-5">
        <div className="flex flex-wrap gap-3">
          <SubmitButton name="publish" value="publish" busy={desk('desk.saving')} className="flex-1">
            {item.isPublished ? desk('desk.save') : desk('desk-content.publish')}
          </SubmitButton>
          <SubmitButton
            name="publish"
            value="draft"
            busy={desk('desk.saving')}
            look="quiet"
            className="flex-1"
          >
            {item.isPublished ? desk('desk-content.unpublish') : desk('desk-content.save-draft')}
          </SubmitButton>
        </div>
        {access}
        {item.type === 'page' && (
          <CheckField
            name="isFront"
            label={desk('desk-content.front-page')}
            checked={isFront}
            onChange={(event) => setFront(event.target.checked)}
            hint={desk('desk-content.the-page-people-see-first')}
          />
        )}
        {!isFront && (
          <TextField
            name="slug"
            label={desk('desk.address')}
            defaultValue={item.slug}
            hint={
              item.type === 'post'
                ? desk('desk-content.comes-after-posts-leave-it')
                : desk('desk-content.the-last-part-of-the')
            }
          />
        )}
        {item.type === 'page' && !isFront && (
          <ChoiceField
            name="parentId"
            label={desk('desk-content.parent-page')}
            defaultValue={item.parentId}
            options={[
              { id: '', name: desk('desk.none') },
              ...parents.map(({ id, title }) => ({ id, name: title })),
            ]}
          />
        )}
        <fieldset>
          <legend className="mb-1 font-semibold">{desk('desk.categories')}</legend>
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
            label={desk('desk-content.new-category')}
            hideLabel
            placeholder={desk('desk-content.a-new-category')}
            className="mt-2"
          />
        </fieldset>
        <TextField name="author" label={desk('desk-content.author')} defaultValue={item.author} />
        {item.type === 'page' && (
          <CheckField
            name="inMenu"
            label={desk('desk-content.show-in-the-menu')}
            defaultChecked={item.inMenu}
          />
        )}
      </div>
    </ActionForm>
  );
}
