import type { Instant } from '../instants';
import type { Who } from './rule';
import type { ItemId, MemberId } from '../ids';

/** What a decision knows of an item. `categories` holds the parents of its categories too. */
export type ItemFacts = {
  id: ItemId;
  type: string;
  path: string;
  /** Nearest first. */
  ancestors: string[];
  categories: string[];
  tags: string[];
  publishedAt: Instant | null;
  system?: boolean;
};

export type HeldTier = { tier: string; since: Instant; paid: boolean };
export type HeldPass = { pass: string; since: Instant };

export type PersonFacts = {
  signedIn: boolean;
  id?: MemberId;
  joinedAt?: Instant;
  tiers: HeldTier[];
  passes: HeldPass[];
  groups: string[];
  /** The staff role, where the person is staff. */
  staff?: string;
  readsAll?: boolean;
};

export const VISITOR: PersonFacts = { signedIn: false, tiers: [], passes: [], groups: [] };

export type Read = { meter: string; item: string; at: Instant };
export type Meter = {
  id: string;
  window: 'rolling' | 'calendar-month';
  /** Days of 24 hours, for a rolling window. */
  days?: number;
  allowances: { who: Who; reads: number }[];
};

/** Whether a person is among those whom one line of a rule or of a meter names. */
export function matches(who: Who, person: PersonFacts): boolean {
  switch (who.kind) {
    case 'everyone':
      return true;
    case 'signed-in':
      return person.signedIn;
    case 'paying':
      return person.tiers.some((held) => held.paid);
    case 'tier':
      return person.tiers.some((held) => held.tier === who.id);
    case 'pass':
      return person.passes.some((held) => held.pass === who.id);
    case 'group':
      return person.groups.includes(who.id);
    case 'member':
      return person.signedIn && person.id === who.id;
    case 'staff':
      return person.staff !== undefined && (who.id === undefined || who.id === person.staff);
  }
}
