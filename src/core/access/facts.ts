import type { Instant } from '../instants';
import { refKey, type Who } from './rule';
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
  /** Of one who reads everything: the categories that are shut to them. */
  shutFrom?: readonly string[];
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

/**
 * All that rules and meters can name a person by, as keys of a who. Facts are never changed, so it is worked out once for each
 * object that has them.
 */
export function keysOf(person: PersonFacts): ReadonlySet<string> {
  let keys = known.get(person);
  if (!keys) known.set(person, (keys = new Set(findKeys(person))));
  return keys;
}
const known = new WeakMap<PersonFacts, ReadonlySet<string>>();

function* findKeys({ signedIn, id, tiers, passes, groups, staff }: PersonFacts): Generator<string> {
  yield refKey({ kind: 'everyone' });
  if (signedIn) yield refKey({ kind: 'signed-in' });
  if (signedIn && id !== undefined) yield refKey({ kind: 'member', id });
  if (tiers.some(({ paid }) => paid)) yield refKey({ kind: 'paying' });
  for (const { tier } of tiers) yield refKey({ kind: 'tier', id: tier });
  for (const { pass } of passes) yield refKey({ kind: 'pass', id: pass });
  for (const group of groups) yield refKey({ kind: 'group', id: group });
  if (staff !== undefined) {
    yield refKey({ kind: 'staff' });
    yield refKey({ kind: 'staff', id: staff });
  }
}

/** Whether a person is among those whom one line of a rule or of a meter names. */
export const matches = (who: Who, person: PersonFacts): boolean => keysOf(person).has(refKey(who));
