import Link from 'next/link';

type Props = {
  opens:
    | {
        counts: { group: string; name: string; count: number; later: number }[];
        latest: { title: string; path: string }[];
        total: number;
      }
    | undefined;
};

/** What a tier opens, computed from the rules; where it opens nothing, that is said loudly. */
export function OpensList({ opens }: Props) {
  return (
    <section>
      <h2 className="text-xl">What it opens</h2>
      {!opens || opens.total === 0 ? (
        <p className="mt-1">
          <span className="font-semibold text-closed">Nothing yet:</span> no rule names this tier.{' '}
          <Link href="/desk/access/new" className="text-spruce underline">
            Make a rule
          </Link>
        </p>
      ) : (
        <>
          <ul className="figures mt-2 divide-y divide-line">
            {opens.counts.map(({ group, name, count, later }) => (
              <li key={group} className="flex justify-between gap-4 py-1.5">
                <span>{name}</span>
                <span className="text-muted">
                  {[count > 0 && `${count} now`, later > 0 && `${later} after a wait`]
                    .filter(Boolean)
                    .join(', ')}
                </span>
              </li>
            ))}
          </ul>
          {opens.latest.length > 0 && (
            <p className="mt-2 text-muted">
              Latest:{' '}
              {opens.latest.map(({ title, path }, index) => (
                <span key={path}>
                  {index > 0 && ', '}
                  <a href={path} className="underline">
                    {title}
                  </a>
                </span>
              ))}
            </p>
          )}
        </>
      )}
    </section>
  );
}
