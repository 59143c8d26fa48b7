import { Link } from '@/kit/link';
import { opensWords } from '@/tiers/ui/join-card';
import type { Words } from '@/words/speak';
import { Sentence } from '@/kit/sentence';
import { desk } from '@/words/desk';

type Props = {
  t: Words;
  tierId: string;
  opens:
    | {
        counts: { group: string; name: string; count: number; later: number }[];
        latest: { title: string; path: string }[];
        total: number;
      }
    | undefined;
};

/** What a tier opens, computed from the rules; one that opens nothing is marked. */
export function OpensList({ t, tierId, opens }: Props) {
  return (
    <section>
      <h2 className="text-xl">{desk('desk-access.what-it-opens')}</h2>
      {!opens || opens.total === 0 ? (
        <p className="mt-1">
          <Sentence
            words={desk('desk-access.opens-nothing')}
            parts={{
              b: (words) => <span className="font-semibold text-closed">{words}</span>,
              link: (words) => (
                <Link href={`/desk/access/new?tier=${tierId}`} className="text-spruce underline">
                  {words}
                </Link>
              ),
            }}
          />
        </p>
      ) : (
        <>
          <ul className="figures mt-2 divide-y divide-line">
            {opens.counts.map(({ group, name, count, later }) => (
              <li key={group} className="flex justify-between gap-4 py-1.5">
                <span>{name}</span>
                <span className="text-muted">{opensWords({ count, later }, t)}</span>
              </li>
            ))}
          </ul>
          {opens.latest.length > 0 && (
            <p className="mt-2 text-muted">
              {desk('desk-access.latest')}{' '}
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
          <p className="mt-2">
            <Link href={`/desk/access/new?tier=${tierId}`} className="text-spruce underline">
              {desk('desk-access.open-more-to-it')}
            </Link>
          </p>
        </>
      )}
    </section>
  );
}
