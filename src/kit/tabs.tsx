import clsx from 'clsx';
import { Link } from '@/kit/link';

type Props = { label: string; here: string; tabs: { id: string; name: string; path: string }[] };

/** Views of one place; each has an address of its own. */
export function Tabs({ label, here, tabs }: Props) {
  return (
    <nav aria-label={label}>
      <ul className="flex flex-wrap gap-1 rounded-lg bg-sunken p-1">
        {tabs.map((tab) => (
          <li key={tab.id}>
            <Link
              href={tab.path}
              aria-current={tab.id === here ? 'page' : undefined}
              className={clsx(
                'block rounded-md px-3.5 py-1.5 font-semibold',
                tab.id === here ? 'bg-surface shadow-sm' : 'text-muted hover:text-ink',
              )}
            >
              {tab.name}
            </Link>
          </li>
        ))}
      </ul>
    </nav>
  );
}
