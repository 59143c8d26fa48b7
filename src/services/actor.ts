import { may, type Right, type StaffRole } from '@/core/staff';
import type { ActorKind } from '@/store/audit';

/** Who calls a service. Every change is made in somebody's name and is checked here, not on the screen. */
export type Actor = { kind: ActorKind; memberId: string | null; staffRole: StaffRole | null };

export const VISITOR_ACTOR: Actor = { kind: 'visitor', memberId: null, staffRole: null };
export const WORKER: Actor = { kind: 'worker', memberId: null, staffRole: null };
export const GATEWAY: Actor = { kind: 'gateway', memberId: null, staffRole: null };
export const SETUP: Actor = { kind: 'setup', memberId: null, staffRole: 'owner' };

export class NotAllowed extends Error {}

/** @throws NotAllowed with a sentence */
export function requireRight(actor: Actor, right: Right): void {
  if (!may(actor.staffRole, right)) {
    const who = actor.staffRole ? `A ${actor.staffRole}` : 'Somebody who is not staff';
    throw new NotAllowed(`${who} may not ${right}. Ask the owner of the site.`);
  }
}
