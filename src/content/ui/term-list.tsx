'use client';

import { Link } from '@/kit/link';
import { useState } from 'react';
import type { Place } from '@/core/content/tree';
import { ActionForm, FormMessage, SubmitButton, type FormAction } from '@/kit/action-form';
import { ChoiceField } from '@/kit/choice-field';
import { TextField } from '@/kit/field';
import { TreeList } from '@/kit/tree-list';
import { desk } from '@/words/desk';

export type TermRow = { id: string; parentId: string | null; depth: number; name: string; items: number };
type Props = {
  of: 'category' | 'tag';
  rows: TermRow[];
  mayWrite: boolean;
  make: FormAction;
  rename: FormAction;
  remove: FormAction;
  place: (row: { id: string; name: string }, place: Place, ids: string[]) => Promise<string | null>;
};

const WORDS = {
  category: {
    all: desk('desk.categories'),
    make: desk('desk-content.new-category'),
    without: desk('desk-content.without-category'),
  },
  tag: {
    all: desk('desk-content.tags'),
    make: desk('desk-content.new-tag'),
    without: desk('desk-content.without-tag'),
  },
};

/** Categories, which are nested, or tags: made, renamed, put in order, merged and deleted. */
export function TermList({ of, rows, mayWrite, make, rename, remove, place }: Props) {
  const [openId, open] = useState<string | null>(null);
  return (
    <div className="mt-4 max-w-3xl">
      {mayWrite && (
        <ActionForm
          action={make}
          emptyWhenDone
          label={WORDS[of].make}
          className="flex flex-wrap items-end gap-3"
        >
          <TextField name="name" label={WORDS[of].make} maxLength={60} className="w-72" />
          <SubmitButton busy={desk('desk.saving')}>{desk('desk-content.add')}</SubmitButton>
          <FormMessage />
        </ActionForm>
      )}
      {rows.length > 0 && (
        <TreeList
          rows={rows}
          label={WORDS[of].all}
          mostDepth={of === 'category' ? 5 : 0}
          isFixed={!mayWrite}
          place={async (id, to, after) => {
            const row = rows.find((one) => one.id === id);
            return row
              ? place(
                  { id, name: row.name },
                  to,
                  after.map((one) => one.id),
                )
              : null;
          }}
        >
          {(row) => (
            <div className="min-w-0 flex-1">
              <div className="flex flex-wrap items-baseline gap-x-3">
                <span className="font-semibold">{row.name}</span>
                <Link
                  href={`/${of === 'category' ? 'categories' : 'tags'}/${encodeURIComponent(row.id)}`}
                  target="_blank"
                  rel="noopener"
                  className="text-[0.9375rem] text-muted hover:underline"
                >
                  {desk('desk-content.term-items', { count: row.items })}
                </Link>
                {mayWrite && (
                  <button
                    type="button"
                    aria-expanded={openId === row.id}
                    onClick={() => open(openId === row.id ? null : row.id)}
                    className="ml-auto text-spruce underline"
                  >
                    {desk('desk-content.change')}
                  </button>
                )}
              </div>
              {openId === row.id && (
                <TermFields
                  key={row.name}
                  of={of}
                  row={row}
                  others={rows.filter(({ id }) => id !== row.id)}
                  rename={rename}
                  remove={remove}
                />
              )}
            </div>
          )}
        </TreeList>
      )}
    </div>
  );
}

type FieldsProps = {
  of: Props['of'];
  row: TermRow;
  others: TermRow[];
  rename: FormAction;
  remove: FormAction;
};

function TermFields({ of, row, others, rename, remove }: FieldsProps) {
  return (
    <div className="grid gap-4 py-3">
      <ActionForm
        action={rename}
        label={desk('desk-content.rename')}
        className="flex flex-wrap items-end gap-3"
      >
        <input type="hidden" name="id" value={row.id} />
        <TextField
          name="name"
          label={desk('desk.name')}
          defaultValue={row.name}
          maxLength={60}
          className="w-72"
        />
        <SubmitButton look="quiet" busy={desk('desk.saving')}>
          {desk('desk-content.rename')}
        </SubmitButton>
        <FormMessage />
      </ActionForm>
      <ActionForm
        action={remove}
        label={desk('desk-content.merge-or-delete')}
        className="flex flex-wrap items-end gap-3"
      >
        <input type="hidden" name="of" value={of} />
        <input type="hidden" name="id" value={row.id} />
        <div className="w-72">
          <ChoiceField
            name="into"
            label={desk('desk-content.items-then')}
            options={[
              { id: '', name: WORDS[of].without },
              ...others.map(({ id, name }) => ({ id, name: desk('desk-content.into', { name }) })),
            ]}
          />
        </div>
        <SubmitButton look="bad" busy={desk('desk.saving')}>
          {desk('desk-content.merge-or-delete')}
        </SubmitButton>
        <FormMessage />
      </ActionForm>
      <p className="text-[0.9375rem] text-muted">{desk('desk-content.merge-hint')}</p>
    </div>
  );
}
