import clsx from 'clsx';

export type AccessState = 'open' | 'metered' | 'later' | 'ended' | 'closed';

const LOOKS: Record<AccessState, string> = {
  open: 'bg-open-wash text-open',
  metered: 'bg-metered-wash text-metered border-l-4 border-dashed border-metered',
  later: 'bg-later-wash text-later outline outline-dotted outline-1 -outline-offset-1 outline-later',
  ended: 'bg-ended-wash text-ended line-through',
  closed: 'bg-closed-wash text-closed hatch',
};

/** Each state has a shape of its own, so that it reads without colour. */
function Shape({ state }: { state: AccessState }) {
  const shared = {
    width: 10,
    height: 10,
    viewBox: '0 0 10 10',
    'aria-hidden': true,
    className: 'flex-none',
  } as const;
  switch (state) {
    case 'open':
      return (
        <svg {...shared}>
          <circle cx="5" cy="5" r="4.5" fill="currentColor" />
        </svg>
      );
    case 'metered':
      return (
        <svg {...shared}>
          <circle cx="5" cy="5" r="4" fill="none" stroke="currentColor" strokeWidth="1.5" />
          <path d="M5 1a4 4 0 0 1 0 8z" fill="currentColor" />
        </svg>
      );
    case 'later':
      return (
        <svg {...shared}>
          <circle
            cx="5"
            cy="5"
            r="4"
            fill="none"
            stroke="currentColor"
            strokeWidth="2"
            strokeDasharray="2.1 2.1"
          />
        </svg>
      );
    case 'ended':
      return (
        <svg {...shared}>
          <path d="M0 5h10" stroke="currentColor" strokeWidth="2" />
        </svg>
      );
    case 'closed':
      return (
        <svg {...shared}>
          <path d="M5 1l4 4-4 4-4-4z" fill="none" stroke="currentColor" strokeWidth="1.6" />
        </svg>
      );
  }
}

/** The state of an item for somebody. `faint` where it comes from further up rather than being set here. */
export function StateMark({
  state,
  words,
  faint = false,
}: {
  state: AccessState;
  words: string;
  faint?: boolean;
}) {
  return (
    <span
      className={clsx(
        'inline-flex w-full items-center gap-1.5 rounded-md px-2 py-1 text-sm font-semibold',
        faint ? 'bg-sunken text-muted' : LOOKS[state],
      )}
    >
      <Shape state={state} />
      {words}
    </span>
  );
}

const LIFE: Record<string, { words: string; look: string }> = {
  trial: { words: 'in trial', look: 'bg-later-wash text-later' },
  active: { words: 'active', look: 'bg-open-wash text-open' },
  overdue: { words: 'overdue', look: 'bg-closed-wash text-closed' },
  paused: { words: 'paused', look: 'bg-ended-wash text-ended' },
  cancelling: { words: 'cancelling', look: 'bg-metered-wash text-metered' },
  ended: { words: 'ended', look: 'bg-ended-wash text-ended' },
  succeeded: { words: 'received', look: 'bg-open-wash text-open' },
  declined: { words: 'declined', look: 'bg-closed-wash text-closed' },
  intent: { words: 'under way', look: 'bg-metered-wash text-metered' },
  'message-new': { words: 'waiting', look: 'bg-metered-wash text-metered' },
  'message-done': { words: 'done', look: 'bg-open-wash text-open' },
  'message-ignored': { words: 'set aside', look: 'bg-ended-wash text-ended' },
  'message-refused': { words: 'refused', look: 'bg-closed-wash text-closed' },
  'mail-queued': { words: 'on its way', look: 'bg-metered-wash text-metered' },
  'mail-sent': { words: 'sent', look: 'bg-open-wash text-open' },
  'mail-failed': { words: 'given up', look: 'bg-closed-wash text-closed' },
  awaited: { words: 'awaited', look: 'bg-metered-wash text-metered' },
  refunded: { words: 'refunded', look: 'bg-ended-wash text-ended' },
  disputed: { words: 'disputed', look: 'bg-closed-wash text-closed' },
  pauses: { words: 'will pause', look: 'bg-ended-wash text-ended' },
  'dispute-open': { words: 'disputed', look: 'bg-closed-wash text-closed' },
  'dispute-won': { words: 'dispute won', look: 'bg-open-wash text-open' },
  'dispute-lost': { words: 'dispute lost', look: 'bg-ended-wash text-ended' },
};

/** The state of a subscription or payment, in a word. */
export function LifeMark({ state }: { state: string }) {
  const mark = LIFE[state] ?? { words: state, look: 'bg-sunken text-muted' };
  return (
    <span
      className={clsx(
        'inline-block rounded-full px-2.5 py-0.5 text-sm font-semibold whitespace-nowrap',
        mark.look,
      )}
    >
      {mark.words}
    </span>
  );
}
