import { Link } from '@/kit/link';
import type { ChecksRan } from '@/core/reports/today';
import { Sentence } from '@/kit/sentence';
import type { Words } from '@/words/speak';
import { desk } from '@/words/desk';

/** What was proved of itself, and when. */
export function ChecksNote({
  checks: { leaks, books },
  seesMoney,
  t,
}: {
  checks: ChecksRan;
  seesMoney: boolean;
  t: Words;
}) {
  const link = (href: string) =>
    function To(words: string) {
      return (
        <Link href={href} className="text-spruce underline">
          {words}
        </Link>
      );
    };
  const equal = books.filter(({ isEqual }) => isEqual).length;
  const last = books
    .map(({ at }) => at)
    .reduce<(typeof books)[number]['at'] | null>((a, b) => (a && a > b ? a : b), null);
  return (
    <section aria-labelledby="checks">
      <h2 id="checks" className="text-xl">
        {desk('desk-frame.proved')}
      </h2>
      <ul className="mt-2 grid gap-1.5 text-[0.9375rem] text-muted">
        <li>
          <Sentence
            words={
              leaks
                ? desk('desk-frame.leaks-checked', {
                    count: leaks.addresses,
                    viewpoints: leaks.viewpoints,
                    found: leaks.found,
                    date: t.dateTime(leaks.at),
                  })
                : desk('desk-frame.leaks-not-checked')
            }
            parts={{ link: link('/desk/access/check') }}
          />
        </li>
        {seesMoney && (
          <li>
            <Sentence
              words={
                last
                  ? desk('desk-frame.books-compared', { equal, all: books.length, date: t.dateTime(last) })
                  : desk('desk-frame.books-not-compared')
              }
              parts={{ link: link('/desk/money/gateways') }}
            />
          </li>
        )}
      </ul>
    </section>
  );
}
