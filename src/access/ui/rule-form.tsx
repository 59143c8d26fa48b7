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

/** A rule: what it covers, whom it lets in, and what stands at its doorstep. */
export function RuleForm({ action, remove, draft, siteDoorstep, items, categories, tiers }: Props) {
  const [rule, setRule] = useState(draft);
  const [asking, setAsking] = useState(false);
  const change = (part: Partial<RuleDraft>): void => setRule((now) => ({ ...now, ...part }));
  const sent = { ...rule, id: rule.id || undefined };
  return (
    <div className="mt-5 grid max-w-5xl gap-6">
      <ActionForm action={action} label="Rule" className="grid gap-6">
        <FormMessage />
        <Draft name="rule" value={sent} />
        <TextField
          name="name"
          label="Name"
          value={rule.name}
          onChange={(event) => change({ name: event.target.value })}
          hint="For staff only; members never see it."
          className="max-w-md"
        />
        <div className="grid gap-6 lg:grid-cols-2">
          <Part title="Covers" problem="covers">
            <CoverPicker
              covers={rule.covers}
              items={items}
              categories={categories}
              first="Choose what it covers"
              more="Add another"
              onChange={(covers) => change({ covers })}
            />
            <h3 className="mt-5 mb-2 font-semibold">Except</h3>
            <CoverPicker
              covers={rule.except}
              items={items}
              categories={categories}
              first="Choose an exception"
              more="Add an exception"
              onChange={(except) => change({ except })}
            />
          </Part>
          <Part title="Opens to" problem="openTo">
            <OpenerPicker openTo={rule.openTo} tiers={tiers} onChange={(openTo) => change({ openTo })} />
          </Part>
        </div>
        <Part title="Doorstep" problem="doorstep">
          <DoorstepFields
            doorstep={rule.doorstep}
            siteDoorstep={siteDoorstep}
            onChange={(doorstep) => change({ doorstep })}
          />
        </Part>
        <CheckField
          name="on"
          label="The rule is on"
          checked={rule.on}
          onChange={(event) => change({ on: event.target.checked })}
          hint="While it’s off, the rule has no effect."
        />
        <SubmitButton busy="Saving…" className="w-fit px-8">
          {draft.id ? 'Save the rule' : 'Make the rule'}
        </SubmitButton>
      </ActionForm>
      {remove &&
        (asking ? (
          <ActionForm action={remove} className="flex flex-wrap items-center gap-3 rounded-md bg-sunken p-4">
            <input type="hidden" name="id" value={draft.id} />
            <p className="w-full font-semibold">
              Delete “{draft.name}”? What it covers then follows the next rule, or is open to everyone.
            </p>
            <SubmitButton busy="Deleting…" look="bad">
              Yes, delete
            </SubmitButton>
            <Button look="quiet" onClick={() => setAsking(false)}>
              Cancel
            </Button>
            <FormMessage />
          </ActionForm>
        ) : (
          <Button look="quiet" className="w-fit" onClick={() => setAsking(true)}>
            Delete the rule
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
