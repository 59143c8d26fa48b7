import { addLength } from '../calendar';
import { isBefore, type Instant } from '../instants';
import { beginningAt, nextAt, type Place } from '../offers/place';
import { isPaid } from '../offers/offer';
import { hold } from './access';
import type { Method, Subscription, SwitchPlan } from './book';
import { begin, charge, firstPeriod } from './charging';
import { end } from './ending';
import { planSwitch } from './switch-plan';
import { changed, isKept, offerNamed, refuse, refuseUnderWay, running, tell, type Work } from './work';

const QUOTE_HOLDS = { n: 1, unit: 'hour' } as const;

/** What is shown before a switch; accepted within the hour, it is what is charged. */
export function quote(work: Work, to: string): void {
  const s = running(work);
  refuseUnderWay(work);
  const plan = planSwitch(work, s, to);
  work.book.quote = {
    id: work.context.newId(),
    at: work.now,
    subscription: s.id,
    to,
    events: s.events,
    plan,
  };
}

/** Goes over to another offer of the ladder: now, or at the end of what is paid. */
export function switchTo(
  work: Work,
  to: string,
  { byQuote = false, method }: { byQuote?: boolean; method?: Method | null } = {},
): void {
  const s = running(work);
  refuseUnderWay(work);
  const plan = byQuote ? quoted(work, s, to) : planSwitch(work, s, to);
  // What comes later is paid by what pays then.
  const pays = method === undefined || (method && !plan.atOnce) ? s.method : method;
  if (isPaid(offerNamed(work, to)) && !pays) refuse('no-method');
  if (!plan.atOnce) {
    s.switchesTo = to;
    tell(work, 'switch-asked', s);
    return changed(work, s);
  }
  const next = begin(work, to, switches(s, pays));
  charge(work, next, 'switch', firstPeriod(work, next), { unused: plan.unused });
}

export const switches = ({ id }: Subscription, method: Method | null) => ({
  begunBy: 'switch' as const,
  skipTrial: true,
  skipFee: true,
  replaces: id,
  method,
});

/** The plan that was shown, while nothing of the subscription has changed since. @throws Refused */
export function quoted({ book, context, now }: Work, s: Subscription, to: string): SwitchPlan {
  const shown = book.quote;
  const isGood =
    shown?.subscription === s.id &&
    shown.to === to &&
    shown.events === s.events &&
    !isBefore(addLength(shown.at, QUOTE_HOLDS, context.zone), now);
  return isGood ? shown.plan : refuse('quote-void');
}

/** A switch down begins: the old one ends here, whatever becomes of the first charge of the new. */
export function beginDown(work: Work, s: Subscription): void {
  const next = begin(work, s.switchesTo ?? s.offer, {
    ...switches(s, s.method),
    begunBy: s.state === 'paused' ? 'switch' : 'down',
  });
  const period = firstPeriod(work, next);
  if (s.state === 'paused') return charge(work, next, 'switch', period);
  end(work, s, { keeps: isKept(work, s), notice: 'left' });
  Object.assign(next, { state: 'active', beganAt: work.now });
  hold(work, next, period.tier);
  charge(work, next, 'down', period);
}

export function takeBackSwitch(work: Work): void {
  const s = running(work);
  if (!s.switchesTo) return refuse('nothing-to-take-back');
  s.switchesTo = null;
  changed(work, s);
  tell(work, 'switch-undone', s);
}

/** The owner moves it to a version of its offer, which holds from the next period. */
export function move(work: Work, to: string): void {
  const s = running(work);
  offerNamed(work, to);
  s.movesTo = to;
  changed(work, s);
  tell(work, 'move-asked', s);
}

/** Its place under the version that it moves to, by the position of its steps; a version of another shape counts from `at`. */
export function placeMoved(
  { context }: { context: Pick<Work['context'], 'zone' | 'offers'> },
  s: Subscription,
  to: string,
  at: Instant,
): Place {
  const kept = { ...s.place, skipFee: true };
  const last = s.place.last ?? { step: 0, n: -1 };
  const version = context.offers[to];
  const next = version && nextAt(kept, version, context.zone);
  return next?.from === at ? kept : beginningAt(kept, at, { step: last.step, n: last.n + 1 });
}
