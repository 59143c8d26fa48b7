'use client';

import { Combobox, ComboboxInput, ComboboxOption, ComboboxOptions } from '@headlessui/react';
import { useId, useState } from 'react';
import { useProblem } from './action-form';
import { inputClass } from './input-class';
import { optionClass, optionsClass, type PickOption } from './pick-box';

type Props = { name: string; label: string; defaultValue: string; options: PickOption[]; hint?: string };

/** How many fitting options are offered at once. */
const MOST_SHOWN = 60;

/** One of a long list, found by typing a part of its name. */
export function ChoiceField({ name, label, defaultValue, options, hint }: Props) {
  const [chosen, setChosen] = useState<PickOption | null>(
    () => options.find(({ id }) => id === defaultValue) ?? { id: defaultValue, name: defaultValue },
  );
  const [typed, setTyped] = useState('');
  const id = useId();
  const problem = useProblem(name);
  const sought = typed.trim().toLowerCase();
  const fitting = options.filter((one) => one.name.toLowerCase().includes(sought)).slice(0, MOST_SHOWN);
  return (
    <div>
      <label htmlFor={id} className="mb-1 block font-semibold">
        {label}
      </label>
      <input type="hidden" name={name} value={chosen?.id ?? ''} />
      <Combobox value={chosen} by="id" onChange={setChosen} onClose={() => setTyped('')} immediate>
        <ComboboxInput
          id={id}
          className={inputClass}
          displayValue={(one: PickOption | null) => one?.name ?? ''}
          onChange={(event) => setTyped(event.target.value)}
          aria-invalid={problem ? true : undefined}
          aria-describedby={[problem && `${id}-problem`, hint && `${id}-hint`].filter(Boolean).join(' ')}
          autoComplete="off"
        />
        <ComboboxOptions anchor="bottom start" className={optionsClass}>
          {fitting.map((one) => (
            <ComboboxOption key={one.id} value={one} className={optionClass}>
              {one.name}
            </ComboboxOption>
          ))}
        </ComboboxOptions>
      </Combobox>
      {problem && (
        <p id={`${id}-problem`} className="mt-1 text-[0.9375rem] font-medium text-closed">
          {problem}
        </p>
      )}
      {hint && (
        <p id={`${id}-hint`} className="mt-1 text-[0.9375rem] text-muted">
          {hint}
        </p>
      )}
    </div>
  );
}
