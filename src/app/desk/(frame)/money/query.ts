import { isLocalDate, isLocalMonth, type LocalDate, type LocalMonth } from '@/core/instants';

/** A list’s query parameters as a use case takes them; unknown values fall back to defaults. */
export function readListSearch(search: Record<string, string | undefined>) {
  const mode = search.mode === 'test' ? ('test' as const) : undefined;
  return {
    state: search.state ?? '',
    search: (search.q ?? '').slice(0, 100),
    sort: search.sort ?? '',
    page: search.page ?? '1',
    mode,
    /** '' for every month. */
    month: isLocalMonth(search.month ?? '') ? (search.month as LocalMonth) : ('' as const),
    since: isLocalDate(search.since ?? '') ? (search.since as LocalDate) : ('' as const),
    /** Whose drawer is open. */
    open: search.open ?? '',
  };
}

/** The address of a list with some of it changed; what is empty is left out. */
export function listPath(path: string, parts: Record<string, string | number | undefined>): string {
  const query = new URLSearchParams();
  for (const [name, value] of Object.entries(parts))
    if (value !== undefined && value !== '' && !(name === 'page' && value === 1))
      query.set(name, String(value));
  const text = query.toString();
  return text ? `${path}?${text}` : path;
}
