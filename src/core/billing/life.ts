import type { Book } from './book';
import type { EventName } from './event';
import type { CheckoutState, State } from './states';

/** From one state into another: what can bring it there. `begins`: the state that something new has after its first step. */
export type Edges<S extends string> = Record<S | 'begins', Partial<Record<S, readonly EventName[]>>>;

/** By whom or what it is ended before its time, and what ends it because something else begins. */
const IS_ENDED = ['cancel-now', 'take-away', 'erase', 'dispute-lost'] as const;
const LEAVES = ['join', 'submit', 'switch', 'paid', 'approved'] as const;
const RUNS_OUT = ['due', 'dispute-won'] as const;
const IS_PAID = ['paid', 'approved', 'late-success'] as const;

/** The whole life of a subscription: what is not here cannot happen. */
export const LIFE: Edges<State> = {
  begins: {
    pending: ['join', 'submit', 'switch', 'renew', 'resume'],
    trial: ['join', 'submit'],
    active: ['join', 'submit', 'switch', 'renew', 'resume', ...RUNS_OUT],
  },
  pending: {
    trial: [...IS_PAID, 'submit'],
    active: [...IS_PAID, 'submit'],
    ended: ['cancel', 'cancel-now', 'take-away', 'erase', 'expire', 'declined', 'submit'],
  },
  trial: {
    active: ['due', 'paid', 'billed', 'dispute-won'],
    overdue: ['declined', 'billed'],
    paused: RUNS_OUT,
    cancelling: ['cancel'],
    ended: [...IS_ENDED, ...LEAVES, ...RUNS_OUT, 'refunded'],
  },
  active: {
    trial: ['due', 'paid', 'billed', 'dispute-won'],
    overdue: ['declined', 'billed'],
    paused: RUNS_OUT,
    cancelling: ['cancel'],
    ended: [...IS_ENDED, ...LEAVES, ...RUNS_OUT, 'refunded', 'late-success'],
  },
  overdue: {
    trial: ['paid', 'late-success', 'billed'],
    active: ['paid', 'late-success', 'billed'],
    ended: [...IS_ENDED, ...LEAVES, 'cancel', 'declined', 'billed', 'refunded'],
  },
  paused: {
    trial: ['paid', 'resume', 'billed'],
    active: ['paid', 'resume', 'billed'],
    ended: [...IS_ENDED, ...LEAVES, 'cancel', 'resume'],
  },
  cancelling: {
    trial: ['undo'],
    active: ['undo', 'paid', 'renew', 'billed'],
    ended: [...IS_ENDED, ...LEAVES, ...RUNS_OUT, 'refunded'],
  },
  ended: { trial: ['late-success'], active: ['late-success'] },
};

/** How far a checkout comes: what is not here cannot happen. Until its address is confirmed it is in nobody's book. */
export const CHECKOUT_LIFE: Edges<CheckoutState> = {
  begins: { charging: ['submit'], approving: ['submit'], awaiting: ['submit'], done: ['submit'] },
  confirming: {},
  open: {
    charging: ['submit', 'pay-now'],
    approving: ['submit'],
    awaiting: ['submit', 'pay-now'],
    done: ['submit', 'late-success'],
    expired: ['expire', 'cancel', 'cancel-now', 'take-away', 'erase'],
  },
  charging: {
    open: ['declined'],
    awaiting: ['declined'],
    done: ['paid'],
    expired: ['cancel', 'cancel-now'],
  },
  approving: {
    open: ['approved', 'not-approved', 'submit'],
    charging: ['submit'],
    awaiting: ['submit', 'approved'],
    done: ['approved', 'submit', 'late-success'],
    expired: ['expire', 'cancel', 'cancel-now', 'take-away', 'erase'],
  },
  awaiting: {
    open: ['declined'],
    charging: ['submit', 'method'],
    approving: ['submit'],
    done: ['paid'],
    expired: ['cancel', 'cancel-now', 'erase'],
  },
  done: {},
  expired: {},
};

/** An edge as one line, for tests and for what is thrown. */
export const edge = (what: string, from: string, to: string, event: EventName): string =>
  `${what}: ${from} → ${to} by ${event}`;

/** The edges that a step took. */
export function edgesTaken(
  before: Book,
  after: Book,
  event: EventName,
): { line: string; isKnown: boolean }[] {
  const taken: { line: string; isKnown: boolean }[] = [];
  const look = <S extends string>(
    what: string,
    edges: Edges<S>,
    was: { id: string; state: S }[],
    is: { id: string; state: S }[],
  ): void => {
    for (const { id, state } of is) {
      const from = was.find((one) => one.id === id)?.state ?? 'begins';
      if (from === state) continue;
      const isKnown = edges[from][state]?.includes(event) ?? false;
      taken.push({ line: edge(what, from, state, event), isKnown });
    }
  };
  look('subscription', LIFE, before.subscriptions, after.subscriptions);
  look('checkout', CHECKOUT_LIFE, before.checkouts, after.checkouts);
  return taken;
}

/** @throws where a step took an edge that no table has: then the book must not be stored */
export function refuseUnknownEdges(before: Book, after: Book, event: EventName): void {
  const unknown = edgesTaken(before, after, event).find(({ isKnown }) => !isKnown);
  if (unknown) throw new Error(`no life goes this way: ${unknown.line}`);
}
