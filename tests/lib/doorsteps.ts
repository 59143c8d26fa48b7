import { ASKERS } from '../../src/core/access/asker';
import type { Doorstep, Meeting } from '../../src/core/access/doorstep';

/** A doorstep that says nothing of its own but what is given; `said` is what it says to everyone. */
export function doorstepWith(part: Partial<Doorstep> & { said?: string } = {}): Doorstep {
  const { said = '', ...rest } = part;
  const notice: Meeting = { kind: 'notice', words: said };
  const meets = Object.fromEntries(ASKERS.map((asker) => [asker, notice])) as Doorstep['meets'];
  return { teaser: { kind: 'none' }, meets, showSignIn: false, showTiers: false, button: null, ...rest };
}
