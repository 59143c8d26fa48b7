import { addLength } from '../calendar';
import { toMs } from '../instants';
import type { Offer } from '../offers/offer';

/** How long a period of the offer's last step is; 0 where it has no length. Only lengths are compared by it. */
function periodMs({ steps }: Offer): number {
  const last = steps.at(-1);
  if (!last) return 0;
  if (last.kind === 'repeat') return toMs(addLength('2027-01-01T00:00:00Z', last.every, 'UTC'));
  if (last.lasts === 'forever' || 'until' in last.lasts) return Infinity;
  return toMs(addLength('2027-01-01T00:00:00Z', last.lasts, 'UTC'));
}

/** Higher rung: up; lower: down; on the same rung a longer period is up, a shorter one down. */
export function directionOf(
  from: { rung: number; offer: Offer },
  to: { rung: number; offer: Offer },
): 'up' | 'down' {
  if (from.rung !== to.rung) return to.rung > from.rung ? 'up' : 'down';
  return periodMs(to.offer) > periodMs(from.offer) ? 'up' : 'down';
}
