import clsx from 'clsx';
import type { LanePart } from '@/core/reports/lanes';
import { desk } from '@/words/desk';

type Props = {
  months: { name: string; left: number }[];
  /** Where today is. */
  now: number;
  holds: { id: string; name: string; parts: LanePart[] }[];
  /** `words`: what it is and when, for those who cannot see the dot. */
  money: { id: string; left: number; is: 'paid' | 'declined' | 'ahead'; words: string }[];
  /** Null where reads are not counted. */
  reads: { id: string; left: number; words: string }[] | null;
};

/** In per cent of the width: a month that begins further right has no room for its name. */
const LAST_NAMED = 86;
/** In per cent: what is narrower bears no name where its other part does. */
const NARROW = 12;

const DOTS = {
  paid: 'rounded-full border-open bg-open',
  declined: 'rotate-45 border-closed bg-closed',
  ahead: 'rounded-full border-open bg-paper',
};

/** What a member holds and pays over time, as things are: the past is filled, what is ahead is hollow. */
export function MemberLanes({ months, now, holds, money, reads }: Props) {
  return (
    <section
      aria-label={desk('desk-members.lanes')}
      className="grid gap-x-4 sm:grid-cols-[4rem_minmax(0,1fr)]"
    >
      <span className="max-sm:hidden" />
      <div className="relative h-6 border-b border-line text-[0.875rem] text-muted" aria-hidden>
        {months.map(({ name, left }, index) => (
          <span
            key={left}
            className={clsx(
              'absolute border-l border-line pl-1 whitespace-nowrap',
              index % 2 === 1 && 'max-sm:hidden',
              left > LAST_NAMED && 'hidden',
            )}
            style={{ left: `${left}%` }}
          >
            {name}
          </span>
        ))}
      </div>
      <h3 className="py-2 font-semibold">{desk('desk-members.lane-holds')}</h3>
      <Lane now={now}>
        <ul className="grid gap-1.5">
          {holds.length === 0 && <li className="text-muted">{desk('desk-members.nothing-inline')}</li>}
          {holds.map(({ id, name, parts }) => (
            <li key={id} className="relative h-7">
              <span className="sr-only">{name}</span>
              {parts.map(({ left, width, isAhead }, index) => (
                <span
                  key={left}
                  aria-hidden
                  title={name}
                  className={clsx(
                    'absolute inset-y-0 rounded-md text-[0.9375rem] leading-7',
                    width < NARROW ? 'whitespace-nowrap' : 'truncate px-2',
                    isAhead ? 'border border-dashed border-brass text-muted' : 'bg-metered-wash text-metered',
                  )}
                  style={{ left: `${left}%`, width: `${width}%` }}
                >
                  {(width >= NARROW || (index === 0 && parts.every((part) => part.width < NARROW))) && name}
                </span>
              ))}
            </li>
          ))}
        </ul>
      </Lane>
      <h3 className="py-2 font-semibold">{desk('desk-members.lane-money')}</h3>
      <Lane now={now}>
        <ul className="relative h-7">
          {money.length === 0 && <li className="text-muted">{desk('desk-members.lane-no-money')}</li>}
          {money.map(({ id, left, is, words }) => (
            <li
              key={id}
              className="absolute top-2 -translate-x-1/2"
              style={{ left: `${left}%` }}
              title={words}
            >
              <span aria-hidden className={clsx('block size-3 border-2', DOTS[is])} />
              <span className="sr-only">{words}</span>
            </li>
          ))}
        </ul>
      </Lane>
      {reads && (
        <>
          <h3 className="py-2 font-semibold">{desk('desk-members.lane-reads')}</h3>
          <Lane now={now}>
            <ul className="relative h-7">
              {reads.length === 0 && <li className="text-muted">{desk('desk-members.lane-no-reads')}</li>}
              {reads.map(({ id, left, words }) => (
                <li
                  key={id}
                  className="absolute top-1 -translate-x-1/2"
                  style={{ left: `${left}%` }}
                  title={words}
                >
                  <span aria-hidden className="block h-5 w-0.5 bg-ink" />
                  <span className="sr-only">{words}</span>
                </li>
              ))}
            </ul>
          </Lane>
        </>
      )}
    </section>
  );
}

function Lane({ now, children }: { now: number; children: React.ReactNode }) {
  return (
    <div className="relative overflow-x-clip border-b border-line py-2">
      {children}
      <span aria-hidden className="absolute inset-y-0 w-px bg-closed" style={{ left: `${now}%` }} />
    </div>
  );
}
