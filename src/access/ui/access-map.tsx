'use client';

import clsx from 'clsx';
import { X } from 'lucide-react';
import { useRouter } from 'next/navigation';
import { useCallback, useEffect, useRef, useState } from 'react';
import type { Brush } from '@/core/access/paint';
import type { FormAction } from '@/kit/action-form';
import { inputClass } from '@/kit/input-class';
import { useDeskWords } from '@/kit/desk-words';
import { desk } from '@/words/desk';
import { AccessGrid, type GridLine } from './access-grid';
import { MemberSearch, type FindMembers } from './member-search';
import { DraftBar, type AskDraftMembers, type PreviewDraft } from './draft-bar';
import {
  askDifferences,
  askRows,
  askScreen,
  withoutPaint,
  withPaint,
  type Asked,
  type PaintedCell,
  type Screen,
  type ShownColumn,
  type ShownGroup,
  type ShownRow,
} from './map-data';

type Props = {
  columns: ShownColumn[];
  screen: Screen;
  open: string[];
  on: string;
  also: string;
  search: string;
  asked: { item: string; as: string } | null;
  mayChange: boolean;
  findMembers: FindMembers;
  preview: PreviewDraft;
  members: AskDraftMembers;
  apply: FormAction;
  undo: FormAction;
};

const ROWS = 60;
const KEPT = 'nest-access-draft';
const BRUSHES: (Brush | null)[] = [null, 'open', 'closed', 'inherit'];
const brushWords = (brush: Brush | null): string =>
  desk(
    brush === null
      ? 'desk-access.brush-why'
      : brush === 'open'
        ? 'desk-access.brush-open'
        : brush === 'closed'
          ? 'desk-access.brush-closed'
          : 'desk-access.brush-inherit',
  );

/** The map: what is folded, in sight and painted. What is painted stays in this tab until it is applied or dropped. */
export function AccessMap(props: Props) {
  const { columns, on, also, search, mayChange } = props;
  const router = useRouter();
  const t = useDeskWords();
  const [groups, setGroups] = useState(props.screen.groups);
  const [rows, setRows] = useState<Record<string, (ShownRow | undefined)[]>>(props.screen.rows);
  const [open, setOpen] = useState(() => new Set(props.open));
  const [differences, setDifferences] = useState<Record<string, { isAll: boolean }> | null>(null);
  const [paints, setPaints] = useState<PaintedCell[]>([]);
  const [brush, setBrush] = useState<Brush | null>(null);
  const wanted = useRef(new Set<string>());
  const asked: Asked = { on, also, search, paints };

  const show = useCallback((screen: Screen | null): void => {
    if (!screen) return;
    wanted.current.clear();
    setGroups(screen.groups);
    setRows(screen.rows);
  }, []);

  /** The newest of several draws counts. */
  const turn = useRef(0);
  const paintAll = (all: PaintedCell[]): void => {
    setPaints(all);
    setDifferences(null);
    if (all.length > 0) sessionStorage.setItem(KEPT, JSON.stringify(all));
    else sessionStorage.removeItem(KEPT);
    const mine = ++turn.current;
    setTimeout(() => {
      if (mine !== turn.current) return;
      void askScreen({ ...asked, paints: all }, [...open]).then(
        (screen) => mine === turn.current && show(screen),
      );
    }, 120);
  };
  const paint = (row: ShownRow, as: string, to: Brush | null): void =>
    paintAll(to ? withPaint(paints, { target: row.target, as, to }) : withoutPaint(paints, row.target, as));

  useEffect(() => {
    const kept = mayChange ? sessionStorage.getItem(KEPT) : null;
    if (!kept) return;
    const wait = setTimeout(() => paintAll(JSON.parse(kept) as PaintedCell[]), 0);
    return () => clearTimeout(wait);
    // oxlint-disable-next-line react/exhaustive-deps -- once, where the page was left with a draft
  }, []);

  const load = (group: ShownGroup, place: number): void => {
    const offset = Math.floor(place / ROWS) * ROWS;
    const key = `${group.key} ${offset}`;
    if (wanted.current.has(key)) return;
    wanted.current.add(key);
    void askRows(asked, group.key, offset).then((found) => {
      if (!found) return wanted.current.delete(key);
      setRows((now) => {
        const there = [...(now[group.key] ?? [])];
        found.forEach((row, n) => (there[offset + n] = row));
        return { ...now, [group.key]: there };
      });
    });
  };
  const fold = (group: ShownGroup): void =>
    setOpen((now) => {
      const next = new Set(now);
      if (!next.delete(group.key)) next.add(group.key);
      const url = new URL(location.href);
      url.searchParams.set('open', [...next].join(','));
      history.replaceState(null, '', url);
      return next;
    });
  const compare = async (only: boolean): Promise<void> => {
    if (!only) {
      setDifferences(null);
      return show(await askScreen(asked, [...open]));
    }
    const found: Record<string, { isAll: boolean }> = {};
    for (const group of groups) {
      const answer = await askDifferences(asked, group.key);
      if (!answer) continue;
      found[group.key] = { isAll: answer.isAll };
      setRows((now) => ({ ...now, [group.key]: answer.rows }));
    }
    setDifferences(found);
    setOpen(new Set(groups.map(({ key }) => key)));
  };

  const lengthOf = (group: ShownGroup): number => {
    if (!open.has(group.key)) return 0;
    if (!differences) return group.count;
    const isAll = differences[group.key]?.isAll ?? true;
    return (rows[group.key]?.length ?? 0) + (isAll ? 0 : 1);
  };
  const lengths = groups.map((group) => 1 + lengthOf(group));
  const count = lengths.reduce((sum, length) => sum + length, 0);
  const lineAt = (n: number): GridLine => {
    let at = n;
    for (const [index, group] of groups.entries()) {
      const length = lengths[index] ?? 1;
      if (at === 0) return { kind: 'group', group, isOpen: open.has(group.key) };
      if (at < length) {
        const row = rows[group.key]?.[at - 1];
        if (differences && !row)
          return { kind: 'note', group, words: desk('desk-access.not-all-looked-at', { count: 5000 }) };
        return { kind: 'row', group, place: at - 1, row };
      }
      at -= length;
    }
    throw new RangeError('there is no such line');
  };
  const hrefWith = (more: Record<string, string>): string => {
    const parts = { on, as: '', also, q: search, open: [...open].join(','), ...more };
    const query = new URLSearchParams(Object.entries(parts).filter(([, value]) => value !== ''));
    return `/desk/access?${query.toString()}`;
  };

  return (
    <div>
      <div className="mb-3 flex flex-wrap items-center gap-x-5 gap-y-2">
        <form
          role="search"
          onSubmit={(event) => {
            event.preventDefault();
            const typed = new FormData(event.currentTarget).get('q');
            router.push(hrefWith({ q: typeof typed === 'string' ? typed.trim() : '' }));
          }}
        >
          <input
            type="search"
            name="q"
            data-filter
            defaultValue={search}
            maxLength={200}
            aria-label={desk('desk-access.find-in-map')}
            placeholder={desk('desk-access.find-in-map')}
            className={`${inputClass} !w-56 py-1.5`}
          />
        </form>
        <label className="flex items-center gap-2">
          <input
            type="checkbox"
            className="size-4.5"
            checked={differences !== null}
            onChange={(event) => void compare(event.target.checked)}
          />
          {desk('desk-access.only-differences')}
        </label>
        {!also && (
          <div className="relative w-56 [&_ul]:absolute [&_ul]:z-20 [&_ul]:w-80 [&_ul]:rounded-md [&_ul]:bg-surface [&_ul]:shadow-lg">
            <MemberSearch
              find={props.findMembers}
              label={desk('desk-access.see-as-member')}
              onChoose={({ id }) => router.push(hrefWith({ also: `member:${id}` }))}
            />
          </div>
        )}
        {also && (
          <button
            type="button"
            onClick={() => router.push(hrefWith({ also: '' }))}
            className="flex items-center gap-1 rounded-full border border-line px-3 py-0.5 text-muted hover:text-ink"
            aria-label={desk('desk-access.without-that-column', { name: columns.at(-1)?.name ?? '' })}
          >
            {columns.at(-1)?.name} <X className="size-4" aria-hidden />
          </button>
        )}
        {mayChange && (
          <div
            role="group"
            aria-label={desk('desk-access.paint')}
            className="flex rounded-lg bg-sunken p-1 max-md:hidden"
          >
            {BRUSHES.map((one) => (
              <button
                key={one ?? 'why'}
                type="button"
                aria-pressed={brush === one}
                onClick={() => setBrush(one)}
                className={clsx(
                  'rounded-md px-3 py-1 font-semibold',
                  brush === one ? 'bg-surface shadow-sm' : 'text-muted hover:text-ink',
                )}
              >
                {brushWords(one)}
              </button>
            ))}
          </div>
        )}
        <a
          href={`/desk/map/export?${new URLSearchParams({ on, also, q: search }).toString()}`}
          className="ml-auto text-spruce underline"
        >
          {desk('desk-access.export-csv')}
        </a>
      </div>
      <AccessGrid
        t={t}
        columns={columns}
        count={count}
        lineAt={lineAt}
        paints={paints}
        brush={brush}
        mayPaint={mayChange}
        whyHref={(item, as) => hrefWith({ why: item, as })}
        asked={props.asked}
        onFold={fold}
        onPaint={paint}
        onNeed={load}
      />
      {mayChange && (
        <p className="mt-2 text-[0.9375rem] text-muted max-md:hidden">{desk('desk-access.paint-hint')}</p>
      )}
      {paints.length > 0 && (
        <DraftBar
          paints={paints}
          preview={props.preview}
          members={props.members}
          apply={props.apply}
          undo={props.undo}
          onDone={() => {
            paintAll([]);
            router.refresh();
          }}
          onDrop={() => paintAll([])}
        />
      )}
    </div>
  );
}
