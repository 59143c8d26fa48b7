import { cacheOn } from '../cache-on';
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

const KEYS = Symbol('keys');

/**
 * All that rules and meters can name a person by, as keys of a who. Facts are never changed, so it is worked out once for each
 * object that has them.
 */
export const keysOf = (person: PersonFacts & { [KEYS]?: ReadonlySet<string> }): ReadonlySet<string> =>
  person[KEYS] ?? cacheOn(person, KEYS, new Set(findKeys(person)));

function* findWhos({ signedIn, id, tiers, passes, groups, staff }: PersonFacts): Generator<Who> {
  yield { kind: 'everyone' };
  if (signedIn) yield { kind: 'signed-in' };
  if (signedIn && id !== undefined) yield { kind: 'member', id };
  if (tiers.some(({ paid }) => paid)) yield { kind: 'paying' };
  for (const { tier } of tiers) yield { kind: 'tier', id: tier };
  for (const { pass } of passes) yield { kind: 'pass', id: pass };
  for (const group of groups) yield { kind: 'group', id: group };
  if (staff !== undefined) {
    yield { kind: 'staff' };
    yield { kind: 'staff', id: staff };
  }
}

const named = new Map<string, string>();

/**
 * The key of a who: always the same string in memory, so that a set finds it without comparing letters. Those of single members,
 * of whom there are many, are not kept.
 */
export function nameKey(who: Who): string {
  const key = refKey(who);
  const same = who.kind === 'member' ? key : named.get(key);
  if (same === undefined) named.set(key, key);
  return same ?? key;
}

const findKeys = (person: PersonFacts): string[] => [...findWhos(person)].map(nameKey);

const bits = new Map<string, number>();
/** As many as fit in the whole numbers that the engine keeps in its registers. */
const MOST_BITS = 30;

/** A bit of its own for each of the names that a process met first: a few names are compared at once. 0 for all others. */
export function bitOf(key: string): number {
  const known = bits.get(key);
  if (known !== undefined || bits.size >= MOST_BITS || key.startsWith('member:')) return known ?? 0;
  const bit = 1 << bits.size;
  bits.set(key, bit);
  return bit;
}

const BITS = Symbol('bits');

/** The bits of all that a person can be named by. */
export const bitsOf = (person: PersonFacts & { [BITS]?: number }): number =>
  person[BITS] ??
  cacheOn(
    person,
    BITS,
    [...keysOf(person)].reduce((all, key) => all | bitOf(key), 0),
  );

/** Whether a person is among those whom one line of a rule or of a meter names. */
export const matches = (who: Who, person: PersonFacts): boolean => keysOf(person).has(refKey(who));
