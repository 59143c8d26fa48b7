'use client';

import { X } from 'lucide-react';
import { useEffect, useState } from 'react';
import { refKey, type Cover } from '@/core/access/rule';
import { ItemSearch } from '@/content/ui/item-search';
import { Button } from '@/kit/button';
import { inputClass } from '@/kit/input-class';
import { PickBox } from '@/kit/pick-box';
import { coverWords, type Names } from './rule-words';
import { desk } from '@/words/desk';

export type CoverChoices = {
  categories: { id: string; name: string }[];
  tags: { id: string; name: string }[];
  kinds: { id: string; name: string }[];
};
type Props = CoverChoices & {
  covers: Cover[];
  names: Names;
  /** What the fields are called that add something. */
  words: { things: string; item: string; address: string };
  onChange: (covers: Cover[], names?: Names) => void;
};

/** Chooses what a rule covers, or leaves out: items, categories, tags, kinds, addresses, the site. */
export function CoverPicker({ covers, categories, tags, kinds, names, words, onChange }: Props) {
  const chosen = new Set(covers.map(refKey));
  const add = (cover: Cover, name?: string): void => {
    if (chosen.has(refKey(cover))) return;
    onChange([...covers, cover], name && 'id' in cover ? { [refKey(cover)]: name } : undefined);
  };
  const options = (list: { cover: Cover; name: string }[]) =>
    list
      .filter(({ cover }) => !chosen.has(refKey(cover)))
      .map(({ cover, name }) => ({ id: JSON.stringify(cover), name }));
  const named = (kind: 'category' | 'tag' | 'type', list: { id: string; name: string }[]) =>
    options(list.map(({ id, name }) => ({ cover: { kind, id }, name })));
  return (
    <div className="grid gap-3">
      <ul className="grid gap-1.5">
        {covers.map((cover) => (
          <li
            key={refKey(cover)}
            className="flex items-center justify-between gap-3 rounded-md bg-sunken py-1 pr-1 pl-3"
          >
            <span className="min-w-0">
              <span className="inline-block break-words first-letter:uppercase">
                {coverWords(cover, names)}
              </span>
              {(cover.kind === 'item' || cover.kind === 'under') && (
                <label className="flex items-center gap-2 text-[0.9375rem] text-muted">
                  <input
                    type="checkbox"
                    checked={cover.kind === 'under'}
                    onChange={(event) =>
                      onChange(
                        covers.map((other) =>
                          other === cover
                            ? { kind: event.target.checked ? 'under' : 'item', id: cover.id }
                            : other,
                        ),
                      )
                    }
                  />
                  {desk('desk-access.and-below-it')}
                </label>
              )}
              {cover.kind === 'path' && <Matched pattern={cover.pattern} />}
            </span>
            <button
              type="button"
              aria-label={desk('desk-access.remove', { cover: coverWords(cover, names) })}
              className="grid size-8 flex-none place-items-center rounded hover:bg-line"
              onClick={() => onChange(covers.filter((other) => other !== cover))}
            >
              <X className="size-4" aria-hidden />
            </button>
          </li>
        ))}
      </ul>
      <PickBox
        label={words.things}
        placeholder={words.things}
        groups={[
          { label: desk('desk.categories'), options: named('category', categories) },
          { label: desk('desk-access.tags'), options: named('tag', tags) },
          {
            label: desk('desk-access.all-of-a-kind'),
            options: [
              ...named('type', kinds),
              ...options([{ cover: { kind: 'site' }, name: desk('desk-access.the-whole-site') }]),
            ],
          },
        ]}
        onPick={(id) => add(JSON.parse(id) as Cover)}
      />
      <ItemSearch
        // Empty again once one was chosen.
        key={covers.length}
        label={words.item}
        hasFocus={false}
        onChoose={({ id, title }) => {
          if (!chosen.has(refKey({ kind: 'under', id }))) add({ kind: 'item', id }, title);
        }}
      />
      <AddressField label={words.address} onAdd={(pattern) => add({ kind: 'path', pattern })} />
    </div>
  );
}

/** An address, a folder or a pattern; what it matches is counted as it is typed. */
function AddressField({ label, onAdd }: { label: string; onAdd: (pattern: string) => void }) {
  const [typed, setTyped] = useState('');
  const pattern = typed.trim() === '' ? '' : typed.trim().startsWith('/') ? typed.trim() : `/${typed.trim()}`;
  const add = (): void => {
    if (!pattern) return;
    onAdd(pattern);
    setTyped('');
  };
  return (
    <div>
      <div className="flex gap-2">
        <input
          aria-label={label}
          placeholder={label}
          className={inputClass}
          value={typed}
          maxLength={500}
          onChange={(event) => setTyped(event.target.value)}
          onKeyDown={(event) => {
            if (event.key !== 'Enter') return;
            event.preventDefault();
            add();
          }}
        />
        <Button look="quiet" onClick={add} disabled={!pattern}>
          {desk('desk-access.add')}
        </Button>
      </div>
      {pattern ? (
        <Matched pattern={pattern} />
      ) : (
        <p className="mt-1 text-sm text-muted">{desk('desk-access.address-hint')}</p>
      )}
    </div>
  );
}

type Matching = { count: number; some: string[] };

/** How many items have an address that a pattern covers, and some of them. */
function Matched({ pattern }: { pattern: string }) {
  const [found, setFound] = useState<{ pattern: string } & Matching>();
  useEffect(() => {
    const asked = new AbortController();
    const wait = setTimeout(() => {
      fetch(`/desk/matching?${new URLSearchParams({ pattern }).toString()}`, { signal: asked.signal })
        .then(async (answer) => answer.ok && setFound({ pattern, ...((await answer.json()) as Matching) }))
        .catch(() => undefined);
    }, 250);
    return () => {
      clearTimeout(wait);
      asked.abort();
    };
  }, [pattern]);
  return (
    <span role="status" className="mt-1 block min-h-5 text-sm text-muted">
      {found?.pattern === pattern &&
        desk('desk-access.address-matches', { count: found.count, some: found.some.join(', ') })}
    </span>
  );
}
