'use client';

import { ChevronRight } from 'lucide-react';
import { useState } from 'react';
import type { JoinField } from '@/core/tiers/join-fields';
import { ActionForm, Draft, FormMessage, SubmitButton, useProblem, type FormAction } from '@/kit/action-form';
import { Button } from '@/kit/button';
import { TextArea, TextField } from '@/kit/field';
import { SortableList, SortableRow } from '@/kit/sortable-list';
import { QuestionPreview } from './question-preview';
import { desk } from '@/words/desk';

type Props = { action: FormAction; fields: JoinField[]; tiers: { id: string; name: string }[] };

const KINDS: Record<JoinField['kind'], string> = {
  name: desk('desk-tiers.the-name'),
  text: desk('desk-tiers.text-line'),
  choice: desk('desk-tiers.a-choice'),
  tick: desk('desk-tiers.a-tick'),
  date: desk('desk-tiers.a-date'),
  terms: desk('desk-tiers.terms-to-agree-to'),
};
const ADDABLE = ['text', 'choice', 'tick', 'date', 'terms'] as const;

let made = 0;
const newField = (kind: JoinField['kind']): JoinField => ({
  id: `field-${Date.now().toString(36)}-${made++}`,
  kind,
  label: kind === 'terms' ? desk('desk-tiers.i-agree-to-the-terms') : '',
  hint: '',
  options: [],
  path: '',
  isRequired: false,
  isOn: true,
  tierIds: [],
});

/** The questions of the join form, which can be added, changed, dragged into order and taken away. */
export function QuestionsEditor({ action, fields: initial, tiers }: Props) {
  const [fields, setFields] = useState(initial);
  const known = new Set(initial.map(({ id }) => id));
  const change = (id: string, part: Partial<JoinField>): void =>
    setFields((all) => all.map((field) => (field.id === id ? { ...field, ...part } : field)));
  return (
    <ActionForm
      action={action}
      label={desk('desk-tiers.what-is-asked-at-joining')}
      className="mt-5 grid items-start gap-x-10 gap-y-6 xl:grid-cols-[minmax(0,46rem)_minmax(0,1fr)]"
    >
      <div className="grid gap-4">
        <FormMessage />
        <Draft name="fields" value={fields} />
        <SortableList
          ids={fields.map((field) => field.id)}
          nameOf={(id) =>
            fields.find((field) => field.id === id)?.label || desk('desk-tiers.the-new-question')
          }
          onMove={(ids) => setFields(ids.flatMap((id) => fields.find((field) => field.id === id) ?? []))}
          className="grid gap-3"
          label={desk('desk-tiers.questions-in-order')}
        >
          {fields.map((field, index) => (
            <SortableRow
              key={field.id}
              id={field.id}
              name={field.label || desk('desk-tiers.the-new-question')}
              className="flex items-start gap-2 rounded-card border border-line bg-surface p-4"
            >
              <Question
                field={field}
                index={index}
                tiers={tiers}
                isNew={!known.has(field.id)}
                onChange={(part) => change(field.id, part)}
                onRemove={() => setFields((all) => all.filter((other) => other.id !== field.id))}
              />
            </SortableRow>
          ))}
        </SortableList>
        <div className="flex flex-wrap items-center gap-2">
          <span className="text-muted">{desk('desk-tiers.ask-for')}</span>
          {ADDABLE.map((kind) => (
            <Button key={kind} look="quiet" onClick={() => setFields((all) => [...all, newField(kind)])}>
              {KINDS[kind].toLowerCase()}
            </Button>
          ))}
        </div>
        <SubmitButton busy={desk('desk.saving')} className="mt-2 w-fit px-8">
          {desk('desk-tiers.save-the-questions')}
        </SubmitButton>
      </div>
      <QuestionPreview fields={fields} />
    </ActionForm>
  );
}

type QuestionProps = {
  field: JoinField;
  index: number;
  tiers: Props['tiers'];
  isNew: boolean;
  onChange: (part: Partial<JoinField>) => void;
  onRemove: () => void;
};

function Question({ field, index, tiers, isNew, onChange, onRemove }: QuestionProps) {
  const optionsProblem = useProblem(`${index}.options`);
  const isName = field.kind === 'name';
  const tick = (label: string, isOn: boolean, set: (on: boolean) => void, isFixed = false) => (
    <label
      className="flex items-center gap-2"
      title={isFixed ? desk('desk-tiers.at-least-one-tier-must') : undefined}
    >
      <input
        type="checkbox"
        checked={isOn}
        disabled={isFixed}
        onChange={(event) => set(event.target.checked)}
        className="size-4.5"
      />
      {label}
    </label>
  );
  return (
    <details open={isNew} className="group min-w-0 flex-1 self-center">
      <summary className="flex cursor-pointer list-none flex-wrap items-baseline gap-x-3">
        <h2 className="font-sans text-base font-semibold">
          {field.label || desk('desk-tiers.the-new-question')}
        </h2>
        <span className="min-w-0 flex-1 text-muted">{gistOf(field, tiers)}</span>
        <ChevronRight
          className="size-4.5 flex-none self-center text-muted group-open:rotate-90"
          aria-hidden
        />
      </summary>
      <div className="mt-3 grid gap-3">
        <div className="flex flex-wrap items-center gap-5">
          {tick(desk('desk-tiers.question-asked'), field.isOn, (isOn) => onChange({ isOn }))}
          {field.kind !== 'terms' &&
            tick(desk('desk-tiers.has-to-be-answered'), field.isRequired, (isRequired) =>
              onChange({ isRequired }),
            )}
          {!isName && (
            <Button look="quiet" className="min-h-8" onClick={onRemove}>
              {desk('desk.take-away')}
            </Button>
          )}
        </div>
        <div className="grid gap-3 sm:grid-cols-2">
          <TextField
            name={`${index}.label`}
            label={desk('desk-tiers.question')}
            value={field.label}
            onChange={(event) => onChange({ label: event.target.value })}
          />
          {field.kind === 'terms' ? (
            <TextField
              name={`${index}.path`}
              label={desk('desk-tiers.where-they-can-be-read')}
              placeholder="/terms"
              value={field.path}
              onChange={(event) => onChange({ path: event.target.value })}
            />
          ) : (
            <TextField
              name={`${index}.hint`}
              label={desk('desk-tiers.hint-below-it')}
              value={field.hint}
              onChange={(event) => onChange({ hint: event.target.value })}
            />
          )}
        </div>
        {field.kind === 'choice' && (
          <TextArea
            name={`${index}.options`}
            label={desk('desk-tiers.to-choose-from-one-on')}
            problem={optionsProblem}
            value={field.options.join('\n')}
            onChange={(event) => onChange({ options: event.target.value.split('\n') })}
            onBlur={() => onChange({ options: field.options.map((option) => option.trim()).filter(Boolean) })}
          />
        )}
        {!isName && tiers.length > 1 && (
          <fieldset className="flex flex-wrap gap-x-5 gap-y-1">
            <legend className="sr-only">{desk('desk-tiers.which-tiers-ask-it')}</legend>
            {tick(desk('desk-tiers.every-tier-asks-it'), field.tierIds.length === 0, (all) =>
              onChange({ tierIds: all ? [] : tiers.slice(0, 1).map((tier) => tier.id) }),
            )}
            {field.tierIds.length > 0 &&
              tiers.map((tier) => (
                <span key={tier.id}>
                  {tick(
                    tier.name,
                    field.tierIds.includes(tier.id),
                    (isOn) =>
                      onChange({
                        tierIds: isOn
                          ? [...field.tierIds, tier.id]
                          : field.tierIds.filter((other) => other !== tier.id),
                      }),
                    // With nobody left it would be asked by every tier, which is the tick before.
                    field.tierIds.length === 1 && field.tierIds[0] === tier.id,
                  )}
                </span>
              ))}
          </fieldset>
        )}
      </div>
    </details>
  );
}

/** A question at a glance: its kind, whether it must be answered, and by whom. */
function gistOf(field: JoinField, tiers: Props['tiers']): string {
  const asked = tiers.filter(({ id }) => field.tierIds.includes(id)).map(({ name }) => name);
  return [
    KINDS[field.kind],
    field.isOn && field.isRequired && desk('desk-tiers.has-to-be-answered'),
    !field.isOn && desk('desk-tiers.question-not-asked'),
    asked.length > 0 && desk('desk-tiers.question-asked-by', { tiers: asked.join(', ') }),
  ]
    .filter(Boolean)
    .join(' · ');
}
