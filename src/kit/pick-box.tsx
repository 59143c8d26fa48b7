'use client';

import { Combobox, ComboboxInput, ComboboxOption, ComboboxOptions } from '@headlessui/react';
import { useState } from 'react';
import { inputClass } from './input-class';
import { desk } from '@/words/desk';

export type PickOption = { id: string; name: string };
export type PickGroup = { label: string; options: PickOption[] };
type Props = {
  label: string;
  placeholder: string;
  groups: PickGroup[];
  /** What could be made of what was typed, where nothing is called so. */
  make?: (typed: string) => PickGroup;
  onPick: (id: string) => void;
};

/** How many fitting options of a group are offered at once. */
const MOST_SHOWN = 40;

export const optionsClass =
  'z-30 max-h-72 w-(--input-width) overflow-y-auto rounded-md border border-line bg-surface p-1 shadow-lg empty:invisible';
export const optionClass =
  'cursor-pointer rounded px-3 py-1.5 data-focus:bg-sunken data-selected:font-semibold';

/** Adds one of a long list at a time, found by typing a part of its name; nothing is added before it is chosen. */
export function PickBox({ label, placeholder, groups, make, onPick }: Props) {
  const [typed, setTyped] = useState('');
  const sought = typed.trim().toLowerCase();
  const fitting = groups
    .map((group) => ({
      ...group,
      options: group.options.filter((one) => one.name.toLowerCase().includes(sought)).slice(0, MOST_SHOWN),
    }))
    .filter((group) => group.options.length > 0);
  const isCalledSo = groups.some(({ options }) => options.some(({ name }) => name.toLowerCase() === sought));
  if (make && sought !== '' && !isCalledSo) {
    const made = make(typed.trim());
    if (made.options.length > 0) fitting.push(made);
  }
  return (
    <Combobox
      value={null}
      onChange={(id: string | null) => {
        if (id === null) return;
        setTyped('');
        onPick(id);
      }}
      onClose={() => setTyped('')}
      immediate
    >
      <ComboboxInput
        aria-label={label}
        placeholder={placeholder}
        className={inputClass}
        value={typed}
        onChange={(event) => setTyped(event.target.value)}
        autoComplete="off"
      />
      <ComboboxOptions anchor="bottom start" className={optionsClass}>
        {fitting.length === 0 && <p className="px-3 py-1.5 text-muted">{desk('desk-frame.nothing-found')}</p>}
        {fitting.map((group) => (
          <div key={group.label} role="group" aria-label={group.label}>
            <p className="px-3 pt-2 pb-0.5 text-sm font-semibold text-muted" aria-hidden>
              {group.label}
            </p>
            {group.options.map((one) => (
              <ComboboxOption key={one.id} value={one.id} className={optionClass}>
                {one.name}
              </ComboboxOption>
            ))}
          </div>
        ))}
      </ComboboxOptions>
    </Combobox>
  );
}
