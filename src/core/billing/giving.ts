import { isBefore, latest, type Instant } from '../instants';
import { named, own, type Book, type Holding } from './book';
import { sinceOf } from './access';
import { end } from './ending';
import { RUNNING } from './states';
import { isAsked, isOn, refuse, type Work } from './work';

export type Given = {
  kind: Holding['kind'];
  tier: string;
  /** From now on where it is not said; an import tells when it began. */
  from?: Instant;
  to: Instant | null;
  isPaid?: boolean;
};

/** Staff give a tier or a pass, or an import brings along what a member held elsewhere. */
export function give(
  work: Work,
  why: 'gift' | 'import',
  { kind, tier, from, to, isPaid = false }: Given,
): void {
  const { book, context, now } = work;
  const begins = from ?? now;
  if (to !== null && !isBefore(begins, to)) refuse('nothing-left');
  const since = kind === 'tier' ? (sinceOf(book, context, tier, begins) ?? begins) : begins;
  const id = context.newId();
  const held = { id, kind, why, subscription: null, purchase: null, tier, from: begins, to, since };
  book.holdings.push({ ...held, isPaid: isPaid && why === 'import' });
}

/** What was given ends later, or sooner; null: it has no end. What a subscription holds ends by its payments alone. */
export function extend({ book, now }: Work, id: string, to: Instant | null): void {
  const held = givenNow(book, id, now);
  own(book.holdings, held).to = to === null ? null : latest(to, now);
}

export const takeBack = (work: Work, id: string): void => extend(work, id, work.now);

function givenNow(book: Book, id: string, now: Instant): Holding {
  const held = book.holdings.find((one) => one.id === id);
  if (!held || held.why === 'subscription') return refuse('nothing-to-take-back');
  return held.to === null || isBefore(now, held.to) ? held : refuse('ended');
}

/** Another book of the same person comes into this one. @throws Refused where both run on one ladder, or a charge is under way */
export function merge({ book }: Work, other: Book): void {
  const runs = (one: Book) => one.subscriptions.filter(({ state }) => RUNNING.has(state));
  if (runs(other).some((theirs) => runs(book).some((ours) => isOn(ours, theirs)))) refuse('merge');
  if ([...book.charges, ...other.charges].some(isAsked)) refuse('under-way');
  const lists = [
    'subscriptions',
    'purchases',
    'checkouts',
    'charges',
    'payments',
    'refunds',
    'credits',
    'uses',
    'stretches',
    'holdings',
  ] as const;
  for (const list of lists) (book[list] as unknown[]).push(...other[list]);
  book.quote = null;
  for (const theirs of other.summaries) {
    const ours = book.summaries.find(({ track }) => track === theirs.track);
    if (!ours) book.summaries.push({ ...theirs });
    else
      Object.assign(ours, {
        hadTrial: ours.hadTrial || theirs.hadTrial,
        hasSwitchedUp: ours.hasSwitchedUp || theirs.hasSwitchedUp,
        joinedAt: [ours.joinedAt, theirs.joinedAt].filter((at) => at !== null).sort()[0] ?? null,
      });
  }
}

/** The member leaves for good: everything ends now, also what was kept or given. The money's history stays. */
export function erase(work: Work): void {
  const { book, now } = work;
  if (book.charges.some((one) => isAsked(one) && one.attempts.at(-1)?.until === null)) refuse('under-way');
  for (const s of book.subscriptions)
    if (s.state !== 'ended') end({ ...work, track: s.track, slot: s.slot }, s);
  for (const held of [...book.holdings])
    if (held.to === null || isBefore(now, held.to)) own(book.holdings, held).to = latest(now, held.from);
  for (const one of book.checkouts) if (one.state !== 'done') one.state = 'expired';
  for (const one of book.purchases)
    if (one.state === 'pending') named(book.purchases, one.id).state = 'ended';
}
