'use client';

import { X } from 'lucide-react';
import { refKey, type Cover } from '@/core/access/rule';
import { PickBox } from '@/kit/pick-box';
import { coverWords } from './rule-words';

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
      words: kind === 'item' ? item.title : `${item.title} and all pages below`,
    }));
  const groups: { label: string; choices: { cover: Cover; words: string }[] }[] = [
    {
      label: 'Categories',
      choices: categories.map((c) => ({ cover: { kind: 'category', id: c.id }, words: c.name })),
    },
    {
      label: 'Pages',
      choices: choices(
        'item',
        items.filter((item) => item.type === 'page'),
      ),
    },
    {
      label: 'Pages with all below',
      choices: choices(
        'under',
        items.filter((item) => item.type === 'page'),
      ),
    },
    {
      label: 'Posts',
      choices: choices(
        'item',
        items.filter((item) => item.type === 'post'),
      ),
    },
    {
      label: 'All of a kind',
      choices: [
        { cover: { kind: 'type', id: 'page' }, words: 'All pages' },
        { cover: { kind: 'type', id: 'post' }, words: 'All posts' },
        { cover: { kind: 'site' }, words: 'The whole site' },
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
              aria-label={`Remove ${coverWords(cover, names)}`}
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
