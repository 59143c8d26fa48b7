import { Link } from '@/kit/link';
import { desk } from '@/words/desk';

type Part = { id: string; name: string; count: string; href: string; isHere: boolean };
type Props = { facets: { name: string; label: string; parts: Part[] }[] };

/** How many there are of each part, each a link that narrows the list to it, or widens it again. */
export function MemberFacets({ facets }: Props) {
  return (
    <dl className="figures mt-4 hidden min-h-7 gap-x-6 gap-y-1.5 text-[0.9375rem] sm:grid sm:grid-cols-[auto_1fr]">
      {facets
        .filter(({ parts }) => parts.length > 0)
        .map(({ name, label, parts }) => (
          <div key={name} className="contents">
            <dt className="text-muted">{label}</dt>
            <dd>
              <ul className="flex flex-wrap gap-x-4 gap-y-1">
                {parts.map((part) => (
                  <li key={part.id}>
                    <Link
                      href={part.href}
                      aria-current={part.isHere ? 'true' : undefined}
                      title={desk(part.isHere ? 'desk-members.facet-widen' : 'desk-members.facet-narrow')}
                      className="underline-offset-4 hover:underline aria-[current]:font-semibold aria-[current]:underline"
                    >
                      {part.name} <span className="text-muted">{part.count}</span>
                    </Link>
                  </li>
                ))}
              </ul>
            </dd>
          </div>
        ))}
    </dl>
  );
}
