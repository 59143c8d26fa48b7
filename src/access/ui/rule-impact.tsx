'use client';

import { useEffect, useState } from 'react';
import type { Meeting } from '@/core/access/impact';
import { desk } from '@/words/desk';

type Some = { count: number; some: string[] };
/** What a rule would change if it were saved now: the published items that it covers, and what each viewpoint loses or gains. */
export type RuleImpact = {
  covers: Some;
  /** How many members gain something, and how many lose something. */
  members: { gain: number; lose: number };
  changes: { viewpoint: string; opens: Some; closes: Some }[];
  meets: (Meeting & { name: string })[];
};
export type PreviewRule = (draft: unknown) => Promise<RuleImpact | null>;
type Props = { draft: unknown; preview: PreviewRule };

const PAUSE = 400;

/** What a rule would change if it were saved now; follows what is chosen. */
export function RuleImpactNote({ draft, preview }: Props) {
  const asked = JSON.stringify(draft);
  const [found, setFound] = useState<{ asked: string; impact: RuleImpact | null }>();
  useEffect(() => {
    let isWanted = true;
    const wait = setTimeout(() => {
      void preview(JSON.parse(asked)).then((impact) => isWanted && setFound({ asked, impact }));
    }, PAUSE);
    return () => {
      isWanted = false;
      clearTimeout(wait);
    };
  }, [asked, preview]);
  const isKnown = found?.asked === asked;
  return (
    <section
      aria-label={desk('desk-access.what-it-changes')}
      aria-busy={!isKnown}
      className="rounded-card border border-dashed border-edge/60 p-5"
    >
      <h2 className="text-lg">{desk('desk-access.what-it-changes')}</h2>
      <div role="status" className="mt-2">
        {found ? (
          <Impact impact={found.impact} />
        ) : (
          <p className="text-muted">{desk('desk-access.working-out')}</p>
        )}
      </div>
    </section>
  );
}

const listed = ({ count, some }: Some): string =>
  some.map((title) => `“${title}”`).join(', ') + (count > some.length ? ' …' : '');

function Impact({ impact }: { impact: RuleImpact | null }) {
  if (!impact) return <p className="text-muted">{desk('desk-access.choose-first')}</p>;
  const { covers, members, changes, meets } = impact;
  return (
    <div className="grid gap-3">
      <p>{desk('desk-access.covers-items', { count: covers.count, some: listed(covers) })}</p>
      {changes.length === 0 ? (
        <p className="text-muted">{desk('desk-access.changes-nothing')}</p>
      ) : (
        <ul className="grid gap-1">
          {changes.map(({ viewpoint, opens, closes }) => (
            <li key={viewpoint} className="grid gap-x-4 sm:grid-cols-[11rem_1fr]">
              <b>{viewpoint}</b>
              <span>
                {closes.count > 0 && (
                  <span className="text-closed">
                    {desk('desk-access.closes-items', { count: closes.count, some: listed(closes) })}{' '}
                  </span>
                )}
                {opens.count > 0 && (
                  <span className="text-open">
                    {desk('desk-access.opens-items', { count: opens.count, some: listed(opens) })}
                  </span>
                )}
              </span>
            </li>
          ))}
        </ul>
      )}
      {members.gain + members.lose > 0 && (
        <p>
          {members.lose > 0 && (
            <span className="text-closed">
              {desk('desk-access.draft-would-lose', { count: members.lose })}.{' '}
            </span>
          )}
          {members.gain > 0 && (
            <span className="text-open">
              {desk('desk-access.draft-would-gain', { count: members.gain })}.
            </span>
          )}
        </p>
      )}
      {meets.length > 0 && (
        <ul className="grid gap-1 border-t border-line pt-3">
          {meets.map(({ rule, name, together, decides, gives }) => (
            <li key={rule}>
              {[
                together > 0 && desk('desk-access.meets-together', { name, count: together }),
                decides > 0 && desk('desk-access.meets-decides', { name, count: decides }),
                gives > 0 && desk('desk-access.meets-gives', { name, count: gives }),
              ]
                .filter(Boolean)
                .join(' ')}
            </li>
          ))}
        </ul>
      )}
    </div>
  );
}
