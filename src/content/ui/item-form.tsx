'use client';

import clsx from 'clsx';
import { Eye } from 'lucide-react';
import { useState, type ReactNode } from 'react';
import type { ItemState } from '@/core/content/item';
import type { Prose } from '@/core/content/prose';
import { ActionForm, Draft, FormMessage, ProblemOf, SubmitButton, type FormAction } from '@/kit/action-form';
import { ChoiceField } from '@/kit/choice-field';
import { CheckField, SelectField, TextArea, TextField } from '@/kit/field';
import { Button } from '@/kit/button';
import type { ItemNames } from './article-nodes';
import { Autosave, type SaveDraft } from './autosave';
import { EditorPreview, type ShowPreview } from './editor-preview';
import { PictureField } from './picture-field';
import { RichTextEditor, type Joinables } from './rich-text-editor';
import { TagField } from './tag-field';
import type { Gates } from './section-nodes';
import { desk } from '@/words/desk';

export type ItemDraft = {
  id: string;
  type: string;
  version: number | null;
  state: ItemState;
  title: string;
  slug: string;
  parentId: string;
  summary: string;
  body: Prose;
  target: string;
  author: string;
  categories: string[];
  tags: string[];
  pictureId: string | null;
  pictureAlt: string;
  isFront: boolean;
  /** Null: as its kind has them. */
  commentsOn: boolean | null;
  /** When it comes or came out, as a form has a local time; '' where that is not set. */
  publishAt: string;
};

/** What someone wrote here and did not save. */
export type Unsaved = {
  at: string;
  baseVersion: number | null;
  title: string;
  summary: string;
  body: Prose;
};

type Props = {
  action: FormAction;
  autosave: { key: string; save: SaveDraft; discard: (key: string) => Promise<void> };
  unsaved: Unsaved | null;
  item: ItemDraft;
  /** The address of its kind's list, below which it is. */
  kindPath: string | null;
  kindName: string;
  /** Whether its kind has comments; null where it can have none. */
  kindComments: boolean | null;
  zone: string;
  parents: { id: string; title: string }[];
  categories: { id: string; name: string; depth: number }[];
  tags: string[];
  authors: string[];
  /** Who sees it, and what else is said and done beside the form. */
  access: ReactNode;
  /** How it is emailed, within the form; null where it can’t be. */
  mail: ReactNode;
  aside: ReactNode;
  joinables: Joinables;
  /** Whether the one who writes may publish, and change what is out. */
  mayPublish: boolean;
  gates: Gates;
  /** From whose eyes a preview can be had, and how. */
  viewpoints: { id: string; name: string }[];
  preview: ShowPreview;
  names: ItemNames;
  tooLarge: string;
};

/** Writing, from what is saved or from what was not saved yet. */
export function ItemForm({ unsaved, item, ...props }: Props) {
  const [chosen, choose] = useState<'saved' | 'unsaved' | null>(unsaved ? null : 'saved');
  const start: ItemDraft =
    chosen === 'unsaved' && unsaved
      ? {
          ...item,
          title: unsaved.title,
          summary: unsaved.summary,
          body: unsaved.body,
          // What has been saved since is compared when this is saved.
          version: unsaved.baseVersion ?? item.version,
        }
      : item;
  return (
    <>
      {unsaved && chosen === null && (
        <div
          role="alert"
          className="mt-4 flex flex-wrap items-center gap-3 rounded-md border-l-4 border-metered bg-metered-wash px-4 py-3"
        >
          <p className="mr-auto font-semibold">{desk('desk-content.unsaved-words', { time: unsaved.at })}</p>
          <Button onClick={() => choose('unsaved')}>{desk('desk-content.continue-unsaved')}</Button>
          <Button
            look="quiet"
            onClick={() => {
              choose('saved');
              void props.autosave.discard(props.autosave.key);
            }}
          >
            {desk('desk-content.discard-unsaved')}
          </Button>
        </div>
      )}
      <ItemFields key={chosen ?? 'saved'} item={start} {...props} />
    </>
  );
}

function ItemFields({
  action,
  autosave,
  item,
  kindPath,
  kindName,
  kindComments,
  zone,
  parents,
  categories,
  tags,
  authors,
  access,
  mail,
  aside,
  joinables,
  mayPublish,
  gates,
  viewpoints,
  preview,
  names,
  tooLarge,
}: Omit<Props, 'unsaved'>) {
  const [body, setBody] = useState(item.body);
  const [isFront, setFront] = useState(item.isFront);
  const [isPreviewed, setPreviewed] = useState(false);
  const isPage = item.type === 'page';
  const isOut = item.state === 'published' || item.state === 'scheduled';
  return (
    <ActionForm
      action={action}
      label={kindName}
      className={clsx(
        'mt-5 grid items-start gap-8',
        isPreviewed ? 'lg:grid-cols-2' : 'lg:grid-cols-[minmax(0,1fr)_20rem]',
      )}
    >
      <input type="hidden" name="id" value={item.id} />
      <input type="hidden" name="type" value={item.type} />
      <input type="hidden" name="version" value={item.version ?? ''} />
      <Draft name="body" value={body} />
      <div className="grid gap-5">
        <FormMessage />
        <TextField
          name="title"
          label={desk('desk-content.title')}
          defaultValue={item.title}
          maxLength={200}
          required
        />
        {item.type === 'link' && (
          <TextField
            name="target"
            label={desk('desk-content.target')}
            defaultValue={item.target}
            hint={desk('desk-content.target-hint')}
            maxLength={2000}
          />
        )}
        <TextArea
          name="summary"
          label={desk('desk-content.summary')}
          defaultValue={item.summary}
          rows={2}
          maxLength={400}
          hint={desk('desk-content.shown-in-lists-and-where')}
        />
        <RichTextEditor
          label={desk('desk-content.text')}
          initial={item.body}
          onChange={setBody}
          joinables={joinables}
          gates={gates}
          names={names}
        />
        <ProblemOf name="body" />
        <Button
          look="quiet"
          className="w-fit"
          aria-expanded={isPreviewed}
          onClick={() => setPreviewed(!isPreviewed)}
        >
          <Eye className="size-4.5" aria-hidden />
          {isPreviewed ? desk('desk-content.close-preview') : desk('desk-content.preview')}
        </Button>
      </div>
      {isPreviewed && (
        <EditorPreview id={item.id} type={item.type} body={body} viewpoints={viewpoints} show={preview} />
      )}
      <div className={clsx('grid gap-5', isPreviewed && 'items-start lg:col-span-2 lg:grid-cols-3')}>
        <div>
          <div className="flex flex-wrap gap-3">
            {mayPublish && (
              <SubmitButton name="publish" value="publish" busy={desk('desk.saving')} className="flex-1">
                {isOut ? desk('desk.save') : desk('desk-content.publish')}
              </SubmitButton>
            )}
            {(mayPublish || !isOut) && (
              <SubmitButton
                name="publish"
                value="draft"
                busy={desk('desk.saving')}
                look="quiet"
                className="flex-1"
              >
                {isOut ? desk('desk-content.unpublish') : desk('desk-content.save-draft')}
              </SubmitButton>
            )}
          </div>
          {!mayPublish && (
            <p className="mt-2 text-[0.9375rem] text-muted">
              {isOut
                ? desk('desk-content.published-by-others')
                : desk('desk-content.published-by-others-later')}
            </p>
          )}
          <Autosave itemKey={autosave.key} baseVersion={item.version} body={body} save={autosave.save} />
          <input type="hidden" name="publishAtWas" value={item.publishAt} />
          {mayPublish && (
            <TextField
              name="publishAt"
              type="datetime-local"
              label={isOut ? desk('desk-content.published-on') : desk('desk-content.publish-on')}
              hint={desk('desk-content.publish-on-hint', { zone })}
              defaultValue={item.publishAt}
              className="mt-2"
            />
          )}
        </div>
        {mail}
        {access}
        <div>
          <PictureField
            name="picture"
            label={desk('desk-content.lead-picture')}
            pictureId={item.pictureId}
            tooLarge={tooLarge}
            upload="/desk/uploads/content-picture"
          />
          <TextField
            name="pictureAlt"
            label={desk('desk-content.alt')}
            hint={desk('desk-content.alt-hint')}
            defaultValue={item.pictureAlt}
            maxLength={400}
            className="mt-3"
          />
        </div>
        {isPage && (
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
            maxLength={80}
            hint={
              kindPath === null
                ? desk('desk-content.the-last-part-of-the')
                : desk('desk-content.comes-after', { path: `${kindPath}/` })
            }
          />
        )}
        {isPage && !isFront && (
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
          <div className="-m-1 grid max-h-64 gap-1.5 overflow-y-auto p-1">
            {categories.map((category) => (
              <div key={category.id} style={{ paddingLeft: `${category.depth}rem` }}>
                <CheckField
                  name="categories"
                  value={category.id}
                  label={category.name}
                  defaultChecked={item.categories.includes(category.id)}
                />
              </div>
            ))}
          </div>
          <TextField
            name="newCategory"
            label={desk('desk-content.new-category')}
            hideLabel
            placeholder={desk('desk-content.a-new-category')}
            maxLength={60}
            className="mt-2"
          />
        </fieldset>
        <TagField initial={item.tags} known={tags} />
        <div>
          <TextField
            name="author"
            label={desk('desk-content.author')}
            defaultValue={item.author}
            list="authors"
            maxLength={80}
            autoComplete="off"
          />
          <datalist id="authors">
            {authors.map((author) => (
              <option key={author} value={author} />
            ))}
          </datalist>
        </div>
        {kindComments !== null && (
          <SelectField
            name="comments"
            label={desk('desk-content.comments')}
            defaultValue={item.commentsOn === null ? '' : item.commentsOn ? 'on' : 'off'}
          >
            <option value="">
              {kindComments
                ? desk('desk-content.comments-as-kind-on')
                : desk('desk-content.comments-as-kind-off')}
            </option>
            <option value="on">{desk('desk-content.comments-on')}</option>
            <option value="off">{desk('desk-content.comments-off')}</option>
          </SelectField>
        )}
        {aside}
      </div>
    </ActionForm>
  );
}
