import clsx from 'clsx';
import { Link } from '@/kit/link';

type Entry = {
  id: string;
  when: string;
  isFuture: boolean;
  words: string;
  note?: string;
  amount?: string;
  tone: 'plain' | 'good' | 'bad' | 'mail';
  /** Where more is known of it. */
  href?: string;
};

const DOTS = {
  plain: 'border-edge bg-surface',
  good: 'border-open bg-open',
  bad: 'border-closed bg-closed rotate-45 rounded-none',
  mail: 'border-line bg-line',
};

/** Past and future of a member on one line: the future is hollow and on top. */
export function MemberTimeline({ entries }: { entries: Entry[] }) {
  return (
    <ol className="mt-3 border-l-2 border-line">
      {entries.map((entry) => (
        <li
          key={entry.id}
          className={clsx(
            'figures relative flex flex-wrap items-baseline gap-x-4 py-1.5 pl-6',
            entry.tone === 'mail' && 'text-muted',
          )}
        >
          <span
            aria-hidden
            className={clsx(
              'absolute top-3 -left-[0.4375rem] size-3 rounded-full border-2',
              entry.isFuture ? 'border-brass bg-paper' : DOTS[entry.tone],
            )}
          />
          <span className="w-full flex-none sm:w-44 text-[0.9375rem] text-muted">{entry.when}</span>
          <span
            className={clsx(
              'min-w-0 flex-1',
              entry.tone === 'bad' && 'text-closed',
              entry.isFuture && 'text-brass',
            )}
          >
            {entry.href ? (
              <Link href={entry.href} className="hover:underline">
                {entry.words}
              </Link>
            ) : (
              entry.words
            )}
            {entry.note && <span className="block text-[0.9375rem] text-muted">{entry.note}</span>}
          </span>
          {entry.amount && <span className="font-semibold">{entry.amount}</span>}
        </li>
      ))}
    </ol>
  );
}
