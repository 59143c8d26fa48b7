'use client';

import { X } from 'lucide-react';
import { refKey, type Cover } from '@/core/access/rule';
import { PickBox } from '@/kit/pick-box';
import { coverWords } from './rule-words';
import { desk } from '@/words/desk';

type Props = {
  covers: Cover[];
  items: { id: string; title: string; type: string }[];
  categories: { id: string; name: string }[];
  /** What the list of choices is called while nothing is chosen, and afterwards. */
  first: string;
  more: string;
  onChange: (covers: Cover[]) => void;
};

/** Chooses what a rule covers: pages, posts, categories, kinds, the site. */
export function CoverPicker({ covers, items, categories, first, more, onChange }: Props) {
  const names = {
    items: new Map(items.map((i) => [i.id, i.title])),
    categories: new Map(categories.map((c) => [c.id, c.name])),
    tiers: new Map(),
  };
  const choices = (kind: 'item' | 'under', list: Props['items']): { cover: Cover; words: string }[] =>
    list.map((item) => ({
      cover: { kind, id: item.id },
      words: kind === 'item' ? item.title : desk('desk-access.and-all-pages-below', { title: item.title }),
    }));
  const groups: { label: string; choices: { cover: Cover; words: string }[] }[] = [
    {
      label: desk('desk.categories'),
      choices: categories.map((c) => ({ cover: { kind: 'category', id: c.id }, words: c.name })),
    },
    {
      label: desk('desk.pages'),
      choices: choices(
        'item',
        items.filter((item) => item.type === 'page'),
      ),
    },
    {
      label: desk('desk-access.pages-with-all-below'),
      choices: choices(
        'under',
        items.filter((item) => item.type === 'page'),
      ),
    },
    {
      label: desk('desk.posts'),
      choices: choices(
        'item',
        items.filter((item) => item.type === 'post'),
      ),
    },
    {
      label: desk('desk-access.all-of-a-kind'),
      choices: [
        { cover: { kind: 'type', id: 'page' }, words: desk('desk-access.all-pages') },
        { cover: { kind: 'type', id: 'post' }, words: desk('desk-access.all-posts') },
        { cover: { kind: 'site' }, words: desk('desk-access.the-whole-site') },
      ],
    },
  ];
  const chosen = new Set(covers.map(refKey));
  return (
    <div className="grid gap-3">
      <ul className="grid gap-1.5">
        {covers.map((cover) => (
          <li
            key={refKey(cover)}
            className="flex items-center justify-between gap-3 rounded-md bg-sunken py-1 pr-1 pl-3"
          >
            <span className="first-letter:uppercase">{coverWords(cover, names)}</span>
            <button
              type="button"
              aria-label={desk('desk-access.remove', { cover: coverWords(cover, names) })}
              className="grid size-8 place-items-center rounded hover:bg-line"
              onClick={() => onChange(covers.filter((other) => refKey(other) !== refKey(cover)))}
            >
              <X className="size-4" aria-hidden />
            </button>
          </li>
        ))}
      </ul>
      <PickBox
        label={more}
        placeholder={covers.length === 0 ? first : more}
        groups={groups.map((group) => ({
          label: group.label,
          options: group.choices
            .filter(({ cover }) => !chosen.has(refKey(cover)))
            .map(({ cover, words }) => ({ id: JSON.stringify(cover), name: words })),
        }))}
        onPick={(id) => onChange([...covers, JSON.parse(id) as Cover])}
      />
    </div>
  );
}
