'use client';

import { useState } from 'react';
import {
  AUDIENCES,
  ENTRY_KINDS,
  type Audience,
  type EntryKind,
  type Look,
  looksOf,
} from '@/core/content/menu';
import { ActionForm, FormMessage, SubmitButton, type FormAction } from '@/kit/action-form';
import { Button } from '@/kit/button';
import { ChoiceField } from '@/kit/choice-field';
import { SelectField, TextField } from '@/kit/field';
import { TreeList } from '@/kit/tree-list';
import { desk } from '@/words/desk';

export type MenuRow = {
  id: string;
  parentId: string | null;
  depth: number;
  kind: EntryKind;
  target: string;
  label: string;
  audience: Audience;
  look: Look;
};
type Targets = Partial<Record<EntryKind, { id: string; name: string }[]>>;
type Props = {
  entries: MenuRow[];
  targets: Targets;
  mayWrite: boolean;
  save: FormAction;
  remove: FormAction;
  arrange: (places: { id: string; parentId: string | null }[]) => Promise<string | null>;
};

/** What an entry says: its label, or the name of what it leads to. */
function nameOf({ kind, target, label }: MenuRow, targets: Targets): string {
  if (label) return label;
  const list = targets[kind];
  if (!list) return kind === 'outside' ? target : desk(`desk-content.entry-${kind}`);
  return list.find(({ id }) => id === target)?.name ?? desk('desk-content.entry-gone');
}

/** The site's menu: dragged into order and below one another; each entry opens to be changed. */
export function MenuList({ entries, targets, mayWrite, save, remove, arrange }: Props) {
  const [openId, open] = useState<string | null>(null);
  const rows = entries.map((entry) => ({ ...entry, name: nameOf(entry, targets) }));
  return (
    <div className="mt-2 max-w-3xl">
      {rows.length > 0 && (
        <TreeList
          rows={rows}
          label={desk('desk-content.menu')}
          mostDepth={1}
          isFixed={!mayWrite}
          place={async (_, __, after) => arrange(after.map(({ id, parentId }) => ({ id, parentId })))}
        >
          {(row) => (
            <div className="min-w-0 flex-1">
              <div className="flex flex-wrap items-baseline gap-x-3">
                <span className="font-semibold">{row.name}</span>
                <span className="text-[0.9375rem] text-muted">
                  {[
                    desk(`desk-content.entry-${row.kind}`),
                    desk(`desk-content.audience-${row.audience}`),
                    row.look !== 'link' && desk(`desk-content.look-${row.look}`),
                  ]
                    .filter(Boolean)
                    .join(' · ')}
                </span>
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
                <div className="grid gap-4 py-3">
                  <EntryForm entry={row} targets={targets} save={save} />
                  <ActionForm action={remove} label={desk('desk-content.remove-entry')}>
                    <input type="hidden" name="id" value={row.id} />
                    <SubmitButton look="bad" busy={desk('desk.saving')}>
                      {desk('desk-content.remove-entry')}
                    </SubmitButton>
                    <FormMessage />
                  </ActionForm>
                </div>
              )}
            </div>
          )}
        </TreeList>
      )}
      {mayWrite && openId !== 'new' && (
        <Button look="quiet" className="mt-4" onClick={() => open('new')}>
          {desk('desk-content.add-entry')}
        </Button>
      )}
      {mayWrite && openId === 'new' && (
        <section className="mt-5 rounded-card border border-line bg-surface p-5">
          <h2 className="mb-3 text-xl">{desk('desk-content.add-entry')}</h2>
          <EntryForm key={rows.length} entry={null} targets={targets} save={save} />
        </section>
      )}
    </div>
  );
}

function EntryForm({ entry, targets, save }: { entry: MenuRow | null; targets: Targets; save: FormAction }) {
  const [kind, setKind] = useState<EntryKind>(entry?.kind ?? 'item');
  const list = targets[kind];
  return (
    <ActionForm action={save} label={desk('desk-content.add-entry')} className="grid gap-4 sm:grid-cols-2">
      <input type="hidden" name="id" value={entry?.id ?? ''} />
      <div className="sm:col-span-2">
        <FormMessage />
      </div>
      <SelectField
        name="kind"
        label={desk('desk-content.leads-to-what')}
        value={kind}
        onChange={(event) => {
          const chosen = ENTRY_KINDS.find((one) => one === event.target.value);
          if (chosen) setKind(chosen);
        }}
      >
        {ENTRY_KINDS.filter((one) => !targets[one] || targets[one].length > 0).map((one) => (
          <option key={one} value={one}>
            {desk(`desk-content.entry-${one}`)}
          </option>
        ))}
      </SelectField>
      {list ? (
        <ChoiceField
          key={kind}
          name={`target-${kind}`}
          label={desk(`desk-content.entry-${kind}`)}
          defaultValue={entry?.kind === kind ? entry.target : ''}
          options={list}
        />
      ) : kind === 'outside' ? (
        <TextField
          name="address"
          label={desk('desk-content.address')}
          defaultValue={entry?.target}
          placeholder="https://"
          maxLength={2000}
        />
      ) : (
        <span className="max-sm:hidden" />
      )}
      <TextField
        name="label"
        label={desk('desk-content.entry-label')}
        hint={desk('desk-content.entry-label-hint')}
        defaultValue={entry?.label}
        maxLength={60}
      />
      <SelectField
        name="audience"
        label={desk('desk-content.shown-to')}
        defaultValue={entry?.audience ?? 'everyone'}
      >
        {AUDIENCES.map((audience) => (
          <option key={audience} value={audience}>
            {desk(`desk-content.audience-${audience}`)}
          </option>
        ))}
      </SelectField>
      {looksOf(kind).length > 1 && (
        <SelectField
          key={`look:${kind}`}
          name="look"
          label={desk('desk-content.entry-look')}
          defaultValue={entry?.kind === kind ? entry.look : 'link'}
        >
          {looksOf(kind).map((look) => (
            <option key={look} value={look}>
              {desk(`desk-content.look-${look}`)}
            </option>
          ))}
        </SelectField>
      )}
      <SubmitButton busy={desk('desk.saving')} className="w-fit sm:col-span-2">
        {entry ? desk('desk.save') : desk('desk-content.add-entry')}
      </SubmitButton>
    </ActionForm>
  );
}
