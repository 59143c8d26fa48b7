type Detail = Record<string, unknown>;
type Money = (amount: number, currency: string) => string;

const isDetail = (value: unknown): value is Detail =>
  typeof value === 'object' && value !== null && !Array.isArray(value);
const isNothing = (value: unknown): boolean =>
  value === null || value === undefined || value === '' || (Array.isArray(value) && value.length === 0);

/** "onSale" as "on sale", "tierId" as "tier". */
const named = (key: string): string =>
  key.replace(/Id$/, '').replaceAll(/[A-Z]/g, (letter) => ` ${letter.toLowerCase()}`);
/** Long ids by their first letters. */
export const shortIds = (words: string): string =>
  words.replaceAll(/\b([0-9a-f]{8})-[0-9a-f]{4}-[0-9a-f-]{22}\b/g, '$1');

/** The parts of what was noted, each with its name; an amount with its currency is money. Minor units. */
function partsOf(detail: Detail, money: Money): [string, string][] {
  const { currency } = detail;
  return Object.entries(detail).flatMap(([key, value]): [string, string][] => {
    if (isNothing(value) || key === 'version') return [];
    if (typeof currency === 'string') {
      if (key === 'currency') return [];
      if (key === 'amount' && typeof value === 'number') return [[named(key), money(value, currency)]];
    }
    return [[named(key), wordsOf(value, money)]];
  });
}

function wordsOf(value: unknown, money: Money): string {
  if (typeof value === 'boolean') return value ? 'yes' : 'no';
  if (typeof value === 'string') return shortIds(value);
  if (Array.isArray(value)) return value.map((one) => wordsOf(one, money)).join(', ');
  if (!isDetail(value)) return String(value);
  const { n, unit } = value;
  if (typeof n === 'number' && typeof unit === 'string') return `${n} ${unit}${n === 1 ? '' : 's'}`;
  const parts = partsOf(value, money).map(([name, words]) => `${name} ${words}`);
  return parts.length > 1 ? `(${parts.join(', ')})` : (parts[0] ?? 'nothing');
}

/** What was noted beside a change, for people: of what has a before and an after, only what differs. */
export function auditFacts(detail: Detail, money: Money): string[] {
  const { before, after, ...more } = detail;
  const rest = partsOf(more, money).map(([name, words]) => `${name}: ${words}`);
  if (!isDetail(after)) return [...rest, ...(isDetail(before) ? factsOf(before, money) : [])];
  if (!isDetail(before)) return [...rest, ...factsOf(after, money)];
  const [was, is] = [new Map(partsOf(before, money)), new Map(partsOf(after, money))];
  const changed = [...new Set([...was.keys(), ...is.keys()])].filter(
    (name) => was.get(name) !== is.get(name),
  );
  return [
    ...rest,
    ...changed.map((name) => `${name}: ${was.get(name) ?? 'nothing'} → ${is.get(name) ?? 'nothing'}`),
  ];
}

/** Its own id is what it was noted about. */
const factsOf = ({ id: _, ...detail }: Detail, money: Money): string[] =>
  partsOf(detail, money).map(([name, words]) => `${name}: ${words}`);
