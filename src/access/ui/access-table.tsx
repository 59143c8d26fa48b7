import Link from 'next/link';
import type { Decision } from '@/core/access/decide';
import type { KeyCut } from '@/core/key-cut';
import type { Words } from '@/words/speak';
import { KeyGlyph } from '@/kit/key-cut';
import { StateMark } from '@/kit/state-mark';
import { desk } from '@/words/desk';

type Row = { id: string; title: string; depth: number; decisions: Decision[] };
type Props = {
  viewpoints: { id: string; name: string; keyCut: KeyCut | null }[];
  groups: { name: string; rows: Row[] }[];
  t: Words;
  /** Where a decision is explained. */
  whyHref: (item: string, viewpoint: string) => string;
  /** The decision that is being explained. */
  open: { item: string; as: string } | null;
};

function words(decision: Decision, t: Words): string {
  switch (decision.state) {
    case 'open':
      return desk('desk-access.open');
    case 'metered':
      return desk('desk-access.views-left', { left: decision.left ?? 0 });
    case 'later':
      return decision.opensAt
        ? desk('desk-access.from', { date: t.dayMonth(decision.opensAt) })
        : desk('desk-access.later');
    case 'ended':
      return desk('desk-access.ended');
    case 'closed':
      return desk('desk-access.closed');
  }
}

/** Items down, viewpoints across. What a rule decided is strong; what only follows the site's default is faint. */
export function AccessTable({ viewpoints, groups, t, whyHref, open }: Props) {
  return (
    <div className="relative overflow-x-auto pr-1 pb-2">
      <table className="held-column w-full min-w-[46rem] border-separate border-spacing-x-1 border-spacing-y-1">
        <thead>
          <tr>
            <th className="w-72 min-w-56 text-left align-bottom font-normal text-muted">
              {desk('desk-access.item')}
            </th>
            {viewpoints.map((viewpoint) => (
              <th
                key={viewpoint.id}
                scope="col"
                className="min-w-24 px-1 text-left align-bottom text-[0.9375rem] font-semibold"
              >
                {viewpoint.keyCut && <KeyGlyph cut={viewpoint.keyCut} size={15} className="mb-1" />}
                {viewpoint.name}
              </th>
            ))}
          </tr>
        </thead>
        {groups.map((group) => (
          <tbody key={group.name}>
            <tr>
              <th
                scope="rowgroup"
                colSpan={viewpoints.length + 1}
                className="pt-3 pb-0.5 text-left font-display text-[0.9375rem] font-semibold"
              >
                {group.name}
              </th>
            </tr>
            {group.rows.map((row) => (
              <tr key={row.id}>
                <th
                  scope="row"
                  className="max-w-72 pr-3 text-left font-normal"
                  style={{ paddingLeft: `${row.depth}rem` }}
                >
                  <Link href={`/desk/content/items/${row.id}`} className="line-clamp-1 hover:underline">
                    {row.title}
                  </Link>
                </th>
                {row.decisions.map((decision, index) => {
                  const viewpoint = viewpoints[index] ?? { id: '', name: '' };
                  const isOpen = open?.item === row.id && open.as === viewpoint.id;
                  const said = words(decision, t);
                  return (
                    <td key={viewpoint.id} className="p-0">
                      <Link
                        href={whyHref(row.id, viewpoint.id)}
                        scroll={false}
                        prefetch={false}
                        aria-label={`${said}. ${desk('desk-access.why')} ${row.title}, ${viewpoint.name}`}
                        aria-current={isOpen ? 'true' : undefined}
                        className="block rounded-md outline-offset-1 hover:ring-2 hover:ring-edge aria-[current]:ring-2 aria-[current]:ring-brass"
                      >
                        <StateMark
                          state={decision.state}
                          words={said}
                          faint={decision.by === 'default' && decision.state === 'open'}
                        />
                      </Link>
                    </td>
                  );
                })}
              </tr>
            ))}
          </tbody>
        ))}
      </table>
    </div>
  );
}
