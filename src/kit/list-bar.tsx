import clsx from 'clsx';
import { Link } from '@/kit/link';
import { Button } from './button';
import { inputClass } from './input-class';
import { desk } from '@/words/desk';

type Props = {
  search: string;
  searchLabel: string;
  sort: string;
  sorts: { id: string; words: string }[];
  /** What else is in the address and stays there. */
  keep: Record<string, string | undefined>;
  exports: { href: string; words: string }[];
};

/** Search, order and export of a list; a plain form, so that what is shown can be sent to a colleague. */
export function ListBar({ search, searchLabel, sort, sorts, keep, exports }: Props) {
  return (
    <div className="mt-4 flex flex-wrap items-center gap-3">
      <form className="flex flex-wrap gap-3" role="search">
        {Object.entries(keep).map(
          ([name, value]) => value && <input key={name} type="hidden" name={name} value={value} />,
        )}
        <input
          name="q"
          defaultValue={search}
          data-filter
          aria-label={searchLabel}
          placeholder={searchLabel}
          className={clsx(inputClass, 'max-sm:w-full sm:!w-64')}
        />
        {sorts.length > 1 && (
          <select
            name="sort"
            defaultValue={sort}
            aria-label={desk('desk-kit.order')}
            className={clsx(inputClass, 'max-sm:w-full sm:!w-48')}
          >
            {sorts.map((one) => (
              <option key={one.id} value={one.id}>
                {one.words}
              </option>
            ))}
          </select>
        )}
        <Button type="submit" look="quiet">
          {desk('desk-kit.show')}
        </Button>
      </form>
      <p className="ml-auto flex gap-4">
        {exports.map(({ href, words }) => (
          <a key={href} href={href} download className="text-spruce underline">
            {words}
          </a>
        ))}
      </p>
    </div>
  );
}

/** Chips that narrow a list to a state, each with how many there are. */
export function StateChips({
  label,
  chips,
}: {
  label: string;
  chips: { href: string; isHere: boolean; mark: React.ReactNode; count?: number }[];
}) {
  return (
    <ul className="mt-5 flex flex-wrap gap-2" aria-label={label}>
      {chips.map((chip) => (
        <li key={chip.href}>
          <Link
            href={chip.href}
            aria-current={chip.isHere ? 'true' : undefined}
            className="flex items-center gap-2 rounded-full border border-line px-3 py-1 aria-[current]:border-ink aria-[current]:bg-surface"
          >
            {chip.mark}
            {chip.count !== undefined && <span className="figures text-muted">{chip.count}</span>}
          </Link>
        </li>
      ))}
    </ul>
  );
}

export function Pager({
  page,
  total,
  rows,
  at,
}: {
  page: number;
  total: number;
  rows: number;
  at: (page: number) => string;
}) {
  const pages = Math.ceil(total / rows);
  if (pages < 2) return null;
  return (
    <nav aria-label={desk('desk.pages')} className="figures mt-4 flex items-center gap-4">
      {page > 1 && (
        <Link className="text-spruce underline" href={at(page - 1)}>
          {desk('desk-kit.before')}
        </Link>
      )}
      <span className="text-muted">
        {desk('desk-kit.rows-shown', {
          from: (page - 1) * rows + 1,
          to: Math.min(total, page * rows),
          total,
        })}
      </span>
      {page < pages && (
        <Link className="text-spruce underline" href={at(page + 1)}>
          {desk('desk-kit.next')}
        </Link>
      )}
    </nav>
  );
}
