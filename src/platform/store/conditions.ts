/** A condition of a list and the value of each `?` in it, in order; false where its filter is not set. */
export type Condition = readonly [sql: string, ...values: unknown[]] | false | '' | null | undefined;

/**
 * What a list is narrowed by, as SQL. Only conditions that are set are written, so that each narrowing has the plan that
 * suits it. `add` gives the placeholder of one more value, for what comes after the conditions.
 */
export function where(conditions: Condition[]): {
  sql: string;
  values: unknown[];
  add: (value: unknown) => string;
} {
  const values: unknown[] = [];
  const add = (value: unknown): string => `$${values.push(value)}`;
  const parts = conditions.flatMap((condition) => {
    if (!condition) return [];
    const [sql, ...given] = condition;
    return [`(${sql.replace(/\?/g, () => add(given.shift()))})`];
  });
  return { sql: parts.length > 0 ? `WHERE ${parts.join(' AND ')}` : '', values, add };
}

/** Our own constants as an SQL list; never pass it anything a person typed. */
export const listed = (names: Iterable<string>): string =>
  `(${[...names].map((name) => `'${name}'`).join(', ')})`;

/** A pattern for LIKE on lower-case text: the words anywhere in it, nothing in them read as a wildcard. */
export const containing = (words: string): string => `%${words.toLowerCase().replace(/[\\%_]/g, '\\$&')}%`;
