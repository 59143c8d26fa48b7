export const TINTS = ['teal', 'brass', 'slate', 'heather', 'rust', 'fern', 'rose', 'ink'] as const;
export type Tint = (typeof TINTS)[number];

/** A tier's key glyph: the depths of the notches along its bit (1 shallow to 3 deep), and a tint by name. */
export type KeyCut = { notches: number[]; tint: Tint };

export const MAX_NOTCHES = 7;

/** Of what is no tier: a key that is not cut. */
export const BLANK_KEY: KeyCut = { notches: [1], tint: 'ink' };

const DEPTHS = [1, 2, 3];

/** All cuts of a number of notches, in a fixed order, evenly mixed so that neighbours look unlike. */
function* cuts(count: number): Generator<number[]> {
  const total = DEPTHS.length ** count;
  for (let index = 0; index < total; index++) {
    // A stride that shares no factor with the total visits every cut once.
    let rest = (index * 7 + 1) % total;
    yield Array.from({ length: count }, () => {
      const depth = DEPTHS[rest % DEPTHS.length] ?? 1;
      rest = Math.floor(rest / DEPTHS.length);
      return depth;
    });
  }
}

/** A key of few teeth is told from one of many at a glance: neighbours differ in number before they differ in depth. */
const COUNTS = [2, 3, 4, 1];

/** A cut that no existing tier has, and the tint least used so far. */
export function chooseKeyCut(existing: KeyCut[]): KeyCut {
  const taken = new Set(existing.map((cut) => cut.notches.join()));
  const uses = (tint: Tint): number => existing.filter((cut) => cut.tint === tint).length;
  const tint = TINTS.reduce((best, next) => (uses(next) < uses(best) ? next : best));
  const usual = COUNTS[existing.length % COUNTS.length] ?? 2;
  for (const count of [usual, ...COUNTS, 5, 6, 7]) {
    for (const notches of cuts(count)) {
      if (!taken.has(notches.join())) return { notches, tint };
    }
  }
  throw new Error('there are more tiers than keys can be cut');
}
