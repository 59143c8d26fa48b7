'use client';

import clsx from 'clsx';
import { Link } from '@/kit/link';
import { startTransition, useState, type ReactNode } from 'react';
import type { ItemState } from '@/core/content/item';
import type { Place } from '@/core/content/tree';
import { Button } from '@/kit/button';
import { inputClass } from '@/kit/input-class';
import { useToast } from '@/kit/surroundings';
import { TreeList } from '@/kit/tree-list';
import { desk } from '@/words/desk';

export type ItemLine = {
  id: string;
  parentId: string | null;
  depth: number;
  name: string;
  /** Its address, categories and day, as words. */
  facts: string;
  state: ItemState;
  /** Whether the one who looks may change it. */
  mayWrite: boolean;
  stateWords: string;
  /** Who opens it, and what sets that. */
  access: ReactNode;
};
/** What is done to all that are ticked. */
export type BulkChange =
  | { kind: 'add-category' | 'remove-category'; category: string }
  | { kind: 'add-tag' | 'remove-tag'; tag: string }
  | { kind: 'author'; author: string }
  | { kind: 'publish' | 'unpublish' | 'trash' };

type Named = { id: string; name: string }[];
type Props = {
  lines: ItemLine[];
  isTree: boolean;
  mayWrite: boolean;
  label: string;
  categories: Named;
  tags: Named;
  place: (id: string, place: Place) => Promise<string | null>;
  change: (ids: string[], change: BulkChange) => Promise<{ problem?: string; message?: string }>;
};

const STATE_LOOKS: Record<ItemState, string> = {
  draft: 'bg-metered-wash text-metered',
  scheduled: 'bg-later-wash text-later',
  published: 'bg-open-wash text-open',
  unpublished: 'bg-ended-wash text-ended',
  trashed: 'bg-closed-wash text-closed',
};

/** Items to look at, to tick and change together, and, where they are a tree, to move. */
export function ItemRows({ lines, isTree, mayWrite, label, categories, tags, place, change }: Props) {
  const [ticked, setTicked] = useState<ReadonlySet<string>>(new Set());
  const there = lines.filter(({ id }) => ticked.has(id));
  const toggle = (id: string): void =>
    setTicked((old) => {
      const next = new Set(old);
      if (!next.delete(id)) next.add(id);
      return next;
    });
  const line = (one: ItemLine) => (
    <div className="grid min-w-0 flex-1 grid-cols-[auto_1fr] items-baseline gap-x-3 gap-y-0.5 lg:grid-cols-[auto_minmax(14rem,1fr)_7rem_minmax(12rem,18rem)]">
      {one.mayWrite ? (
        <input
          type="checkbox"
          checked={ticked.has(one.id)}
          onChange={() => toggle(one.id)}
          aria-label={desk('desk-content.tick', { title: one.name })}
          className="size-4.5 translate-y-0.5"
        />
      ) : (
        <span />
      )}
      <div className="min-w-0">
        {one.mayWrite ? (
          <Link href={`/desk/content/items/${one.id}`} className="font-semibold hover:underline">
            {one.name}
          </Link>
        ) : (
          <span className="font-semibold">{one.name}</span>
        )}
        <p className="truncate text-[0.9375rem] text-muted">{one.facts}</p>
      </div>
      <span className="max-lg:col-start-2">
        <span className={clsx('rounded-full px-2.5 py-0.5 text-sm font-semibold', STATE_LOOKS[one.state])}>
          {one.stateWords}
        </span>
      </span>
      <div className="text-[0.9375rem] max-lg:col-start-2">{one.access}</div>
    </div>
  );
  return (
    <div className="pb-24">
      {isTree ? (
        <TreeList rows={lines} label={label} mostDepth={12} place={place} isFixed={!mayWrite}>
          {line}
        </TreeList>
      ) : (
        <ul aria-label={label} className="mt-3 divide-y divide-line border-y border-line">
          {lines.map((one) => (
            <li key={one.id} className="flex py-1.5">
              {line(one)}
            </li>
          ))}
        </ul>
      )}
      {mayWrite && lines.length > 1 && (
        <p className="mt-3">
          <button
            type="button"
            className="text-spruce underline"
            onClick={() => setTicked(new Set(there.length === lines.length ? [] : lines.map(({ id }) => id)))}
          >
            {there.length === lines.length ? desk('desk-content.tick-none') : desk('desk-content.tick-all')}
          </button>
        </p>
      )}
      {there.length > 0 && (
        <BulkBar
          count={there.length}
          categories={categories}
          tags={tags}
          onDrop={() => setTicked(new Set())}
          change={async (what) => {
            const answer = await change(
              there.map(({ id }) => id),
              what,
            );
            if (!answer.problem) setTicked(new Set());
            return answer;
          }}
        />
      )}
    </div>
  );
}

type BulkProps = {
  count: number;
  categories: Named;
  tags: Named;
  onDrop: () => void;
  change: (what: BulkChange) => Promise<{ problem?: string; message?: string }>;
};

/** What can be done to all that are ticked, at the foot of the screen. */
function BulkBar({ count, categories, tags, onDrop, change }: BulkProps) {
  const [isBusy, setBusy] = useState(false);
  const [problem, setProblem] = useState<string>();
  const showToast = useToast();
  const run = (what: BulkChange): void => {
    setBusy(true);
    startTransition(async () => {
      const answer = await change(what);
      setBusy(false);
      setProblem(answer.problem);
      if (answer.message) showToast(answer.message);
    });
  };
  const choice = (label: string, options: Named, of: (id: string) => BulkChange) =>
    options.length > 0 && (
      <select
        aria-label={label}
        value=""
        disabled={isBusy}
        onChange={(event) => event.target.value && run(of(event.target.value))}
        className={clsx(inputClass, '!w-auto max-w-48')}
      >
        <option value="">{label}</option>
        {options.map(({ id, name }) => (
          <option key={id} value={id}>
            {name}
          </option>
        ))}
      </select>
    );
  return (
    <div
      role="region"
      aria-label={desk('desk-content.change-ticked')}
      className="fixed inset-x-0 bottom-0 z-30 border-t border-line bg-surface px-6 py-3 shadow-[0_-4px_16px_rgb(0_0_0/0.12)]"
    >
      {problem && (
        <p role="alert" className="mb-2 font-medium text-closed">
          {problem}
        </p>
      )}
      <div className="flex flex-wrap items-center gap-3">
        <p className="figures font-semibold">{desk('desk-content.count-ticked', { count })}</p>
        {choice(desk('desk-content.add-category'), categories, (category) => ({
          kind: 'add-category',
          category,
        }))}
        {choice(desk('desk-content.remove-category'), categories, (category) => ({
          kind: 'remove-category',
          category,
        }))}
        {choice(desk('desk-content.add-tag'), tags, (tag) => ({ kind: 'add-tag', tag }))}
        {choice(desk('desk-content.remove-tag'), tags, (tag) => ({ kind: 'remove-tag', tag }))}
        <Button look="quiet" disabled={isBusy} onClick={() => run({ kind: 'publish' })}>
          {desk('desk-content.publish')}
        </Button>
        <Button look="quiet" disabled={isBusy} onClick={() => run({ kind: 'unpublish' })}>
          {desk('desk-content.unpublish')}
        </Button>
        <Button look="bad" disabled={isBusy} onClick={() => run({ kind: 'trash' })}>
          {desk('desk-content.to-trash')}
        </Button>
        <Button look="quiet" className="ml-auto" onClick={onDrop}>
          {desk('desk-content.tick-none')}
        </Button>
      </div>
    </div>
  );
}
