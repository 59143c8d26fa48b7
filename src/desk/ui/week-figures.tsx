import clsx from 'clsx';
import { Link } from '@/kit/link';

export type WeekFigure = {
  name: string;
  value: string;
  href: string;
  /** Beside the week before, in words; '' where it was the same. */
  change: string;
  isGood: boolean;
};

/** The week beside the week before; each figure leads to the list that it counts. */
export function WeekFigures({ label, figures }: { label: string; figures: WeekFigure[] }) {
  return (
    <section aria-label={label} className="border-t-2 border-ink">
      <dl className="grid grid-cols-1 sm:grid-cols-3 sm:divide-x sm:divide-line">
        {figures.map(({ name, value, href, change, isGood }) => (
          <div key={name} className="flex flex-col-reverse justify-end py-3 sm:px-4 sm:first:pl-0">
            <dt className="text-muted">
              {name}{' '}
              {change && (
                <span className={clsx('figures font-semibold', isGood ? 'text-open' : 'text-closed')}>
                  {change}
                </span>
              )}
            </dt>
            <dd className="figures font-display text-3xl font-bold">
              <Link href={href} className="hover:underline">
                {value}
              </Link>
            </dd>
          </div>
        ))}
      </dl>
    </section>
  );
}
