import type { Scope } from '@/core/api/scopes';
import type { Problem } from '@/core/problem';
import { plainWords } from '@/words/desk';
import type { ProblemCode } from '@/words/problems';
import type { StaffRole } from '@/core/staff';
import type { ActorKind } from '@/platform/store/audit';
import type { MemberId } from '@/core/ids';

/** Who calls a use case. Every change is attributed to an actor and checked there, not on the screen. */
export type Actor = {
  kind: ActorKind;
  memberId: MemberId | null;
  staffRole: StaffRole | null;
  /** Where the request comes from, for rate limits; left out where it comes from no request. */
  address?: string;
  /** What the browser carries of ours, as it came: secrets, each of which identifies the browser that holds it. */
  browser?: Browser;
  /** The key of the API that a program calls with, and what that is good for. */
  key?: { id: string; scopes: Scope[] };
  /** The viewpoint that staff chose to see the site from. */
  look?: string;
};
export type Browser = {
  /** Of the session it is signed in by. */
  session?: string;
  /** Of a sign-in before, to one account. */
  device?: string;
  /** Of the mailed code that it asked for. */
  code?: string;
  /** By what the free reads of a visitor are counted, signed. */
  reads?: string;
  /** By which the passes of a visitor are known. */
  passes?: string;
  /** Of frames of other sites in which items are shown to a member. */
  embeds?: string[];
  /** As it names itself. */
  agent?: string;
  /** Whether a person opens a page with this request: it is not fetched ahead, not by a robot, and no part of another page. */
  isView?: boolean;
};
/** Someone with an account. */
export type SignedIn = Actor & { memberId: MemberId };

export const VISITOR_ACTOR: Actor = { kind: 'visitor', memberId: null, staffRole: null };
export const WORKER: Actor = { kind: 'worker', memberId: null, staffRole: null };
export const GATEWAY: Actor = { kind: 'gateway', memberId: null, staffRole: null };
export const SETUP: Actor = { kind: 'setup', memberId: null, staffRole: 'owner' };

/** Thrown inside a use case, which turns it into an answer. */
export class NotAllowed extends Error {
  constructor(readonly problem: Problem<ProblemCode>) {
    super(plainWords.problem(problem));
  }
}
