import { VISITOR, type PersonFacts } from '@/core/access/facts';
import type { Instant } from '@/core/instants';
import { readsAll } from '@/core/staff';
import { pool } from '@/platform/store/db';
import { findHolder } from '@/billing/store/holdings';
import type { Site } from '@/platform/store/site';
import { findTier } from '@/tiers/store/tiers';
import { siteNow } from '@/platform/clock';
import { currentSite } from '@/platform/site';
import type { Actor } from '@/platform/actor';
import { keptOffers } from '@/tiers/services/lib/kept';

/** What access decisions know of a member at an instant: what is held in the site's mode. Null where there is none. */
export async function personFacts(site: Site, memberId: string, at: Instant): Promise<PersonFacts | null> {
  const holder = await findHolder(pool(), memberId, site.mode, at);
  if (!holder) return null;
  const { id, joinedAt, staffRole, tiers } = holder;
  return {
    signedIn: true,
    id,
    joinedAt,
    tiers,
    passes: [],
    groups: [],
    staff: staffRole ?? undefined,
    readsAll: readsAll(staffRole),
  };
}

export type Viewer = { person: PersonFacts; lookingAs: string | null };

/**
 * Through whose eyes the site is seen: the person's own, or, for staff who read everything, a viewpoint they
 * chose ("visitor", "signed-in" or "tier:observer"). Nothing is written in anyone's name.
 */
export function viewerOf(actor: Actor): Promise<Viewer> {
  let known = viewers.get(actor);
  if (!known) viewers.set(actor, (known = findViewer(actor)));
  return known;
}

/** An actor lives as long as one request, in which the site is seen with the same eyes throughout. */
const viewers = new WeakMap<Actor, Promise<Viewer>>();

async function findViewer({ memberId, look }: Actor): Promise<Viewer> {
  if (memberId === null) return { person: VISITOR, lookingAs: null };
  const site = await currentSite();
  const now = siteNow(site);
  const person = await personFacts(site, memberId, now);
  if (!person) return { person: VISITOR, lookingAs: null };
  if (look && person.readsAll) {
    const viewpoint = await viewpointOf(look, now);
    if (viewpoint) return viewpoint;
  }
  return { person, lookingAs: null };
}

async function viewpointOf(look: string, now: Instant): Promise<Viewer | null> {
  if (look === 'visitor') return { person: VISITOR, lookingAs: 'a visitor' };
  const signedIn: PersonFacts = { ...VISITOR, signedIn: true, joinedAt: now };
  if (look === 'signed-in') return { person: signedIn, lookingAs: 'a member without a tier' };
  const tier = look.startsWith('tier:') ? await findTier(pool(), look.slice(5)) : undefined;
  if (!tier) return null;
  const paid = (await keptOffers()).some((offer) => offer.tierId === tier.id && offer.isPaid);
  return {
    person: { ...signedIn, tiers: [{ tier: tier.id, since: now, paid }] },
    lookingAs: `a new holder of ${tier.name}`,
  };
}
