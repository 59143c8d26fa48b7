import type { Brush } from '@/core/access/paint';
import { refKey, type Cover } from '@/core/access/rule';
import type { Instant } from '@/core/instants';
import type { KeyCut } from '@/core/key-cut';
import type { AccessState } from '@/kit/state-mark';

/** What the map shows and asks for, as its routes send and read it. */
export type ShownCell = {
  state: AccessState;
  left?: number;
  opensAt?: Instant;
  endedAt?: Instant;
  isOwn: boolean;
};
export type ShownRow = {
  key: string;
  id: string;
  title: string;
  depth: number;
  target: Cover;
  cells: ShownCell[];
};
export type ShownGroup = ShownRow & { count: number };
export type ShownColumn = { id: string; name: string; keyCut: KeyCut | null };
export type Screen = { groups: ShownGroup[]; rows: Record<string, ShownRow[]> };

export type PaintedCell = { target: Cover; as: string; to: Brush };
export type Asked = { on: string; also: string; search: string; paints: PaintedCell[] };

export const cellKey = (target: Cover, as: string): string => `${refKey(target)} ${as}`;

/** One more painted cell; the last paint of a cell counts, and what is inherited is so for its whole row. */
export function withPaint(paints: PaintedCell[], paint: PaintedCell): PaintedCell[] {
  const row = refKey(paint.target);
  const others = paints.filter(
    ({ target, as, to }) =>
      refKey(target) !== row || (as !== paint.as && paint.to !== 'inherit' && to !== 'inherit'),
  );
  return [...others, paint];
}

export const withoutPaint = (paints: PaintedCell[], target: Cover, as: string): PaintedCell[] =>
  paints.filter((one) => cellKey(one.target, one.as) !== cellKey(target, as));

/** Asks a route of the Desk; null where it refused or could not be reached. */
export async function ask<T>(path: string, body: unknown): Promise<T | null> {
  const answer = await fetch(path, {
    method: 'POST',
    headers: { 'content-type': 'application/json' },
    body: JSON.stringify(body),
  }).catch(() => null);
  if (!answer?.ok) return null;
  return ((await answer.json()) as { value: T }).value;
}

export const askScreen = (asked: Asked, open: string[]): Promise<Screen | null> =>
  ask('/desk/map/screen', { ...asked, open });
export const askRows = (asked: Asked, group: string, offset: number): Promise<ShownRow[] | null> =>
  ask('/desk/map/rows', { ...asked, group, offset });
export const askDifferences = (
  asked: Asked,
  group: string,
): Promise<{ rows: ShownRow[]; isAll: boolean } | null> => ask('/desk/map/differences', { ...asked, group });
