'use client';

import { startTransition, useOptimistic, useState, type ReactNode } from 'react';
import { moveTo, placeAt, type Place, type TreeRow } from '@/core/content/tree';
import { SortableList, SortableRow } from '@/kit/sortable-list';
import { ChevronLeft, ChevronRight } from 'lucide-react';
import { desk } from '@/words/desk';

/** By how many pixels a row is drawn aside to be one deeper. */
const STEP = 28;

type Row = TreeRow & { name: string };
type Props<T extends Row> = {
  rows: T[];
  label: string;
  /** How deep rows may lie; 0 for a plain list. */
  mostDepth: number;
  /** Answers what is wrong; null where it is done. */
  place: (id: string, place: Place, rows: T[]) => Promise<string | null>;
  children: (row: T) => ReactNode;
  isFixed?: boolean;
};

/** Rows that are dragged into order, and aside to lie below one another; the same by keyboard. */
export function TreeList<T extends Row>({
  rows,
  label,
  mostDepth,
  place,
  children,
  isFixed = false,
}: Props<T>) {
  const [shown, show] = useOptimistic(rows);
  const [problem, setProblem] = useState<string | null>(null);
  const put = (id: string, at: number, depth: number): void => {
    const to = placeAt(shown, { id, at, depth, mostDepth });
    if (!to) return;
    const after = moveTo(shown, id, to);
    startTransition(async () => {
      show(after);
      setProblem(await place(id, to, after));
    });
  };
  return (
    <>
      {problem && (
        <p
          role="alert"
          className="mt-3 rounded-md border-l-4 border-closed bg-closed-wash px-3 py-2 font-medium text-closed"
        >
          {problem}
        </p>
      )}
      <SortableList
        ids={shown.map(({ id }) => id)}
        nameOf={(id) => shown.find((row) => row.id === id)?.name ?? id}
        label={label}
        isTree={mostDepth > 0}
        onMove={(_, from, to, aside) => {
          const row = shown[from];
          if (row) put(row.id, to, row.depth + Math.round(aside / STEP));
        }}
        className="mt-3 divide-y divide-line border-y border-line"
      >
        {shown.map((row, index) => (
          <SortableRow
            key={row.id}
            id={row.id}
            name={row.name}
            isFixed={isFixed}
            className="flex items-start gap-1 bg-paper py-1.5"
            style={{ paddingLeft: `${row.depth * STEP}px` }}
          >
            {mostDepth > 0 && !isFixed && (
              <span className="flex flex-none">
                <Aside
                  label={desk('desk-kit.move-out', { name: row.name })}
                  isOff={row.depth === 0}
                  onPress={() => put(row.id, index, row.depth - 1)}
                >
                  <ChevronLeft className="size-4" aria-hidden />
                </Aside>
                <Aside
                  label={desk('desk-kit.move-in', { name: row.name })}
                  isOff={index === 0 || (shown[index - 1]?.depth ?? 0) < row.depth}
                  onPress={() => put(row.id, index, row.depth + 1)}
                >
                  <ChevronRight className="size-4" aria-hidden />
                </Aside>
              </span>
            )}
            {children(row)}
          </SortableRow>
        ))}
      </SortableList>
    </>
  );
}

function Aside({
  label,
  isOff,
  onPress,
  children,
}: {
  label: string;
  isOff: boolean;
  onPress: () => void;
  children: ReactNode;
}) {
  return (
    <button
      type="button"
      aria-label={label}
      title={label}
      disabled={isOff}
      onClick={onPress}
      className="grid size-6 place-items-center rounded text-muted hover:bg-sunken hover:text-ink disabled:opacity-25"
    >
      {children}
    </button>
  );
}
