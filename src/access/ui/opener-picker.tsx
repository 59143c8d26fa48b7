'use client';

import { refKey, type Opener, type Who } from '@/core/access/rule';
import type { KeyCut } from '@/core/key-cut';
import { TierName } from '@/kit/key-cut';
import { inputClass } from '@/kit/input-class';
import { desk } from '@/words/desk';

type Props = {
  openTo: Opener[];
  tiers: { id: string; name: string; keyCut: KeyCut }[];
  onChange: (openTo: Opener[]) => void;
};

const same = (a: Who, b: Who): boolean => refKey(a) === refKey(b);

/** Chooses whom a rule lets in, and for each whether at once or some days after publishing. */
export function OpenerPicker({ openTo, tiers, onChange }: Props) {
  const lines: { who: Who; words: React.ReactNode; name: string }[] = [
    ...tiers.map((tier) => ({
      who: { kind: 'tier', id: tier.id } as const,
      words: <TierName cut={tier.keyCut} name={tier.name} />,
      name: tier.name,
    })),
    {
      who: { kind: 'paying' },
      words: desk('desk-access.everyone-who-pays'),
      name: desk('desk-access.everyone-who-pays-inline'),
    },
    {
      who: { kind: 'signed-in' },
      words: desk('desk-access.everyone-signed-in'),
      name: desk('desk-access.everyone-signed-in-inline'),
    },
    {
      who: { kind: 'everyone' },
      words: desk('desk-access.everyone'),
      name: desk('desk-access.everyone-inline'),
    },
  ];
  const set = (who: Who, opener: Opener | null): void => {
    const others = openTo.filter((line) => !same(line.who, who));
    onChange(opener ? [...others, opener] : others);
  };
  return (
    <ul className="divide-y divide-line">
      {lines.map(({ who, words, name }) => {
        const line = openTo.find((candidate) => same(candidate.who, who));
        const wait =
          line?.opens &&
          'since' in line.opens &&
          line.opens.since === 'published' &&
          line.opens.after.unit === 'day'
            ? line.opens.after.n
            : 0;
        const isSpecial = line && ((line.opens && wait === 0) || line.closes);
        return (
          <li
            key={refKey(who)}
            className="flex min-h-12 flex-wrap items-center justify-between gap-x-4 py-1.5"
          >
            <label className="flex items-center gap-2.5 font-semibold">
              <input
                type="checkbox"
                className="size-4.5"
                checked={Boolean(line)}
                onChange={(event) => set(who, event.target.checked ? { who } : null)}
              />
              {words}
            </label>
            {isSpecial ? (
              <span className="text-[0.9375rem] text-muted">
                {desk('desk-access.has-its-own-dates-which')}
              </span>
            ) : (
              line && (
                <label className="flex items-center gap-2 text-[0.9375rem] whitespace-nowrap text-muted">
                  <input
                    type="number"
                    min={0}
                    max={3650}
                    aria-label={desk('desk-access.days-after-publishing-for', { name })}
                    className={`${inputClass} !w-16 py-1`}
                    value={wait}
                    onChange={(event) => {
                      const n = Math.max(0, Math.floor(Number(event.target.value) || 0));
                      set(
                        who,
                        n === 0 ? { who } : { who, opens: { since: 'published', after: { n, unit: 'day' } } },
                      );
                    }}
                  />
                  {desk('desk-access.days-after-publishing')}
                </label>
              )
            )}
          </li>
        );
      })}
    </ul>
  );
}
