'use client';

import { useState } from 'react';
import type { Length } from '@/core/instants';
import type { Doorstep } from '@/core/access/doorstep';
import { refKey, type Cover, type Opener } from '@/core/access/rule';
import { ActionForm, Draft, FormMessage, SubmitButton, useProblem, type FormAction } from '@/kit/action-form';
import { Button } from '@/kit/button';
import { CheckField, SelectField, TextField } from '@/kit/field';
import { CoverPicker, type CoverChoices } from './cover-picker';
import { OwnDoorstepFields, type NoticeSample } from './doorstep-fields';
import { OpenerPicker, type Beginning, type BeginOpener, type TierChoice } from './opener-picker';
import type { FindMembers } from './member-search';
import { ruleNameFrom, type Names } from './rule-words';
import { SeriesFields } from './series-fields';
import { RuleImpactNote, type PreviewRule } from './rule-impact';
import { desk } from '@/words/desk';

export type RuleDraft = {
  id: string;
  name: string;
  on: boolean;
  covers: Cover[];
  except: Cover[];
  openTo: Opener[];
  alsoRequire: boolean;
  doorstep: Doorstep | null;
  meter: string | null;
  listed: boolean;
  each: Length | null;
  firstAtOnce: boolean;
  version: number;
};

type Props = {
  action: FormAction;
  remove: FormAction | null;
  draft: RuleDraft;
  siteDoorstep: Doorstep;
  sample: NoticeSample;
  meters: { id: string; name: string }[];
  choices: CoverChoices;
  tiers: TierChoice[];
  groups: { id: string; name: string }[];
  passes: { id: string; name: string }[];
  names: Names;
  findMembers: FindMembers;
  preview: PreviewRule;
  begin: BeginOpener;
  mayBegin: readonly Beginning[];
};

const namesOf = (kind: string, all: { id: string; name: string }[]): Names =>
  Object.fromEntries(all.map(({ id, name }) => [refKey({ kind, id }), name]));

/** A rule: what it covers, to whom it opens, and its doorstep. */
export function RuleForm({
  action,
  remove,
  draft,
  siteDoorstep,
  sample,
  meters,
  choices,
  tiers,
  groups,
  passes,
  names: known,
  findMembers,
  preview,
  begin,
  mayBegin,
}: Props) {
  const [rule, setRule] = useState(draft);
  const [asking, setAsking] = useState(false);
  const change = (part: Partial<RuleDraft>): void => setRule((now) => ({ ...now, ...part }));
  const [names, setNames] = useState<Names>(() => ({
    ...namesOf('category', choices.categories),
    ...namesOf('tag', choices.tags),
    ...namesOf('type', choices.kinds),
    ...namesOf('tier', tiers),
    ...namesOf('group', groups),
    ...namesOf('pass', passes),
    ...known,
  }));
  const learn = (more: Names | undefined): void => {
    if (more) setNames((now) => ({ ...now, ...more }));
  };
  const ownName = ruleNameFrom(rule.covers, names);
  const sent = { ...rule, name: rule.name.trim() || ownName, id: rule.id || undefined };
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
          placeholder={ownName}
          hint={desk('desk-access.rule-name-hint')}
          className="max-w-md"
        />
        <div className="grid gap-6 lg:grid-cols-2">
          <Part title={desk('desk-access.covers')} problem="covers">
            <CoverPicker
              {...choices}
              covers={rule.covers}
              names={names}
              words={{
                things: desk('desk-access.covers-things'),
                item: desk('desk-access.covers-item'),
                address: desk('desk-access.covers-address'),
              }}
              onChange={(covers, more) => {
                change({ covers });
                learn(more);
              }}
            />
            <details className="mt-5" open={draft.except.length > 0}>
              <summary className="mb-2 w-fit cursor-pointer font-semibold">
                {desk('desk-access.except')}
              </summary>
              <CoverPicker
                {...choices}
                covers={rule.except}
                names={names}
                words={{
                  things: desk('desk-access.except-things'),
                  item: desk('desk-access.except-item'),
                  address: desk('desk-access.except-address'),
                }}
                onChange={(except, more) => {
                  change({ except });
                  learn(more);
                }}
              />
            </details>
          </Part>
          <Part title={desk('desk-access.opens-to')} problem="openTo">
            <OpenerPicker
              openTo={rule.openTo}
              tiers={tiers}
              groups={groups}
              passes={passes}
              names={names}
              findMembers={findMembers}
              begin={begin}
              mayBegin={mayBegin}
              onChange={(openTo, more) => {
                change({ openTo });
                learn(more);
              }}
            />
            {rule.covers.some(({ kind }) => kind === 'under') && (
              <SeriesFields
                each={rule.each}
                firstAtOnce={rule.firstAtOnce}
                onChange={(each, firstAtOnce) => change({ each, firstAtOnce })}
              />
            )}
            <div className="mt-5">
              <CheckField
                name="alsoRequire"
                label={desk('desk-access.also-require')}
                checked={rule.alsoRequire}
                onChange={(event) => change({ alsoRequire: event.target.checked })}
                hint={desk('desk-access.also-require-hint')}
              />
            </div>
          </Part>
        </div>
        <Part title={desk('desk-access.those-not-let-in')} problem="doorstep">
          <div className="mb-5 grid gap-5 lg:grid-cols-2">
            <SelectField
              name="meter"
              label={desk('desk-access.free-reads')}
              value={rule.meter ?? ''}
              onChange={(event) => change({ meter: event.target.value || null })}
              hint={desk('desk-access.rule-meter-hint')}
            >
              <option value="">{desk('desk-access.no-free-reads')}</option>
              {meters.map((meter) => (
                <option key={meter.id} value={meter.id}>
                  {meter.name}
                </option>
              ))}
            </SelectField>
            <div className="lg:pt-7">
              <CheckField
                name="listed"
                label={desk('desk-access.listed')}
                checked={rule.listed}
                onChange={(event) => change({ listed: event.target.checked })}
                hint={desk('desk-access.listed-hint')}
              />
            </div>
          </div>
          <OwnDoorstepFields
            doorstep={rule.doorstep}
            siteDoorstep={siteDoorstep}
            sample={sample}
            hint={desk('desk-access.otherwise-the-sites-doorstep-is-used')}
            onChange={(doorstep) => change({ doorstep })}
          />
        </Part>
        <RuleImpactNote draft={sent} preview={preview} />
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
            <SubmitButton busy={desk('desk.saving')} look="bad">
              {desk('desk-access.yes-archive')}
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
