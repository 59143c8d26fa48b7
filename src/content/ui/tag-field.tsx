'use client';

import { X } from 'lucide-react';
import { useId, useState } from 'react';
import { Draft, useProblem } from '@/kit/action-form';
import { inputClass } from '@/kit/input-class';
import { desk } from '@/words/desk';

type Props = { initial: string[]; known: string[] };

/** The names of tags: known ones are offered, new ones are made when the form is saved. Enter or a comma ends one. */
export function TagField({ initial, known }: Props) {
  const [tags, setTags] = useState(initial);
  const [typed, setTyped] = useState('');
  const [id, problem] = [useId(), useProblem('tags')];
  const add = (text: string): void => {
    const names = text
      .split(',')
      .map((name) => name.trim().slice(0, 60))
      .filter(Boolean);
    setTags((old) => [
      ...old,
      ...names.filter((name) => !old.some((one) => one.toLowerCase() === name.toLowerCase())),
    ]);
    setTyped('');
  };
  return (
    <div>
      {/* What is typed and not ended yet counts too. */}
      <Draft name="tags" value={typed.trim() ? [...tags, typed.trim()] : tags} />
      <label htmlFor={id} className="mb-1 block font-semibold">
        {desk('desk-content.tags')}
      </label>
      {tags.length > 0 && (
        <ul className="mb-2 flex flex-wrap gap-1.5">
          {tags.map((tag) => (
            <li key={tag} className="flex items-center gap-1 rounded-full bg-sunken py-0.5 pr-1 pl-3">
              {tag}
              <button
                type="button"
                aria-label={desk('desk-content.remove-tag-named', { tag })}
                onClick={() => setTags(tags.filter((one) => one !== tag))}
                className="grid size-6 place-items-center rounded-full text-muted hover:text-ink"
              >
                <X className="size-3.5" aria-hidden />
              </button>
            </li>
          ))}
        </ul>
      )}
      <input
        id={id}
        list={`${id}-known`}
        value={typed}
        maxLength={60}
        onChange={(event) =>
          event.target.value.endsWith(',') ? add(event.target.value) : setTyped(event.target.value)
        }
        onBlur={() => add(typed)}
        onKeyDown={(event) => {
          if (event.key !== 'Enter') return;
          event.preventDefault();
          add(typed);
        }}
        className={inputClass}
        autoComplete="off"
      />
      <datalist id={`${id}-known`}>
        {known
          .filter((name) => !tags.includes(name))
          .slice(0, 200)
          .map((name) => (
            <option key={name} value={name} />
          ))}
      </datalist>
      {problem && <p className="mt-1 text-[0.9375rem] font-medium text-closed">{problem}</p>}
    </div>
  );
}
