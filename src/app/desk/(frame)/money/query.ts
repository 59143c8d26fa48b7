/** What stands in the address of a list. */
export type ListSearch = {
  state?: string;
  q?: string;
  sort?: string;
  page?: string;
  open?: string;
  /** "2026-11". */
  month?: string;
  /** 'test': what was made before the site went live. */
  mode?: string;
};

/** Reads it: what is unknown falls back to the first of what is known. */
export function readListSearch<State extends string, Sort extends string>(
  search: ListSearch,
  states: readonly State[],
  sorts: readonly [Sort, ...Sort[]],
  rows: number,
) {
  const page = Math.max(1, Number.parseInt(search.page ?? '1', 10) || 1);
  return {
    state: states.find((known) => known === search.state) ?? ('' as const),
    search: (search.q ?? '').slice(0, 100),
    sort: sorts.find((known) => known === search.sort) ?? sorts[0],
    page,
    offset: (page - 1) * rows,
    limit: rows,
    open: search.open ?? '',
    mode: search.mode === 'test' ? ('test' as const) : ('' as const),
    month: /^\d{4}-\d{2}$/.test(search.month ?? '') ? (search.month ?? '') : '',
  };
}

/** The address of a list with some of it changed; what is empty is left out. */
export function listPath(path: string, parts: Record<string, string | number>): string {
  const query = new URLSearchParams();
  for (const [name, value] of Object.entries(parts))
    if (value !== '' && !(name === 'page' && value === 1)) query.set(name, String(value));
  const text = query.toString();
  return text ? `${path}?${text}` : path;
}

/** "2026-11" as "November 2026". */
export function monthName(month: string): string {
  const [year, number] = month.split('-').map(Number);
  const format = new Intl.DateTimeFormat('en-GB', { month: 'long', year: 'numeric', timeZone: 'UTC' });
  return format.format(Date.UTC(year ?? 0, (number ?? 1) - 1));
}
