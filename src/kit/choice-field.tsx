'use client';

import { Combobox, ComboboxInput, ComboboxOption, ComboboxOptions } from '@headlessui/react';
import { useId, useState } from 'react';
import { useProblem } from './action-form';
import { inputClass } from './input-class';
import { optionClass, optionsClass, type PickOption } from './pick-box';

type Props = {
  name: string;
  label: string;
  /** Where the form keeps the choice itself, `value` and `onChoose` in place of `defaultValue`. */
  defaultValue?: string;
  value?: string;
  onChoose?: (id: string) => void;
  options: PickOption[];
  hint?: string;
  hideLabel?: boolean;
};

/** How many fitting options are offered at once. */
const MOST_SHOWN = 60;

/** One of a long list, found by typing a part of its name. */
export function ChoiceField(props: Props) {
  const { name, label, defaultValue = '', options, hint, hideLabel = false } = props;
  const [own, setOwn] = useState(defaultValue);
  const chosenId = props.value ?? own;
  const chosen = options.find((one) => one.id === chosenId) ?? { id: chosenId, name: chosenId };
  const choose = (one: PickOption | null): void => {
    if (!one) return;
    setOwn(one.id);
    props.onChoose?.(one.id);
  };
  const [typed, setTyped] = useState('');
  const id = useId();
  const problem = useProblem(name);
  const sought = typed.trim().toLowerCase();
  const fitting = options.filter((one) => one.name.toLowerCase().includes(sought)).slice(0, MOST_SHOWN);
  return (
    <div>
      <label htmlFor={id} className={hideLabel ? 'sr-only' : 'mb-1 block font-semibold'}>
        {label}
      </label>
      <input type="hidden" name={name} value={chosen.id} />
      <Combobox value={chosen} by="id" onChange={choose} onClose={() => setTyped('')} immediate>
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
