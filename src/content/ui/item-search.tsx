'use client';

import { Combobox, ComboboxInput, ComboboxOption, ComboboxOptions } from '@headlessui/react';
import { useEffect, useState } from 'react';
import { inputClass } from '@/kit/input-class';
import { optionClass, optionsClass } from '@/kit/pick-box';
import { desk } from '@/words/desk';

export type FoundItem = { id: string; title: string; path: string; type: string };
type Props = {
  label: string;
  /** Only of this kind. */
  kind?: string;
  /** What else can be chosen with what was typed: an address. */
  typedAs?: (typed: string) => { words: string; onChoose: () => void } | null;
  onChoose: (item: FoundItem) => void;
  hasFocus?: boolean;
};

/** An item, found by a part of its title or address. */
export function ItemSearch({ label, kind, typedAs, onChoose, hasFocus = true }: Props) {
  const [typed, setTyped] = useState('');
  const [found, setFound] = useState<FoundItem[]>([]);
  useEffect(() => {
    const asked = new AbortController();
    const wait = setTimeout(() => {
      const query = new URLSearchParams({ q: typed, ...(kind && { kind }) });
      fetch(`/desk/find-items?${query}`, { signal: asked.signal })
        .then(async (answer) => (answer.ok ? ((await answer.json()) as FoundItem[]) : []))
        .then(setFound)
        // Typed on, or not reachable: what was found last stays.
        .catch(() => undefined);
    }, 150);
    return () => {
      clearTimeout(wait);
      asked.abort();
    };
  }, [typed, kind]);
  const own = typedAs?.(typed.trim()) ?? null;
  return (
    <Combobox
      value={null}
      onChange={(chosen: FoundItem | 'typed' | null) => {
        if (chosen === 'typed') own?.onChoose();
        else if (chosen) onChoose(chosen);
      }}
      immediate
    >
      <ComboboxInput
        aria-label={label}
        placeholder={label}
        className={inputClass}
        value={typed}
        maxLength={2000}
        onChange={(event) => setTyped(event.target.value)}
        autoComplete="off"
        autoFocus={hasFocus}
      />
      <ComboboxOptions anchor={{ to: 'bottom start', gap: 4 }} className={optionsClass}>
        {own && (
          <ComboboxOption value="typed" className={optionClass}>
            {own.words}
          </ComboboxOption>
        )}
        {found.map((item) => (
          <ComboboxOption key={item.id} value={item} className={optionClass}>
            {item.title} <span className="text-muted">{item.path}</span>
          </ComboboxOption>
        ))}
        {found.length === 0 && !own && (
          <p className="px-3 py-1.5 text-muted">{desk('desk-content.none-found')}</p>
        )}
      </ComboboxOptions>
    </Combobox>
  );
}
