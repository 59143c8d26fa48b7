'use client';

import { useVirtualizer } from '@tanstack/react-virtual';
import clsx from 'clsx';
import { ChevronRight } from 'lucide-react';
import { Link } from '@/kit/link';
import { useEffect, useRef, useState, type KeyboardEvent } from 'react';
import type { Brush } from '@/core/access/paint';
import type { Words } from '@/words/speak';
import { KeyGlyph } from '@/kit/key-cut';
import { StateMark } from '@/kit/state-mark';
import { desk } from '@/words/desk';
import {
  cellKey,
  type PaintedCell,
  type ShownCell,
  type ShownColumn,
  type ShownGroup,
  type ShownRow,
} from './map-data';

export type GridLine =
  | { kind: 'group'; group: ShownGroup; isOpen: boolean }
  | { kind: 'row'; group: ShownGroup; place: number; row: ShownRow | undefined }
  | { kind: 'note'; group: ShownGroup; words: string };

type Props = {
  t: Pick<Words, 'dayMonth'>;
  columns: ShownColumn[];
  /** How many lines there are, and each of them. */
  count: number;
  lineAt: (n: number) => GridLine;
  paints: PaintedCell[];
  /** With what cells are painted where they are pressed; null: they are asked why. */
  brush: Brush | null;
  mayPaint: boolean;
  whyHref: (item: string, as: string) => string;
  asked: { item: string; as: string } | null;
  onFold: (group: ShownGroup) => void;
  onPaint: (row: ShownRow, as: string, to: Brush | null) => void;
  onNeed: (group: ShownGroup, place: number) => void;
};

const LETTERS: Partial<Record<string, Brush>> = { o: 'open', c: 'closed', i: 'inherit' };
const ROW_HEIGHT = 38;

function cellWords(cell: ShownCell, t: Pick<Words, 'dayMonth'>): string {
  switch (cell.state) {
    case 'open':
      return desk('desk-access.open');
    case 'metered':
      return desk('desk-access.views-left', { left: (cell.left ?? 0) + 1 });
    case 'later':
      return cell.opensAt
        ? desk('desk-access.from', { date: t.dayMonth(cell.opensAt) })
        : desk('desk-access.later');
    case 'ended':
      return desk('desk-access.ended');
    case 'closed':
      return desk('desk-access.closed');
  }
}

/** Items down, viewpoints across; only what is in sight is drawn. What is set for a row itself is strong, what is inherited faint. */
export function AccessGrid(props: Props) {
  const { t, columns, count, lineAt, paints, brush, mayPaint, whyHref, asked, onFold, onPaint, onNeed } =
    props;
  const scroller = useRef<HTMLDivElement>(null);
  const [active, setActive] = useState({ line: 0, column: 0 });
  const [isMoved, setMoved] = useState(false);
  const [isPainting, setPainting] = useState(false);
  const [phone, setPhone] = useState(0);
  const virtual = useVirtualizer({
    count,
    getScrollElement: () => scroller.current,
    estimateSize: () => ROW_HEIGHT,
    overscan: 14,
    // What a server draws before it knows how much is in sight.
    initialRect: { width: 1280, height: 640 },
  });
  const painted = new Map(paints.map((paint) => [cellKey(paint.target, paint.as), paint.to]));

  const cellAt = ({ line, column }: { line: number; column: number }): HTMLElement | null | undefined =>
    scroller.current?.querySelector<HTMLElement>(`[data-cell="${line}:${column}"]`);
  useEffect(() => {
    if (!isMoved) return;
    virtual.scrollToIndex(active.line);
    requestAnimationFrame(() => cellAt(active)?.focus());
    // oxlint-disable-next-line react/exhaustive-deps -- where the focus goes, once for each move
  }, [active, isMoved]);
  const inSight = virtual.getVirtualItems();
  useEffect(() => {
    for (const { index } of inSight) {
      const line = index < count ? lineAt(index) : null;
      if (line?.kind === 'row' && !line.row) onNeed(line.group, line.place);
    }
  });
  useEffect(() => {
    const stop = (): void => setPainting(false);
    window.addEventListener('pointerup', stop);
    return () => window.removeEventListener('pointerup', stop);
  }, []);

  /** The cell that has the focus: it may have had it before the page was interactive. */
  const focused = (event: KeyboardEvent): { line: number; column: number } => {
    const cell = (event.target as HTMLElement).closest<HTMLElement>('[data-cell]');
    const [line, column] = cell?.dataset.cell?.split(':').map(Number) ?? [];
    return line === undefined || column === undefined ? active : { line, column };
  };
  const move = (from: { line: number; column: number }, lines: number, across: number): void => {
    const next = {
      line: Math.min(count - 1, Math.max(0, from.line + lines)),
      column: Math.min(columns.length - 1, Math.max(0, from.column + across)),
    };
    setMoved(true);
    setActive(next);
    // At once where the cell is drawn, so that a second key that follows quickly acts there.
    cellAt(next)?.focus({ preventScroll: true });
  };
  const pressed = (event: KeyboardEvent): void => {
    if (event.ctrlKey || event.metaKey || event.altKey) return;
    const at = focused(event);
    const line = lineAt(at.line);
    const row = line.kind === 'group' ? line.group : line.kind === 'row' ? line.row : undefined;
    const column = columns[at.column];
    const letter = LETTERS[event.key.toLowerCase()];
    const moves: Partial<Record<string, [number, number]>> = {
      ArrowDown: [1, 0],
      ArrowUp: [-1, 0],
      ArrowLeft: [0, -1],
      ArrowRight: [0, 1],
      PageDown: [15, 0],
      PageUp: [-15, 0],
      Home: [0, -columns.length],
      End: [0, columns.length],
    };
    const by = moves[event.key];
    if (by) move(at, ...by);
    else if (mayPaint && letter && row && column) onPaint(row, column.id, letter);
    else if (mayPaint && event.key === 'Backspace' && row && column) onPaint(row, column.id, null);
    else if (event.key === ' ' && line.kind === 'group') onFold(line.group);
    else return;
    event.preventDefault();
    event.stopPropagation();
  };

  const template = { '--columns': `minmax(12rem, 20rem) repeat(${columns.length}, minmax(7.25rem, 1fr))` };
  const cellOf = (row: ShownRow, cell: ShownCell, at: number, line: number, isGroup: boolean) => {
    const column = columns[at] ?? { id: '', name: '', keyCut: null };
    const to = painted.get(cellKey(row.target, column.id));
    const words = cellWords(cell, t);
    const isAsked = asked?.item === row.id && asked.as === column.id;
    const label = [
      words,
      cell.isOwn && desk('desk-access.set-here'),
      to && desk('desk-access.painted'),
      `${isGroup ? '' : `${desk('desk-access.why')} `}${row.title}, ${column.name}`,
    ]
      .filter(Boolean)
      .join('. ');
    const shared = {
      'data-cell': `${line}:${at}`,
      tabIndex: active.line === line && active.column === at ? 0 : -1,
      'aria-label': label,
      onFocus: () => {
        if (active.line !== line || active.column !== at) setActive({ line, column: at });
      },
      className: clsx(
        'block w-full rounded-md outline-offset-1 hover:ring-2 hover:ring-edge',
        (isAsked || to) && 'ring-2 ring-brass',
        brush && 'cursor-cell select-none',
      ),
      ...(brush && {
        onPointerDown: (event: React.PointerEvent<HTMLElement>) => {
          event.currentTarget.releasePointerCapture(event.pointerId);
          setPainting(true);
          onPaint(row, column.id, brush);
        },
        onPointerEnter: () => isPainting && onPaint(row, column.id, brush),
        onDragStart: (event: React.DragEvent) => event.preventDefault(),
      }),
    };
    const mark = <StateMark state={cell.state} words={words} faint={!cell.isOwn && !to} />;
    return (
      <div
        key={column.id}
        role="gridcell"
        aria-colindex={at + 2}
        className={clsx('min-w-0 px-0.5', at !== phone && 'max-md:hidden')}
      >
        {isGroup || brush ? (
          <button type="button" {...shared} onClick={() => !brush && onFold(row as ShownGroup)}>
            {mark}
          </button>
        ) : (
          <Link
            href={whyHref(row.id, column.id)}
            scroll={false}
            aria-current={isAsked ? 'true' : undefined}
            {...shared}
          >
            {mark}
          </Link>
        )}
      </div>
    );
  };

  return (
    <>
      <label className="mb-2 flex items-center gap-2 md:hidden">
        <span className="text-muted">{desk('desk-access.seen-as')}</span>
        <select
          value={phone}
          onChange={(event) => setPhone(Number(event.target.value))}
          className="rounded-md border border-edge bg-surface px-2 py-1.5"
        >
          {columns.map((column, n) => (
            <option key={column.id} value={n}>
              {column.name}
            </option>
          ))}
        </select>
      </label>
      <div
        ref={scroller}
        role="treegrid"
        aria-label={desk('desk-access.map-of')}
        aria-rowcount={count + 1}
        aria-colcount={columns.length + 1}
        onKeyDown={pressed}
        style={template as React.CSSProperties}
        className="relative max-h-[calc(100dvh-14.5rem)] min-h-72 overflow-auto rounded-card border border-line bg-surface"
      >
        <div
          role="row"
          aria-rowindex={1}
          className="access-line sticky top-0 z-10 border-b border-line bg-surface py-2 max-md:hidden"
        >
          <div role="columnheader" className="sticky left-0 bg-surface pl-4 text-[0.9375rem] text-muted">
            {desk('desk-access.item')}
          </div>
          {columns.map((column) => (
            <div
              key={column.id}
              role="columnheader"
              className="min-w-0 px-2 text-[0.9375rem] leading-tight font-semibold break-words"
            >
              {column.keyCut && <KeyGlyph cut={column.keyCut} size={15} className="mb-0.5" />}
              <span className="block">{column.name}</span>
            </div>
          ))}
        </div>
        <div style={{ height: virtual.getTotalSize() }} className="relative md:min-w-max">
          {inSight.map(({ index, start }) => {
            const line = lineAt(index);
            const isGroup = line.kind === 'group';
            const row = isGroup ? line.group : line.kind === 'row' ? line.row : undefined;
            return (
              <div
                key={`${line.group.key} ${line.kind === 'row' ? line.place : line.kind}`}
                role="row"
                aria-rowindex={index + 2}
                aria-level={isGroup ? 1 : 2}
                aria-expanded={isGroup ? line.isOpen : undefined}
                className={clsx(
                  'access-line absolute top-0 left-0 w-full',
                  isGroup && 'border-t border-line bg-sunken/60',
                )}
                style={{ height: ROW_HEIGHT, transform: `translateY(${start}px)` }}
              >
                <div
                  role="rowheader"
                  className={clsx(
                    'sticky left-0 flex h-full min-w-0 items-center gap-1 self-stretch pr-3',
                    isGroup ? 'bg-sunken font-display font-semibold' : 'bg-surface',
                  )}
                  style={{
                    paddingLeft: `${(isGroup ? 0.5 : 1.25) + Math.min(row?.depth ?? 1, 6) * 0.75}rem`,
                  }}
                >
                  {line.kind === 'note' ? (
                    <span className="text-muted">{line.words}</span>
                  ) : isGroup ? (
                    <button
                      type="button"
                      onClick={() => onFold(line.group)}
                      aria-expanded={line.isOpen}
                      className="flex min-w-0 items-center gap-1 text-left"
                    >
                      <ChevronRight
                        className={clsx('size-4 flex-none transition-transform', line.isOpen && 'rotate-90')}
                        aria-hidden
                      />
                      <span className="truncate">{line.group.title}</span>
                      <span className="figures ml-1 font-sans text-sm font-normal text-muted">
                        {desk('desk-access.in-group', { count: line.group.count })}
                      </span>
                    </button>
                  ) : row ? (
                    <Link href={`/desk/content/items/${row.id}`} className="truncate hover:underline">
                      {row.title}
                    </Link>
                  ) : (
                    <span className="text-muted">{desk('desk-access.loading-rows')}</span>
                  )}
                </div>
                {row?.cells.map((cell, at) => cellOf(row, cell, at, index, isGroup))}
              </div>
            );
          })}
        </div>
      </div>
    </>
  );
}
