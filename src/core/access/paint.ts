import { layersOf, type SiteDefault } from './decide';
import type { ItemFacts } from './facts';
import { compareSpecificity } from './layers';
import { lineOutOfSeries } from './series';
import { refKey, type Cover, type Opener, type Rule, type Who } from './rule';

/** What a cell of the map is painted: open or closed to those of its column, or as what is less specific has it. */
export type Brush = 'open' | 'closed' | 'inherit';
/** `facts`: of the item that is painted, or of one of which nothing is said but that it is in the category or of the kind. */
export type Paint = { target: Cover; facts: ItemFacts; who: Who; to: Brush };
export type KnownTier = { id: string; paid: boolean };

/** How one rule changes: null where it is not there before, or not afterwards. */
export type RuleChange<R extends Rule> = { id: string; before: R | null; after: R | Rule | null };

const isGeneric = ({ who }: Opener): boolean => who.kind === 'everyone' || who.kind === 'signed-in';
const isSame = (one: Who | Cover, other: Who | Cover): boolean => refKey(one) === refKey(other);

/**
 * Lines that open to those who are named, or that no longer do. Who has more stays let in: closing to visitors leaves
 * everyone who is signed in, closing to those leaves the tiers, closing to a tier leaves the others.
 */
export function paintLines(lines: Opener[], who: Who, to: 'open' | 'closed', tiers: KnownTier[]): Opener[] {
  if (to === 'open') return [...lines.filter((line) => !isSame(line.who, who)), { who }];
  const forTiers = (line: Opener, of: KnownTier[]): Opener[] =>
    of.map(({ id }) => ({ ...line, who: { kind: 'tier', id } }));
  const others = tiers.filter(({ id }) => who.kind !== 'tier' || id !== who.id);
  const isPaid = tiers.some(({ id, paid }) => who.kind === 'tier' && id === who.id && paid);
  return withoutDoubles(
    lines.flatMap((line): Opener[] => {
      if (who.kind === 'everyone')
        return line.who.kind === 'everyone' ? [{ ...line, who: { kind: 'signed-in' } }] : [line];
      if (who.kind === 'signed-in') return isGeneric(line) ? forTiers(line, tiers) : [line];
      if (isSame(line.who, who)) return [];
      if (who.kind !== 'tier') return [line];
      if (isGeneric(line)) return forTiers(line, others);
      if (line.who.kind === 'paying' && isPaid)
        return forTiers(
          line,
          others.filter(({ paid }) => paid),
        );
      return [line];
    }),
  );
}

/** Without what another line says already: the same, or the same people with no wait and no end. */
function withoutDoubles(lines: Opener[]): Opener[] {
  const known = new Set<string>();
  const always = new Set(
    lines.filter(({ opens, closes }) => !opens && !closes).map(({ who }) => refKey(who)),
  );
  return lines.filter((line) => {
    if ((line.opens ?? line.closes) && always.has(refKey(line.who))) return false;
    const key = JSON.stringify([refKey(line.who), line.opens ?? null, line.closes ?? null]);
    return !known.has(key) && known.add(key);
  });
}

type Context = {
  default: SiteDefault;
  tiers: KnownTier[];
  newId: (target: Cover, taken: Set<string>) => string;
};

/**
 * The rules as they are after some cells of the map were painted, and how each of them changes. What is painted gets a rule
 * for itself alone, which begins as what decided about it before; a rule that covers other things too is left with those.
 */
export function paintRules<R extends Rule>(
  rules: R[],
  paints: Paint[],
  { default: siteDefault, tiers, newId }: Context,
): { after: (R | Rule)[]; changes: RuleChange<R>[] } {
  let after: (R | Rule)[] = rules;
  const targets = new Map(paints.map((paint) => [refKey(paint.target), paint]));
  for (const [key, { target, facts }] of targets) {
    const here = paints.filter((paint) => refKey(paint.target) === key);
    const isInherited = here.some(({ to }) => to === 'inherit');
    const covering = after.filter((rule) => isOn(rule) && rule.covers.some((cover) => isSame(cover, target)));
    const own = covering.find((rule) => rule.covers.length === 1);
    const base = linesFor(after, facts, siteDefault);
    const painted = isInherited
      ? null
      : here.reduce(
          (lines, { who, to }) => (to === 'inherit' ? lines : paintLines(lines, who, to, tiers)),
          base.lines,
        );
    after = after.flatMap((rule): (R | Rule)[] => {
      if (!covering.includes(rule)) return [rule];
      if (rule === own) return painted ? [{ ...rule, openTo: painted }] : [];
      const covers = rule.covers.filter((cover) => !isSame(cover, target));
      return covers.length > 0 ? [{ ...rule, covers }] : [];
    });
    if (painted && !own) {
      const id = newId(target, new Set(after.map((rule) => rule.id)));
      const { meter, doorstep, listed } = base.from ?? {};
      after = [
        ...after,
        {
          id,
          on: true,
          covers: [target],
          openTo: painted,
          ...(meter !== undefined && { meter }),
          ...(doorstep !== undefined && { doorstep }),
          ...(listed !== undefined && { listed }),
        },
      ];
    }
  }
  return { after, changes: changesBetween(rules, after) };
}

const isOn = (rule: Rule): boolean => rule.on !== false && !rule.alsoRequire;

/** The lines that decide about an item, and the rule from which what a rule has besides them is taken. */
function linesFor(
  rules: Rule[],
  facts: ItemFacts,
  siteDefault: SiteDefault,
): { lines: Opener[]; from: Rule | undefined } {
  const layered = layersOf(rules, facts);
  const [top] = layered;
  if (!top) return { lines: [{ who: { kind: siteDefault } }], from: undefined };
  const deciding = layered.filter(({ layer }) => compareSpecificity(layer, top.layer) === 0);
  const lines = deciding.flatMap(({ rule }) => rule.openTo.map((line) => lineOutOfSeries(line, rule, facts)));
  return { lines: withoutDoubles(lines), from: top.rule };
}

function changesBetween<R extends Rule>(before: R[], after: (R | Rule)[]): RuleChange<R>[] {
  const is = new Map(after.map((rule) => [rule.id, rule]));
  const was = new Map(before.map((rule) => [rule.id, rule]));
  const ids = [...new Set([...was.keys(), ...is.keys()])];
  return ids
    .map((id) => ({ id, before: was.get(id) ?? null, after: is.get(id) ?? null }))
    .filter(({ before: old, after: now }) => JSON.stringify(old) !== JSON.stringify(now));
}
