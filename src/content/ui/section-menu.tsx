'use client';

import { Popover, PopoverButton, PopoverPanel } from '@headlessui/react';
import type { Editor } from '@tiptap/react';
import { Lock } from 'lucide-react';
import { useState } from 'react';
import type { Gate } from '@/core/content/prose';
import { Button } from '@/kit/button';
import { CheckField, SelectField, TextArea } from '@/kit/field';
import { desk } from '@/words/desk';
import type { Gates } from './section-nodes';

const NEW: Gate = { rule: null, openTo: [], instead: '' };

/** The gate of the section that the cursor is in; null where there is none, or where a part of it is selected. */
function gateHere(editor: Editor): Gate | null {
  if (editor.isActive('sectionWords')) return { ...NEW, ...editor.getAttributes('sectionWords') };
  if (!editor.state.selection.empty || !editor.isActive('section')) return null;
  return { ...NEW, ...editor.getAttributes('section') };
}

/** Closes what is selected to all but some, or changes and removes the section around the cursor. */
export function SectionMenu({ editor, gates }: { editor: Editor; gates: Gates }) {
  return (
    <Popover>
      <PopoverButton
        data-section-menu
        title={desk('desk-content.section-key')}
        className="inline-flex h-9 items-center gap-1.5 rounded px-2 font-semibold hover:bg-sunken aria-pressed:bg-sunken"
        aria-pressed={gateHere(editor) !== null}
      >
        <Lock className="size-4.5" aria-hidden /> {desk('desk-content.section')}
      </PopoverButton>
      <PopoverPanel
        anchor={{ to: 'bottom start', gap: 4, padding: 12 }}
        className="z-20 w-96 max-w-[calc(100vw-24px)] rounded-lg border border-line bg-surface p-4 shadow-lg focus:outline-none"
        focus
      >
        {({ close }) => <SectionFields editor={editor} gates={gates} onDone={close} />}
      </PopoverPanel>
    </Popover>
  );
}

type FieldsProps = { editor: Editor; gates: Gates; onDone: () => void };

function SectionFields({ editor, gates, onDone }: FieldsProps) {
  const here = gateHere(editor);
  const [gate, setGate] = useState<Gate>(here ?? NEW);
  const [problem, setProblem] = useState('');
  const has = (key: string): boolean => gate.openTo.some(({ who }) => keyOf(who) === key);
  const toggle = (who: Gate['openTo'][number]['who'], isOn: boolean): void =>
    setGate((old) => ({
      ...old,
      openTo: isOn ? [...old.openTo, { who }] : old.openTo.filter((one) => keyOf(one.who) !== keyOf(who)),
    }));
  const choices = [
    ...gates.tiers.map(({ id, name }) => ({ who: { kind: 'tier' as const, id }, name })),
    { who: { kind: 'paying' as const }, name: desk('desk-content.everyone-who-pays') },
    { who: { kind: 'signed-in' as const }, name: desk('desk-content.everyone-signed-in') },
  ];
  const done = (worked: boolean): void => (worked ? onDone() : setProblem(desk('desk-content.cannot-close')));
  return (
    <div className="grid gap-3">
      <p className="font-semibold">
        {here ? desk('desk-content.section-change') : desk('desk-content.section-hint')}
      </p>
      {gates.rules.length > 0 && (
        <SelectField
          name="section.rule"
          label={desk('desk-content.rule-of')}
          value={gate.rule ?? ''}
          onChange={(event) => setGate((old) => ({ ...old, rule: event.target.value || null }))}
        >
          <option value="">{desk('desk-content.no-rule')}</option>
          {gates.rules.map(({ id, name }) => (
            <option key={id} value={id}>
              {name}
            </option>
          ))}
        </SelectField>
      )}
      {gate.rule === null && (
        <fieldset className="-m-1 grid max-h-40 grid-cols-2 gap-x-3 gap-y-1.5 overflow-y-auto p-1">
          <legend className="col-span-2 mb-1 font-semibold">{desk('desk-content.opens-to')}</legend>
          {choices.map(({ who, name }) => (
            <CheckField
              key={keyOf(who)}
              name={`section.${keyOf(who)}`}
              label={name}
              checked={has(keyOf(who))}
              onChange={(event) => toggle(who, event.target.checked)}
            />
          ))}
        </fieldset>
      )}
      <TextArea
        name="section.instead"
        label={desk('desk-content.instead')}
        hint={desk('desk-content.instead-hint')}
        rows={2}
        maxLength={400}
        value={gate.instead}
        onChange={(event) => setGate((old) => ({ ...old, instead: event.target.value }))}
      />
      {problem && (
        <p role="alert" className="font-medium text-closed">
          {problem}
        </p>
      )}
      <div className="flex flex-wrap gap-2">
        <Button onClick={() => done(editor.chain().focus().closeSection(gate).run())}>
          {here ? desk('desk-content.save-section') : desk('desk-content.close-section')}
        </Button>
        {here && (
          <Button look="quiet" onClick={() => done(editor.chain().focus().openSection().run())}>
            {desk('desk-content.open-section')}
          </Button>
        )}
      </div>
    </div>
  );
}

const keyOf = (who: Gate['openTo'][number]['who']): string =>
  `${who.kind}:${'id' in who ? (who.id ?? '') : ''}`;
