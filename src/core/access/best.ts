import { toMs } from '../instants';
import type { Decision } from './decide';

const ORDER: Decision['state'][] = ['open', 'metered', 'later', 'ended', 'closed'];

/** The most open of several decisions: of two that open later, the sooner. Undefined where there are none. */
export function bestDecision(decisions: Decision[]): Decision | undefined {
  const opens = ({ opensAt }: Decision): number => (opensAt ? toMs(opensAt) : Infinity);
  return [...decisions].sort(
    (one, other) =>
      ORDER.indexOf(one.state) - ORDER.indexOf(other.state) ||
      (opens(one) < opens(other) ? -1 : Number(opens(one) > opens(other))),
  )[0];
}
