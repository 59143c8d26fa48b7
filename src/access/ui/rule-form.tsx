'use client';

import { useState } from 'react';
import type { Cover, Opener } from '@/core/access/rule';
import type { KeyCut } from '@/core/key-cut';
import { ActionForm, Draft, FormMessage, SubmitButton, useProblem, type FormAction } from '@/kit/action-form';
import { Button } from '@/kit/button';
import { CheckField, TextField } from '@/kit/field';
import { CoverPicker } from './cover-picker';
import { DoorstepFields, type DoorstepDraft } from './doorstep-fields';
import { OpenerPicker } from './opener-picker';
import { desk } from '@/words/desk';

export type RuleDraft = {
  id: string;
  name: string;
  on: boolean;
  covers: Cover[];
  except: Cover[];
  openTo: Opener[];
  alsoRequire: boolean;
  doorstep: DoorstepDraft | null;
  version: number;
};

type Props = {
  action: FormAction;
  remove: FormAction | null;
  draft: RuleDraft;
  siteDoorstep: DoorstepDraft;
  items: { id: string; title: string; type: string }[];
  categories: { id: string; name: string }[];
  tiers: { id: string; name: string; keyCut: KeyCut }[];
};

/** A rule: what it covers, to whom it opens, and its doorstep. */
export function RuleForm({ action, remove, draft, siteDoorstep, items, categories, tiers }: Props) {
  const [rule, setRule] = useState(draft);
  const [asking, setAsking] = useState(false);
  const change = (part: Partial<RuleDraft>): void => setRule((now) => ({ ...now, ...part }));
  const sent = { ...rule, id: rule.id || undefined };
  return (
    <div className="mt-5 grid max-w-5xl gap-6">
      <ActionForm action={action} label={desk('desk-access.rule')} className="grid gap-6">
        <FormMessage />
        <Draft name="rule" value={sent} />
        <TextField
          name="name"
          label={desk('desk.name')}
          value={rule.name}
          onChange={(event) => change({ name: event.target.value })}
          hint={desk('desk-access.for-staff-only-members-never')}
          className="max-w-md"
        />
        <div className="grid gap-6 lg:grid-cols-2">
          <Part title={desk('desk-access.covers')} problem="covers">
            <CoverPicker
              covers={rule.covers}
              items={items}
              categories={categories}
              first={desk('desk-access.choose-what-it-covers')}
              more={desk('desk-access.add-another')}
              onChange={(covers) => change({ covers })}
            />
            <h3 className="mt-5 mb-2 font-semibold">{desk('desk-access.except')}</h3>
            <CoverPicker
              covers={rule.except}
              items={items}
              categories={categories}
              first={desk('desk-access.choose-an-exception')}
              more={desk('desk-access.add-an-exception')}
              onChange={(except) => change({ except })}
            />
          </Part>
          <Part title={desk('desk-access.opens-to')} problem="openTo">
            <OpenerPicker openTo={rule.openTo} tiers={tiers} onChange={(openTo) => change({ openTo })} />
          </Part>
        </div>
        <Part title={desk('desk-access.doorstep')} problem="doorstep">
          <DoorstepFields
            doorstep={rule.doorstep}
            siteDoorstep={siteDoorstep}
            onChange={(doorstep) => change({ doorstep })}
          />
        </Part>
        <CheckField
          name="on"
          label={desk('desk-access.the-rule-is-on')}
          checked={rule.on}
          onChange={(event) => change({ on: event.target.checked })}
          hint={desk('desk-access.while-its-off-the-rule')}
        />
        <SubmitButton busy={desk('desk.saving')} className="w-fit px-8">
          {draft.id ? desk('desk-access.save-the-rule') : desk('desk-access.make-the-rule')}
        </SubmitButton>
      </ActionForm>
      {remove &&
        (asking ? (
          <ActionForm action={remove} className="flex flex-wrap items-center gap-3 rounded-md bg-sunken p-4">
            <input type="hidden" name="id" value={draft.id} />
            <p className="w-full font-semibold">
              {desk('desk-access.delete-what-it-covers-then', { name: draft.name })}
            </p>
            <SubmitButton busy={desk('desk.deleting')} look="bad">
              {desk('desk-access.yes-delete')}
            </SubmitButton>
            <Button look="quiet" onClick={() => setAsking(false)}>
              {desk('desk.cancel')}
            </Button>
            <FormMessage />
          </ActionForm>
        ) : (
          <Button look="quiet" className="w-fit" onClick={() => setAsking(true)}>
            {desk('desk-access.delete-the-rule')}
          </Button>
        ))}
    </div>
  );
}

function Part({ title, problem, children }: { title: string; problem: string; children: React.ReactNode }) {
  const found = useProblem(problem);
  return (
    <fieldset className="rounded-card border border-line bg-surface p-5">
      <legend className="float-left mb-2 w-full font-display text-lg font-semibold">{title}</legend>
      <div className="clear-both">
        {found && (
          <p role="alert" className="mb-2 font-medium text-closed">
            {found}
          </p>
        )}
        {children}
      </div>
    </fieldset>
  );
}
