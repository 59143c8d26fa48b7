import { VISITOR, type PersonFacts } from '@/core/access/facts';
import type { LookingAs } from '@/core/access/viewpoint';
import type { Instant } from '@/core/instants';
import type { Actor } from '@/platform/actor';
import { siteNow } from '@/platform/clock';
import { oncePerRequest } from '@/platform/request';
import { currentSite } from '@/platform/site';
import { pool } from '@/platform/store/db';
import { hashToken } from '@/platform/tokens';
import { listPassesOfBrowser } from '@/billing/store/holdings';
import { findViewpoint, personFacts, staffFacts, withoutStaff } from './viewpoints';

/** `at`: when it is seen, where that is not now. */
export type Viewer = { person: PersonFacts; at: Instant | null; lookingAs: LookingAs | null };

/**
 * Through whose eyes the site is seen, and when: the person's own, now; or, for staff who read everything, from a viewpoint
 * that they chose. Nothing is written in anyone's name.
 */
export function viewerOf(actor: Actor): Promise<Viewer> {
  let known = viewers.get(actor);
  if (!known) viewers.set(actor, (known = findViewer(actor)));
  return known;
}

/** An actor lives as long as one request, in which the site is seen with the same eyes throughout. */
const viewers = new WeakMap<Actor, Promise<Viewer>>();

async function findViewer({ memberId, staffRole, look, browser }: Actor): Promise<Viewer> {
  const visitor = { person: VISITOR, at: null, lookingAs: null };
  if (memberId === null && !browser?.passes) return visitor;
  const site = await currentSite();
  if (memberId === null) {
    const hash = hashToken(browser?.passes ?? '');
    const passes = await listPassesOfBrowser(pool(), hash, site.mode, siteNow(site));
    return passes.length > 0 ? { ...visitor, person: { ...VISITOR, passes } } : visitor;
  }
  const facts = await oncePerRequest(`person ${memberId}`, () => personFacts(site, memberId, siteNow(site)));
  if (!facts) return visitor;
  // Whether they are staff is said by their session, which may not have shown all that the site asks for.
  const person = { ...withoutStaff(facts), ...staffFacts(site, staffRole) };
  const seen = look && person.readsAll ? await findViewpoint(site, look) : null;
  if (!seen) return { person, at: null, lookingAs: null };
  const { who, name, on, at } = seen;
  return { person: seen.person, at: on && at, lookingAs: { who, name, on } };
}
