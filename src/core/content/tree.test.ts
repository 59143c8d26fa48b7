import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { flat, isShownTo, treeOf } from './menu';
import { moveTo, placeAt, type TreeRow } from './tree';

const row = (id: string, parentId: string | null, depth: number): TreeRow => ({ id, parentId, depth });
/** a > (a1 > a11, a2), b, c > c1 */
const rows = [
  row('a', null, 0),
  row('a1', 'a', 1),
  row('a11', 'a1', 2),
  row('a2', 'a', 1),
  row('b', null, 0),
  row('c', null, 0),
  row('c1', 'c', 1),
];
const put = (id: string, at: string, depth: number, mostDepth = 9) =>
  placeAt(rows, { id, at: rows.findIndex((one) => one.id === at), depth, mostDepth });

describe('a place in a tree', () => {
  it('is where the row is dropped, as deep as is wished and possible', () => {
    expect(put('b', 'a2', 1)).toEqual({ parentId: 'a', before: 'a2' });
    expect(put('b', 'a2', 2)).toEqual({ parentId: 'a1', before: null });
    expect(put('b', 'a', 3)).toEqual({ parentId: null, before: 'a' });
    expect(put('a2', 'c1', 0)).toEqual({ parentId: null, before: null });
    expect(put('a2', 'c1', 5)).toEqual({ parentId: 'c1', before: null });
  });

  it('is deeper or shallower where the row stays and is only drawn aside', () => {
    expect(put('b', 'b', 1)).toEqual({ parentId: 'a', before: null });
    expect(put('c1', 'c1', 0)).toEqual({ parentId: null, before: null });
  });

  it('never lets what is below go beyond the depth that there may be', () => {
    expect(put('c', 'a2', 1, 1)).toEqual({ parentId: null, before: 'b' });
    expect(put('b', 'a1', 2, 1)).toEqual({ parentId: 'a', before: 'a1' });
    expect(put('nobody', 'a', 0)).toBeNull();
  });

  it('moves a row with all that is below it', () => {
    expect(moveTo(rows, 'a1', { parentId: 'c', before: null }).map(({ id, depth }) => [id, depth])).toEqual([
      ['a', 0],
      ['a2', 1],
      ['b', 0],
      ['c', 0],
      ['c1', 1],
      ['a1', 1],
      ['a11', 2],
    ]);
  });

  it('keeps every row once and every parent before its children, wherever a row is put', () => {
    fc.assert(
      fc.property(
        fc.constantFrom(...rows.map(({ id }) => id)),
        fc.nat({ max: rows.length - 1 }),
        fc.nat({ max: 4 }),
        (id, at, depth) => {
          const place = placeAt(rows, { id, at, depth, mostDepth: 4 })!;
          const after = moveTo(rows, id, place);
          expect(after.map((one) => one.id).sort()).toEqual(rows.map((one) => one.id).sort());
          // Drawn as a tree and as rows again, it is the same list.
          const again = flat(treeOf(after)).map((one) => ({ id: one.row.id, depth: one.depth }));
          expect(after.map((one) => ({ id: one.id, depth: one.depth }))).toEqual(again);
        },
      ),
    );
  });
});

describe('who is shown an entry of the menu', () => {
  it('is all, those who are signed in or not, or those who can open what it leads to', () => {
    const seen = (isSignedIn: boolean, canOpen: boolean) =>
      (['everyone', 'signed-out', 'signed-in', 'can-open'] as const).filter((audience) =>
        isShownTo(audience, { isSignedIn, canOpen }),
      );
    expect(seen(false, false)).toEqual(['everyone', 'signed-out']);
    expect(seen(true, false)).toEqual(['everyone', 'signed-in']);
    expect(seen(true, true)).toEqual(['everyone', 'signed-in', 'can-open']);
  });

  it('leaves out what hangs below nothing', () => {
    expect(treeOf([row('x', 'gone', 1)])).toEqual([]);
  });
});
