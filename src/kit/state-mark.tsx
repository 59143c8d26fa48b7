import clsx from 'clsx';
import type { Words } from '@/words/speak';

export type AccessState = 'open' | 'metered' | 'later' | 'ended' | 'closed';

const LOOKS: Record<AccessState, string> = {
  open: 'bg-open-wash text-open',
  metered: 'bg-metered-wash text-metered border-l-4 border-dashed border-metered',
  later: 'bg-later-wash text-later outline outline-dotted outline-1 -outline-offset-1 outline-later',
  ended: 'bg-ended-wash text-ended line-through',
  closed: 'bg-closed-wash text-closed hatch',
};

/** Where it is inherited: the same colour and shape, without the ground. */
const FAINT: Record<AccessState, string> = {
  open: 'text-open',
  metered: 'text-metered',
  later: 'text-later',
  ended: 'text-ended line-through',
  closed: 'text-closed',
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

/** The state of an item for a viewpoint. `faint` where it is inherited rather than set here. */
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
        'inline-flex w-full items-center gap-1.5 overflow-hidden rounded-md px-2 py-1 text-sm whitespace-nowrap',
        faint ? FAINT[state] : ['font-semibold', LOOKS[state]],
      )}
    >
      <Shape state={state} />
      {words}
    </span>
  );
}

const LIFE = {
  pending: 'bg-metered-wash text-metered',
  trial: 'bg-later-wash text-later',
  active: 'bg-open-wash text-open',
  overdue: 'bg-closed-wash text-closed',
  paused: 'bg-ended-wash text-ended',
  pauses: 'bg-ended-wash text-ended',
  cancelling: 'bg-metered-wash text-metered',
  ended: 'bg-ended-wash text-ended',
  disputed: 'bg-closed-wash text-closed',
  expiring: 'bg-metered-wash text-metered',
  succeeded: 'bg-open-wash text-open',
  declined: 'bg-closed-wash text-closed',
  intent: 'bg-metered-wash text-metered',
  awaited: 'bg-metered-wash text-metered',
  refunded: 'bg-ended-wash text-ended',
  'message-new': 'bg-metered-wash text-metered',
  'message-done': 'bg-open-wash text-open',
  'message-ignored': 'bg-ended-wash text-ended',
  'message-refused': 'bg-closed-wash text-closed',
  'mail-queued': 'bg-metered-wash text-metered',
  'mail-sent': 'bg-open-wash text-open',
  'mail-failed': 'bg-closed-wash text-closed',
  'dispute-open': 'bg-closed-wash text-closed',
  'dispute-won': 'bg-open-wash text-open',
  'dispute-lost': 'bg-ended-wash text-ended',
} as const;

const isLife = (state: string): state is keyof typeof LIFE => Object.hasOwn(LIFE, state);

/** The state of a subscription, payment, message or mail, in a word. */
export function LifeMark({ state, t }: { state: string; t: Words }) {
  return (
    <span
      className={clsx(
        'inline-block rounded-full px-2.5 py-0.5 text-sm font-semibold whitespace-nowrap',
        isLife(state) ? LIFE[state] : 'bg-sunken text-muted',
      )}
    >
      {isLife(state) ? t(`state.${state}`) : state}
    </span>
  );
}
