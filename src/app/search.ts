import 'server-only';

/** The query parameters of a page, as Next passes them. */
export type Search = Promise<Record<string, string | string[] | undefined>>;

/** Each parameter once: of one that is repeated, the first counts. */
export async function searchOf(search: Search): Promise<Record<string, string | undefined>> {
  const all = await search;
  return Object.fromEntries(
    Object.entries(all).map(([name, value]) => [name, Array.isArray(value) ? value[0] : value]),
  );
}
