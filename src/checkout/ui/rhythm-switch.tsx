import clsx from 'clsx';
import { Link } from '@/kit/link';

type Props = { label: string; chosen: string | null; choices: { key: string; name: string; href: string }[] };

/** Between what is paid by the month and by the year: plain links, so that it works before any script. */
export function RhythmSwitch({ label, chosen, choices }: Props) {
  return (
    <nav aria-label={label}>
      <ul className="flex rounded-full border border-edge/50 bg-surface p-1">
        {choices.map(({ key, name, href }) => (
          <li key={key}>
            <Link
              href={href}
              scroll={false}
              aria-current={key === chosen ? 'true' : undefined}
              className={clsx(
                'block rounded-full px-5 py-2 font-semibold',
                key === chosen ? 'bg-spruce text-on-spruce' : 'text-muted hover:text-ink',
              )}
            >
              {name}
            </Link>
          </li>
        ))}
      </ul>
    </nav>
  );
}
